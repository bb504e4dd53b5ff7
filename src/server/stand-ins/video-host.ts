import { randomBytes } from 'node:crypto';
import { mkdir, rm } from 'node:fs/promises';
import path from 'node:path';
import { Readable, Transform } from 'node:stream';
import { FileStore } from '@tus/file-store';
import { Server } from '@tus/server';
import { fileTypeFromFile } from 'file-type';
import send from 'send';
import { escaped } from '../../core/publishing/letter';
import { SEEN_BY, type SeenBy } from '../../core/publishing/publication';
import { openKept } from './kept';
import { openSignInDesk, type Account } from './sign-in-desk';
import { answerJson, hour, NOT_KNOWN, sendOn, showPage, type StandIn, type Visit } from './visits';

interface Video {
  readonly id: string;
  readonly accountId: string;
  readonly studioId: string;
  /** What who sent it calls it, so that asking twice makes one. */
  readonly key: string;
  readonly title: string;
  readonly about: string;
  readonly seenBy: SeenBy;
  readonly byteCount: number;
  readonly at: number;
  /** When all of it had arrived, and until when it is being prepared. */
  readonly arrivedAt?: number;
  readonly readyAt?: number;
  readonly end?: 'unusable' | 'taken-down';
}
interface Switches {
  /** So many requests are answered 503. */
  readonly failNext: number;
  /** So many uploads break off half way. */
  readonly breakNext: number;
  /** How fast uploads go, in kilobytes a second; 0: as they like. */
  readonly slowKilobytes: number;
  readonly quotaMegabytes: number;
  readonly preparingSeconds: number;
  /** The next one cannot be prepared. */
  readonly spoilNext: number;
}
interface Books {
  readonly videos: readonly Video[];
  readonly switches: Readonly<Record<string, Switches>>;
}

const USUAL: Switches = {
  failNext: 0,
  breakNext: 0,
  slowKilobytes: 0,
  quotaMegabytes: 2000,
  preparingSeconds: 3,
  spoilNext: 0,
};
const SWITCH_NAMES: Readonly<Record<keyof Switches, string>> = {
  failNext: 'fail the next requests',
  breakNext: 'break the next uploads off half way',
  slowKilobytes: 'kilobytes a second (0: fast)',
  quotaMegabytes: 'megabytes a channel has',
  preparingSeconds: 'seconds to prepare a film',
  spoilNext: 'films that turn out unusable',
};

/** A host of films: signing in, resumable uploads by tus 1.0, preparing, quota, taking down. Asking twice with one `Idempotency-Key` makes one video. */
export async function openVideoHost(folder: string, secret: string, origin: () => string): Promise<StandIn> {
  const uploads = path.join(folder, 'uploads');
  await mkdir(uploads, { recursive: true });
  const books = await openKept<Books>(path.join(folder, 'videos.json'), { videos: [], switches: {} });
  const desk = await openSignInDesk({
    file: path.join(folder, 'people.json'),
    path: 'video-host',
    name: 'Video host',
    wants: 'put films on your channel',
    secret,
    origin,
  });
  const find = (id: string | undefined) => books.value().videos.find((video) => video.id === id);
  const fileOf = ({ id }: Video) => path.join(uploads, id);
  const change = (id: string, by: (video: Video) => Video) =>
    books.change((value) => ({ ...value, videos: value.videos.map((one) => (one.id === id ? by(one) : one)) }));
  const switchesOf = (studioId: string) => ({ ...USUAL, ...books.value().switches[studioId] });
  const setSwitches = (studioId: string, next: Partial<Switches>) =>
    books.change((value) => ({
      ...value,
      switches: { ...value.switches, [studioId]: { ...switchesOf(studioId), ...next } },
    }));
  /** @returns whether this time something goes wrong on purpose; each time counts one down */
  const goesWrong = async (studioId: string, what: 'failNext' | 'breakNext' | 'spoilNext') => {
    const left = switchesOf(studioId)[what];
    if (left > 0) await setSwitches(studioId, { [what]: left - 1 });
    return left > 0;
  };

  const usedBytes = (accountId: string) =>
    books
      .value()
      .videos.filter((video) => video.accountId === accountId && video.end === undefined)
      .reduce((sum, { byteCount }) => sum + byteCount, 0);
  const told = (video: Video) => ({
    id: video.id,
    ...stateOf(video),
    upload: `${origin()}/video-host/uploads`,
    address: `${origin()}/video-host/watch/${video.id}`,
  });

  const tus = new Server({
    path: '/video-host/uploads',
    datastore: new FileStore({ directory: uploads }),
    relativeLocation: true,
    // One video, one upload: who begins it anew begins it at its beginning.
    namingFunction: (_request, metadata) => metadata?.video ?? '',
    async onUploadCreate(_request, upload) {
      const video = find(upload.metadata?.video ?? '');
      if (!video || video.end || video.arrivedAt !== undefined || upload.size !== video.byteCount)
        throw { status_code: 409, body: 'That is not what was announced.' };
      return {};
    },
    async onUploadFinish(_request, upload) {
      const video = find(upload.id)!;
      const type = await fileTypeFromFile(fileOf(video));
      const spoilt = !type?.mime.startsWith('video/') || (await goesWrong(video.studioId, 'spoilNext'));
      const arrivedAt = Date.now();
      const readyAt = arrivedAt + switchesOf(video.studioId).preparingSeconds * 1000;
      await change(video.id, (one) => ({ ...one, arrivedAt, readyAt, ...(spoilt && { end: 'unusable' }) }));
      return {};
    },
  });

  return {
    path: 'video-host',
    async visit(visit) {
      if (await desk.visit(visit)) return true;
      const { pathname } = visit.url;
      if (pathname.startsWith('/video-host/api/') || pathname.startsWith('/video-host/uploads')) {
        const account = desk.bearer(visit);
        if (!account) return answerJson(visit, 401, { problem: 'Sign in first.' }, { 'www-authenticate': 'Bearer' });
        // Looking how much room there is uses none of them up.
        const isLook = pathname === '/video-host/api/channel';
        if (!isLook && (await goesWrong(account.studioId, 'failNext')))
          return answerJson(visit, 503, { problem: 'Out of breath. Come again later.' });
        return pathname.startsWith('/video-host/api/') ? asked(visit, account) : upload(visit, account);
      }
      const watched = /^\/video-host\/watch\/([\w-]+)(\/file)?$/.exec(pathname);
      if (watched) return watch(visit, find(watched[1]), watched[2] !== undefined);
      if (pathname !== '/video-host') return false;
      if (visit.visitor === null)
        return showPage(visit, { title: 'Video host', place: 'video-host', status: 403, body: NOT_KNOWN });
      return visit.method === 'POST'
        ? act(visit, visit.visitor)
        : showPage(visit, {
            title: 'Video host',
            place: 'video-host',
            body: shelf(visit.visitor),
          });
    },
  };

  function stateOf(video: Video): { state: string; share: number | null } {
    if (video.end === 'taken-down') return { state: 'taken-down', share: null };
    if (video.arrivedAt === undefined) return { state: 'arriving', share: null };
    const left = video.readyAt! - Date.now();
    if (left > 0) return { state: 'preparing', share: 1 - left / Math.max(1, video.readyAt! - video.arrivedAt) };
    return { state: video.end ?? 'ready', share: null };
  }

  async function asked(visit: Visit, account: Account): Promise<boolean> {
    const { pathname } = visit.url;
    const mostBytes = switchesOf(account.studioId).quotaMegabytes * 1e6;
    if (pathname === '/video-host/api/channel' && visit.method === 'GET')
      return answerJson(visit, 200, { name: account.name, usedBytes: usedBytes(account.id), mostBytes });
    if (pathname === '/video-host/api/videos' && visit.method === 'POST') {
      const key = String(visit.request.headers['idempotency-key'] ?? '');
      const before = books.value().videos.find((one) => one.accountId === account.id && one.key === key);
      if (before) return answerJson(visit, 200, told(before));
      const wanted = readVideo(await visit.body());
      if (!wanted || key === '')
        return answerJson(visit, 422, { problem: 'A film needs a title, its size and a key.' });
      const left = mostBytes - usedBytes(account.id);
      if (wanted.byteCount > left)
        return answerJson(visit, 413, {
          problem: `The channel has ${(Math.max(0, left) / 1e6).toFixed(1)} MB left, and the film has ${(wanted.byteCount / 1e6).toFixed(1)} MB.`,
        });
      const video: Video = {
        ...wanted,
        id: randomBytes(9).toString('base64url'),
        accountId: account.id,
        studioId: account.studioId,
        key,
        at: Date.now(),
      };
      await books.change((value) => ({ ...value, videos: [video, ...value.videos] }));
      return answerJson(visit, 201, told(video));
    }
    const video = find(/^\/video-host\/api\/videos\/([\w-]+)$/.exec(pathname)?.[1]);
    if (!video || video.accountId !== account.id) return answerJson(visit, 404, { problem: 'There is no such film.' });
    if (visit.method === 'GET') return answerJson(visit, 200, told(video));
    if (visit.method !== 'DELETE') return false;
    await remove(video);
    return answerJson(visit, 200, {});
  }

  async function upload(visit: Visit, account: Account): Promise<true> {
    const { request, response, url, method } = visit;
    const id = url.pathname.split('/')[3];
    if (id !== undefined && find(id)?.accountId !== account.id)
      return answerJson(visit, 404, { problem: 'There is no such upload.' });
    const headers = new Headers(
      Object.entries(request.headers).map(([key, value]): [string, string] => [key, String(value)]),
    );
    const isData = method === 'PATCH';
    const bytes = Number(request.headers['content-length'] ?? 0);
    const breaks = isData && (await goesWrong(account.studioId, 'breakNext'));
    const line = slowLine(switchesOf(account.studioId).slowKilobytes, breaks ? bytes / 2 : Infinity);
    line.on('error', () => request.destroy());
    const answer = await tus.handleWeb(
      new Request(url, {
        method,
        headers,
        ...(isData && { body: Readable.toWeb(request.pipe(line)) as ReadableStream<Uint8Array>, duplex: 'half' }),
      }),
    );
    response.writeHead(answer.status, Object.fromEntries(answer.headers));
    response.end(Buffer.from(await answer.arrayBuffer()));
    return true;
  }

  async function remove(video: Video): Promise<void> {
    await books.change((value) => ({ ...value, videos: value.videos.filter(({ id }) => id !== video.id) }));
    for (const file of [fileOf(video), `${fileOf(video)}.json`]) await rm(file, { force: true });
  }

  async function act(visit: Visit, studioId: string): Promise<true> {
    const said = new URLSearchParams(await visit.body());
    const video = find(said.get('video') ?? undefined);
    if (said.has('sign-out')) await desk.signOut(studioId);
    else if (video?.studioId === studioId) await change(video.id, (one) => ({ ...one, end: 'taken-down' }));
    else if (!said.has('video')) {
      const next = (Object.keys(USUAL) as (keyof Switches)[]).map((name) => {
        const number = Number(said.get(name) ?? USUAL[name]);
        return [name, Number.isFinite(number) ? Math.min(1e6, Math.max(0, number)) : USUAL[name]] as const;
      });
      await setSwitches(studioId, Object.fromEntries(next));
    }
    return sendOn(visit, '/video-host');
  }

  function watch(visit: Visit, video: Video | undefined, file: boolean): Promise<boolean> | boolean {
    const { request, response } = visit;
    const isSeen =
      video && stateOf(video).state === 'ready' && (video.seenBy !== 'nobody' || visit.visitor === video.studioId);
    if (!isSeen)
      return showPage(visit, {
        title: 'Video host',
        place: 'video-host',
        status: 404,
        body: '<h1>This film cannot be watched</h1><p class="quiet">It is not there, not ready, or for its owner only.</p>',
      });
    if (file)
      return new Promise((resolve) => {
        response.setHeader('content-type', 'video/mp4');
        response.on('close', () => resolve(true));
        send(request, fileOf(video), { cacheControl: false, dotfiles: 'allow' })
          .on('error', () => response.writeHead(404).end())
          .pipe(response);
      });
    return showPage(visit, {
      title: video.title,
      place: 'video-host',
      body: `<video controls preload="metadata" src="/video-host/watch/${video.id}/file"></video><h1 style="margin-top:18px">${escaped(video.title)}</h1><p style="white-space:pre-line">${escaped(video.about)}</p>`,
    });
  }

  function shelf(studioId: string): string {
    const channels = desk.accountsOf(studioId);
    const own = books.value().videos.filter((video) => video.studioId === studioId);
    const cards = own.map((video) => {
      const { state, share } = stateOf(video);
      const picture =
        state === 'ready'
          ? `<video controls preload="metadata" src="/video-host/watch/${video.id}/file"></video>`
          : '<video></video>';
      return `<article class="sheet" data-part="video" data-state="${state}">${picture}<div class="pad"><h2>${escaped(video.title)}</h2><p class="quiet">${escaped(channels.find(({ id }) => id === video.accountId)?.name ?? '')} · ${hour(video.at)} · ${SEEN[video.seenBy]}</p>
<p>${STATES[state] ?? state}</p>${share === null ? '' : `<progress max="1" value="${share}" aria-label="Being prepared"></progress>`}
<div class="line">${state === 'ready' ? `<a class="button" href="/video-host/watch/${video.id}">Watch</a>` : ''}${video.end ? '' : `<form method="post"><button name="video" value="${video.id}">Take it down</button></form>`}</div></div></article>`;
    });
    const empty =
      '<p class="quiet">No films yet. In Tanager’s Send, “Send it on” puts them here once you have signed in.</p>';
    const switches = switchesOf(studioId);
    const fields = (Object.keys(USUAL) as (keyof Switches)[])
      .map(
        (name) =>
          `<label>${SWITCH_NAMES[name]} <input type="number" step="any" min="0" name="${name}" value="${switches[name]}"></label>`,
      )
      .join('');
    return `<h1>${channels.length === 0 ? 'Video host' : escaped(channels.map(({ name }) => name).join(' · '))}</h1>${own.length === 0 ? empty : `<div class="grid">${cards.join('')}</div>`}
<form method="post" class="switches" aria-label="What this host does">${fields}<button>Set</button></form><form method="post" style="margin-top:14px"><button name="sign-out" value="1">Sign Tanager out</button></form>`;
  }
}

const SEEN: Readonly<Record<SeenBy, string>> = {
  everybody: 'for everybody',
  link: 'for who has the link',
  nobody: 'for you alone',
};
const STATES: Readonly<Record<string, string>> = {
  arriving: 'is arriving',
  preparing: 'is being prepared',
  ready: 'can be watched',
  unusable: 'could not be prepared',
  'taken-down': 'was taken down',
};

/** What is wanted of a new video; null when it is not whole. */
function readVideo(body: string): Pick<Video, 'title' | 'about' | 'seenBy' | 'byteCount'> | null {
  try {
    const { title, about, seenBy, byteCount } = JSON.parse(body) as Record<string, unknown>;
    if (typeof title !== 'string' || title.trim() === '' || !Number.isSafeInteger(byteCount)) return null;
    return {
      title: title.slice(0, 200),
      about: typeof about === 'string' ? about.slice(0, 5000) : '',
      seenBy: SEEN_BY.find((one) => one === seenBy) ?? 'nobody',
      byteCount: byteCount as number,
    };
  } catch {
    return null;
  }
}

/** A line of a certain speed that may break. @param kilobytes a second; 0: as fast as it goes @param most bytes before it breaks */
function slowLine(kilobytes: number, most: number): Transform {
  let passed = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      passed += chunk.length;
      if (passed > most) return done(new Error('the line broke'));
      if (kilobytes === 0) return done(null, chunk);
      setTimeout(() => done(null, chunk), chunk.length / kilobytes);
    },
  });
}
