import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { transitionDocument } from '../src/core/mounts/kept-transition';
import { ROUTES, PAGES, type RouteName } from '../src/server/http/routes';
import { type App, ask, filmMade, openApp, screened, sending, signedIn } from './app';

const SHOW = 'lantern-regatta';
const WHO = ['stranger', 'foreigner', 'guest', 'owner'] as const;
type Who = (typeof WHO)[number];

/** What is behind a door for each of them: “ok” for whatever is not a refusal to let them in. */
const ANYBODY = 'ok ok ok ok';
const PERSONS = '401 ok ok ok';
/** Each in their own studio; guests have none. */
const STUDIOS = '401 ok 404 ok';
const OURS = '401 404 404 ok';
const THE_SHOW = '401 404 ok ok';

interface Door {
  readonly lets: string;
  readonly body?: unknown;
  readonly query?: string;
}
const door = (lets: string, more: Omit<Door, 'lets'> = {}): Door => ({ lets, ...more });

/** Every route of the server, in an order in which each still finds what it needs. */
const DOORS: Record<RouteName, Door> = {
  'GET /api/health': door(ANYBODY),
  'POST /api/v1/session/password': door(ANYBODY),
  'POST /api/v1/session/entry': door(ANYBODY),
  'POST /api/v1/session/passkey/asked': door(ANYBODY),
  'POST /api/v1/session/passkey': door(ANYBODY),
  'POST /api/v1/joining/[word]/account': door(ANYBODY),
  'POST /api/v1/joining/[word]/visit': door(PERSONS),
  'GET /api/v1/account': door(PERSONS),
  'PATCH /api/v1/account': door(PERSONS),
  'GET /api/v1/account/sessions': door(PERSONS),
  'DELETE /api/v1/account/sessions/[session]': door(OURS),
  'DELETE /api/v1/account/sessions': door(PERSONS),
  'POST /api/v1/account/passkeys/asked': door(PERSONS),
  'POST /api/v1/account/passkeys': door(PERSONS),
  // Whose key it is matters, and nobody has one here.
  'DELETE /api/v1/account/passkeys/[passkey]': door('401 404 404 404'),
  'GET /api/v1/openapi': door(ANYBODY),
  'GET /api/v1/tokens': door(STUDIOS),
  'POST /api/v1/tokens': door(STUDIOS, { body: { name: 'A script', scopes: ['look'] } }),
  'DELETE /api/v1/tokens/[id]': door('401 404 404 404'),
  'GET /api/v1/hooks': door(STUDIOS),
  'POST /api/v1/hooks': door(STUDIOS, { body: { url: 'http://127.0.0.1:9/', events: ['film.ready'] } }),
  'POST /api/v1/hooks/[hook]/trial': door('401 404 404 404', { body: {} }),
  'DELETE /api/v1/hooks/[hook]': door('401 404 404 404'),
  'GET /api/v1/people': door(STUDIOS),
  'PATCH /api/v1/people/[account]': door(STUDIOS),
  'POST /api/v1/people/[account]/entry': door(OURS),
  'DELETE /api/v1/people/[account]': door(OURS),
  'GET /api/v1/invitations': door(STUDIOS),
  'POST /api/v1/invitations': door(STUDIOS),
  'DELETE /api/v1/invitations/[invitation]': door(OURS),
  'GET /api/v1/audit': door(STUDIOS),
  'GET /api/v1/studio': door(STUDIOS),
  'PATCH /api/v1/studio': door(STUDIOS),
  'GET /api/v1/mounts': door(STUDIOS),
  'POST /api/v1/mounts': door(STUDIOS),
  'POST /api/v1/mounts/bytes': door(STUDIOS),
  'GET /api/v1/mounts/[mount]/file': door(OURS),
  'DELETE /api/v1/mounts/[mount]': door(OURS),
  'DELETE /api/v1/mounts/[mount]/removal': door(OURS),
  // Those of the server are the first studio’s.
  'GET /api/v1/folders': door(OURS),
  'GET /api/v1/unused': door(STUDIOS),
  'DELETE /api/v1/unused': door(STUDIOS),
  'GET /api/v1/shows': door(PERSONS),
  'POST /api/v1/shows': door(STUDIOS),
  'POST /api/v1/uploads': door(THE_SHOW),
  'GET /api/v1/shows/[show]': door(THE_SHOW),
  'PATCH /api/v1/shows/[show]': door(OURS),
  'POST /api/v1/shows/[show]/copy': door(OURS),
  'POST /api/v1/shows/[show]/edits': door(THE_SHOW),
  'GET /api/v1/shows/[show]/events': door(THE_SHOW),
  'POST /api/v1/shows/[show]/hall': door(THE_SHOW, { body: {} }),
  'PATCH /api/v1/shows/[show]/hall': door(THE_SHOW),
  'GET /api/v1/shows/[show]/hall/events': door(THE_SHOW),
  'GET /api/v1/shows/[show]/stored': door(THE_SHOW),
  'GET /api/v1/shows/[show]/sheet': door(THE_SHOW),
  'DELETE /api/v1/shows/[show]/sheet/[entry]': door(THE_SHOW),
  'POST /api/v1/shows/[show]/loans': door(THE_SHOW),
  'POST /api/v1/shows/[show]/folder': door(OURS),
  'DELETE /api/v1/shows/[show]/folder': door(THE_SHOW),
  'GET /api/v1/shows/[show]/bundle': door(OURS),
  'POST /api/v1/shows/[show]/ratings': door(THE_SHOW, { body: { ratings: {} } }),
  'GET /api/v1/shows/[show]/marks': door(THE_SHOW),
  'GET /api/v1/shows/[show]/missing': door(THE_SHOW),
  'POST /api/v1/shows/[show]/missing': door(OURS),
  'GET /api/v1/shows/[show]/timeline': door(THE_SHOW),
  'POST /api/v1/shows/[show]/timeline': door(THE_SHOW, { body: { timeline: 1 } }),
  'POST /api/v1/shows/[show]/series': door(OURS),
  'GET /api/v1/series': door(STUDIOS),
  'GET /api/v1/series/[series]': door('401 404 404 404'),
  'PATCH /api/v1/series/[series]': door('401 404 404 404', { body: { title: 'Houses' } }),
  'DELETE /api/v1/series/[series]': door('401 404 404 404'),
  'GET /api/v1/series/[series]/rows': door('401 404 404 404'),
  'POST /api/v1/series/[series]/rows': door('401 404 404 404', { body: { row: 1 } }),
  'POST /api/v1/series/[series]/making': door('401 404 404 404', { body: {} }),
  'DELETE /api/v1/series/[series]/making': door('401 404 404 404'),
  'GET /api/v1/series/[series]/films': door('401 404 404 404'),
  'POST /api/v1/shows/[show]/discs': door(OURS),
  'GET /api/v1/discs': door(STUDIOS),
  'GET /api/v1/discs/[disc]': door('401 404 404 404'),
  'PATCH /api/v1/discs/[disc]': door('401 404 404 404', { body: { title: 'Regatta' } }),
  'DELETE /api/v1/discs/[disc]': door('401 404 404 404'),
  'GET /api/v1/discs/[disc]/far': door('401 404 404 404'),
  'POST /api/v1/discs/[disc]/making': door('401 404 404 404'),
  'DELETE /api/v1/discs/[disc]/making': door('401 404 404 404'),
  'GET /api/v1/discs/[disc]/image': door('401 404 404 404'),
  'GET /api/v1/discs/[disc]/label': door('401 404 404 404'),
  'GET /api/v1/discs/[disc]/pages/[page]': door('401 404 404 404'),
  'GET /api/v1/discs/[disc]/pages/[page]/moving': door('401 404 404 404'),
  'POST /api/v1/discs/[disc]/burns': door('401 404 404 404', { body: { copies: 1 } }),
  'DELETE /api/v1/discs/[disc]/burns/[burn]': door('401 404 404 404'),
  'GET /api/v1/bundles': door(STUDIOS),
  // Nothing is on its way in here.
  'DELETE /api/v1/bundles/[bundle]': door('401 404 404 404'),
  'GET /api/v1/shows/[show]/versions': door(THE_SHOW),
  'POST /api/v1/shows/[show]/versions': door(THE_SHOW),
  'GET /api/v1/shows/[show]/versions/[version]': door(THE_SHOW),
  'PATCH /api/v1/shows/[show]/versions/[version]': door(THE_SHOW, { body: { name: 'Kept' } }),
  'GET /api/v1/shows/[show]/still': door(THE_SHOW, { query: '?at=1000&height=90' }),
  'GET /api/v1/shows/[show]/pictures/[asset]': door(THE_SHOW, { query: '?width=320' }),
  'GET /api/v1/shows/[show]/clips/[asset]/[second]': door(THE_SHOW),
  'POST /api/v1/shows/[show]/clips/[asset]/still': door(THE_SHOW),
  'POST /api/v1/shows/[show]/clips/[asset]/evened': door(THE_SHOW),
  'GET /api/v1/shows/[show]/sounds/[asset]': door(THE_SHOW),
  'GET /api/v1/shows/[show]/sounds/[asset]/peaks': door(THE_SHOW),
  'POST /api/v1/shows/[show]/sounds/[asset]/cleaned': door(THE_SHOW),
  // Nothing here was played by the band.
  'GET /api/v1/shows/[show]/sounds/[asset]/score': door('401 404 404 404'),
  'POST /api/v1/shows/[show]/band': door(THE_SHOW),
  'POST /api/v1/shows/[show]/pieces/[piece]': door(THE_SHOW),
  'GET /api/v1/shows/[show]/takes': door(THE_SHOW),
  'POST /api/v1/shows/[show]/takes': door(THE_SHOW),
  'POST /api/v1/shows/[show]/takes/[take]/samples': door(THE_SHOW, { query: '?from=0' }),
  'POST /api/v1/shows/[show]/takes/[take]': door(THE_SHOW),
  'DELETE /api/v1/shows/[show]/takes/[take]': door(THE_SHOW),
  'GET /api/v1/shows/[show]/films': door(OURS),
  'POST /api/v1/shows/[show]/films': door(OURS),
  'POST /api/v1/shows/[show]/trials': door(OURS),
  'GET /api/v1/films/[film]/file': door(OURS),
  'GET /api/v1/films/[film]/picture': door(OURS),
  'POST /api/v1/films/[film]/next': door(OURS),
  'POST /api/v1/films/[film]/again': door(OURS),
  'POST /api/v1/films/[film]/cancel': door(OURS),
  'GET /api/v1/screenings/[token]/film': door(ANYBODY),
  'GET /api/v1/screenings/[token]/picture': door(ANYBODY),
  'GET /api/v1/screenings/[token]/logo': door(ANYBODY),
  'GET /api/v1/screenings/[token]/notes': door(ANYBODY),
  'GET /api/v1/screenings/[token]/captions/[language]': door(ANYBODY),
  'POST /api/v1/screenings/[token]/note': door(ANYBODY),
  'POST /api/v1/screenings/[token]/watched': door(ANYBODY),
  'POST /api/v1/screenings/[token]/entry': door(ANYBODY),
  'GET /api/v1/oembed': door(ANYBODY),
  'GET /api/v1/bills': door(STUDIOS),
  'POST /api/v1/bills': door(STUDIOS),
  'PATCH /api/v1/bills/[bill]': door(OURS, { body: { title: 'For the choir' } }),
  'GET /api/v1/bills/shown/[token]/logo': door(ANYBODY),
  'GET /api/v1/shows/[show]/screenings': door(OURS),
  'POST /api/v1/shows/[show]/screenings': door(OURS),
  'PATCH /api/v1/shows/[show]/screenings/[screening]': door(OURS, { body: { mayTake: true } }),
  'GET /api/v1/shows/[show]/screenings/[screening]/watched': door(OURS),
  'DELETE /api/v1/shows/[show]/screenings/[screening]/watched': door(OURS),
  'GET /api/v1/shows/[show]/notes': door(OURS),
  'GET /api/v1/shows/[show]/notes/table': door(OURS),
  'POST /api/v1/shows/[show]/notes/[note]/answers': door(OURS),
  'PATCH /api/v1/shows/[show]/notes/[note]': door(OURS),
  'DELETE /api/v1/shows/[show]/notes/[note]': door(OURS),
  'POST /api/v1/shows/[show]/screenings/[screening]/link': door(OURS),
  'DELETE /api/v1/bills/[bill]': door(OURS),
  'DELETE /api/v1/shows/[show]/screenings/[screening]': door(OURS),
  'GET /api/v1/shows/[show]/publications': door(OURS),
  'POST /api/v1/shows/[show]/publications': door(OURS),
  'POST /api/v1/shows/[show]/publications/[publication]/cancel': door(OURS),
  'POST /api/v1/shows/[show]/publications/[publication]/again': door(OURS),
  'DELETE /api/v1/shows/[show]/publications/[publication]': door(OURS),
  'GET /api/v1/channels': door(STUDIOS),
  'POST /api/v1/channels': door(STUDIOS, { body: { place: 'video', show: SHOW } }),
  'GET /api/v1/channels/arrival': door(STUDIOS),
  // Nobody is signed in anywhere here.
  'GET /api/v1/channels/[channel]/room': door('401 404 404 404'),
  'DELETE /api/v1/channels/[channel]': door('401 404 404 404'),
  'GET /api/v1/shows/[show]/proofs': door(OURS),
  'POST /api/v1/shows/[show]/proofs': door(OURS),
  'PATCH /api/v1/shows/[show]/proofs/[proof]': door(OURS, { body: { label: 'The choir' } }),
  'GET /api/v1/proofs/[token]': door(ANYBODY),
  'GET /api/v1/proofs/[token]/logo': door(ANYBODY),
  'GET /api/v1/proofs/[token]/pictures/[asset]': door(ANYBODY, { query: '?longest=320' }),
  'PATCH /api/v1/proofs/[token]/marks/[asset]': door(ANYBODY, { body: { mark: 'keep', note: '' } }),
  'POST /api/v1/proofs/[token]/choice': door(ANYBODY, { body: { name: 'Ilka' } }),
  'DELETE /api/v1/shows/[show]/proofs/[proof]': door(OURS),
  'DELETE /api/v1/films/[film]': door(OURS),
  'DELETE /api/v1/shows/[show]': door(OURS),
  'DELETE /api/v1/shows/[show]/removal': door(OURS),
  'DELETE /api/v1/session': door(ANYBODY),
};

const PAGES_SEEN: Record<keyof typeof PAGES, string> = {
  '/': '307 ok ok ok',
  '/sign-in': 'ok 307 307 307',
  '/enter': ANYBODY,
  '/join/[word]': ANYBODY,
  '/account': '307 ok ok ok',
  '/people': '307 ok 404 ok',
  '/studio': '307 ok 404 ok',
  '/programs': '307 ok 404 ok',
  '/series/[series]': '307 404 404 404',
  '/discs/[disc]': '307 404 404 404',
  '/shows/[show]': '307 404 307 307',
  '/shows/[show]/gather': '307 404 ok ok',
  '/shows/[show]/arrange': '307 404 ok ok',
  '/shows/[show]/sound': '307 404 ok ok',
  '/shows/[show]/send': '307 404 404 ok',
  '/showing/[show]': '307 404 ok ok',
  '/showing/[show]/projector': '307 404 ok ok',
  '/p/[token]': ANYBODY,
  '/b/[token]': ANYBODY,
  '/s/[token]': ANYBODY,
  '/s/[token]/embed': ANYBODY,
};

let app: App;
const held: Record<Who, string> = { stranger: '', foreigner: '', guest: '', owner: '' };
/** What stands for each part of a path; one after the other where each is used up. */
const parts: Record<string, string | string[]> = {
  show: SHOW,
  second: '0',
  language: 'en',
  passkey: 'none',
  channel: 'none',
  bundle: 'none',
  series: 'none',
  disc: 'none',
  page: '1',
  burn: 'none',
  id: 'none',
  hook: 'none',
  publication: 'none',
};

const as = (who: Who, path: string, init: RequestInit = {}) =>
  fetch(app.address + path, {
    redirect: 'manual',
    ...init,
    headers: { ...(init.headers as Record<string, string> | undefined), cookie: held[who] },
  });
const owner = async <Answer>(path: string, init: RequestInit = {}): Promise<Answer> => {
  const answer = await as('owner', path, init);
  const told = (await answer.json()) as Answer;
  if (!answer.ok) throw new Error(`${path} answered ${answer.status}: ${JSON.stringify(told)}`);
  return told;
};
const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** The word of a link that a command makes. Nothing waits for it: a line that rests meanwhile is closed by the server, and this side must hear of it. */
async function wordBy(...command: readonly string[]): Promise<string> {
  const { stdout } = await promisify(execFile)(process.execPath, ['scripts/tanager.mjs', ...command, '--json'], {
    env: { ...process.env, NODE_OPTIONS: '', TANAGER_DATA: app.dataFolder },
  });
  return (JSON.parse(stdout) as { link: string }).link.split('#')[1]!;
}

async function invited(role: string, show: string | null): Promise<string> {
  return (await owner<{ word: string }>('/api/v1/invitations', sending('POST', { role, show, label: role }))).word;
}

async function joined(word: string, email: string): Promise<string> {
  const said = { name: email.split('@')[0], email, password: 'some words in a row' };
  const answer = await fetch(`${app.address}/api/v1/joining/${word}/account`, sending('POST', said));
  expect(answer.status).toBe(200);
  return answer.headers.getSetCookie()[0]!.split(';')[0]!;
}

const upload = (who: Who, name: string, bytes: string) =>
  as(who, '/api/v1/uploads', {
    method: 'POST',
    headers: {
      'tus-resumable': '1.0.0',
      'content-type': 'application/offset+octet-stream',
      'upload-length': String(bytes.length),
      'upload-metadata': `filename ${btoa(name)},show ${btoa(SHOW)}`,
    },
    body: bytes,
  });

beforeAll(async () => {
  process.env.TANAGER_FOLDER = 'demo/files';
  app = await openApp({ seed: true, hall: true });
  held.owner = await signedIn(app.address, await wordBy('enter'));
  held.foreigner = await signedIn(app.address, await wordBy('studio', 'Another', 'studio'));
  held.guest = await joined(await invited('guest', SHOW), 'guest@example.org');
  await joined(await invited('member', null), 'spare@example.org');
  const { people } = await owner<{ people: { id: string; name: string }[] }>('/api/v1/people');
  parts.account = people.find(({ name }) => name === 'spare')!.id;
  const { id: second } = await owner<{ id: string }>('/api/v1/shows', sending('POST', { title: 'Another one' }));
  // A visit uses an invitation up; strangers are not let that far.
  const visits: string[] = [];
  for (let visit = 0; visit < 4; visit += 1) visits.push(await invited('guest', second));
  parts.word = visits;
  await invited('member', null);
  const { invitations } = await owner<{ invitations: { id: string; role: string }[] }>('/api/v1/invitations');
  parts.invitation = invitations.find(({ role }) => role === 'member')!.id;
  const { sessions } = await owner<{ sessions: { id: string; here: boolean }[] }>('/api/v1/account/sessions');
  parts.session = sessions.find(({ here }) => !here)!.id;
  for (const name of ['one', 'two'])
    expect((await upload('owner', `${name}.jpg`, `No picture ${name}`)).status).toBe(201);
  type Entry = { id: string; assetId: string; state: string; facts: { kind: string } | null };
  const sheet = async () => (await owner<{ entries: Entry[] }>(`/api/v1/shows/${SHOW}/sheet`)).entries;
  while ((await sheet()).some(({ state }) => state === 'arrived')) await rest(200);
  parts.entry = (await sheet()).filter(({ state }) => state === 'refused').map(({ id }) => id);
  const ofKind = async (kind: string) => (await sheet()).find(({ facts }) => facts?.kind === kind)!.assetId;
  parts.picture = await ofKind('picture');
  parts.clip = await ofKind('clip');
  parts.sound = await ofKind('sound');
  const mount = transitionDocument(
    { name: 'Ours', author: '', shelf: 'Our own' },
    { kind: 'dissolve', lengthMs: 1000 },
    { widthPx: 1920, heightPx: 1080, rate: { frames: 30, seconds: 1 } },
    new Map(),
  );
  parts.mount = (await owner<{ id: string }>('/api/v1/mounts', sending('POST', { from: SHOW, mount }))).id;
  const wanted = { label: 'The choir', pictures: [parts.picture], longestPx: 640, watermark: 'ours', endsAt: null };
  parts.proof = (await owner<{ id: string }>(`/api/v1/shows/${SHOW}/proofs`, sending('POST', wanted))).id;
  const { proofs } = await owner<{ proofs: { token: string }[] }>(`/api/v1/shows/${SHOW}/proofs`);
  parts.proofToken = proofs[0]!.token;
  parts.version = (await owner<{ id: string }>(`/api/v1/shows/${SHOW}/versions`, sending('POST', { name: 'Kept' }))).id;
  const take = async () => {
    const wanted = { slideId: null, name: 'A take', rate: 48_000 };
    return (await owner<{ id: string }>(`/api/v1/shows/${SHOW}/takes`, sending('POST', wanted))).id;
  };
  const [first, other] = [await take(), await take()];
  parts.take = first;
  parts.takes = [other, first];
  parts.film = await filmMade(app, SHOW);
  parts.token = await screened(app, SHOW, parts.film);
  const { screenings } = await owner<{ screenings: { id: string }[] }>(`/api/v1/shows/${SHOW}/screenings`);
  parts.screening = screenings[0]!.id;
  const bill = { title: 'The choir’s films', words: '', screenings: [parts.screening] };
  parts.bill = (await owner<{ id: string }>('/api/v1/bills', sending('POST', bill))).id;
  const { bills } = await owner<{ bills: { token: string }[] }>('/api/v1/bills');
  parts.billToken = bills[0]!.token;
  const note = { atMs: 1000, kind: 'note', name: 'Ilka', words: 'How lovely' };
  await fetch(`${app.address}/api/v1/screenings/${parts.token}/note`, sending('POST', note));
  parts.piece = 'oranges';
  parts.note = (await owner<{ notes: { id: string }[] }>(`/api/v1/shows/${SHOW}/notes`)).notes[0]!.id;
});
afterAll(() => app.close());

/** The next that stands for a part of a path; used up only by who is let in. */
function standsFor(name: string, route: string, lets: string): string {
  const key =
    name === 'asset'
      ? route.includes('/clips/')
        ? 'clip'
        : route.includes('/sounds/')
          ? 'sound'
          : 'picture'
      : name === 'token' && /proofs|^.p./.test(route)
        ? 'proofToken'
        : name === 'token' && /bills|^.b./.test(route)
          ? 'billToken'
          : name === 'take' && route.startsWith('DELETE')
            ? 'takes'
            : name;
  const value = parts[key]!;
  if (typeof value === 'string') return value;
  return (lets === 'ok' && value.length > 1 && !route.includes('joining/[word]/account') ? value.shift() : value[0])!;
}

const isIn = (status: number) => (status < 400 || ![401, 403, 404].includes(status)) && status < 500;

async function knock(who: Who, route: RouteName, { body, query = '' }: Door, lets: string): Promise<string> {
  if (route === 'POST /api/v1/uploads') {
    const { status } = await upload(who, 'three.jpg', 'No picture either');
    return isIn(status) ? 'ok' : String(status);
  }
  const [method, path] = route.split(' ') as [string, string];
  const url = path.replaceAll(/\[(\w+)\]/g, (_, name: string) => standsFor(name, route, lets)) + query;
  const asked =
    route === 'GET /api/v1/oembed' ? `?url=${encodeURIComponent(`${app.address}/s/${parts.token as string}`)}` : '';
  const stop = new AbortController();
  const wants = method !== 'GET' && method !== 'DELETE';
  const answer = await as(who, url + asked, {
    ...(wants ? sending(method, body ?? { unheardOf: true }) : { method }),
    signal: stop.signal,
  });
  // Streams of events never end by themselves.
  stop.abort();
  return isIn(answer.status) ? 'ok' : String(answer.status);
}

describe('every route', () => {
  it('stands in this table', () => {
    expect(Object.keys(DOORS).sort()).toEqual(Object.keys(ROUTES).sort());
    expect(Object.keys(PAGES_SEEN).sort()).toEqual(Object.keys(PAGES).sort());
  });
  it.each(Object.entries(PAGES_SEEN))('%s is shown to: %s', async (page, seen) => {
    const url = page.replaceAll(/\[(\w+)\]/g, (_, name: string) => standsFor(name, page, '401'));
    const statuses: string[] = [];
    for (const who of WHO) {
      const answer = await as(who, url);
      const text = await answer.text();
      // Pages that are sent in parts say it in one of them.
      const said = text.includes('NEXT_HTTP_ERROR_FALLBACK;404')
        ? 404
        : text.includes('NEXT_REDIRECT')
          ? 307
          : answer.status;
      statuses.push(said === 200 ? 'ok' : String(said));
    }
    expect(statuses.join(' ')).toBe(seen);
  });
  it.each(Object.entries(DOORS) as [RouteName, Door][])('%s', async (route, the) => {
    const found: string[] = [];
    for (const [at, who] of WHO.entries()) found.push(await knock(who, route, the, the.lets.split(' ')[at]!));
    expect(found.join(' ')).toBe(the.lets);
  });
});

describe('what is on its way', () => {
  it('goes on only for who might have begun it', async () => {
    held.owner = await signedIn(app.address, await wordBy('enter'));
    const begun = await as('owner', '/api/v1/uploads', {
      method: 'POST',
      headers: {
        'tus-resumable': '1.0.0',
        'upload-length': '10',
        'upload-metadata': `filename ${btoa('four.jpg')},show ${btoa(SHOW)}`,
      },
    });
    const place = begun.headers.get('location')!;
    const asked = (who: Who) =>
      as(who, new URL(place, app.address).pathname, { method: 'HEAD', headers: { 'tus-resumable': '1.0.0' } });
    expect([(await asked('stranger')).status, (await asked('owner')).status]).toEqual([401, 200]);
  });
  it('is told to nobody who was signed out: a stream of events ends', async () => {
    const word = await invited('member', null);
    const cookie = await joined(word, 'leaving@example.org');
    const events = await fetch(`${app.address}/api/v1/shows/${SHOW}/events`, { headers: { cookie } });
    expect(events.status).toBe(200);
    await fetch(`${app.address}/api/v1/session`, { method: 'DELETE', headers: { cookie } });
    const ended = events.text().then(() => 'ended');
    expect(await Promise.race([ended, rest(20_000)])).toBe('ended');
  });
  it('lets nobody in by a session that was ended from elsewhere', async () => {
    expect((await ask(`${app.address}/api/v1/account`)).status).toBe(401);
  });
});
