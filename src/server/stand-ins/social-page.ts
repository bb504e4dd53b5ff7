import { randomBytes } from 'node:crypto';
import path from 'node:path';
import { escaped } from '../../core/publishing/letter';
import { ownHosts } from '../http/own-address';
import { openKept } from './kept';
import { openSignInDesk } from './sign-in-desk';
import { answerJson, hour, NOT_KNOWN, sendOn, showPage, type StandIn, type Visit } from './visits';

/** What a page says of itself to those who link to it (Open Graph). */
interface Card {
  readonly title: string;
  readonly says: string;
  /** As a data address. */
  readonly picture: string | null;
}
interface Post {
  readonly id: string;
  readonly accountId: string;
  readonly studioId: string;
  readonly key: string;
  readonly words: string;
  readonly link: string;
  readonly card: Card | null;
  readonly at: number;
  readonly takenDown?: boolean;
}
interface Books {
  readonly posts: readonly Post[];
  /** So many posts are told to come again later. */
  readonly busyFor: Readonly<Record<string, number>>;
}

const LARGEST_PICTURE_BYTES = 2 * 1024 * 1024;
const LONGEST_PAGE = 500_000;
const LOOK_MS = 5000;

/** A page where posts are read: signing in, posts with the card of their link, taking down. Asking twice with one `Idempotency-Key` makes one post. */
export async function openSocialPage(folder: string, secret: string, origin: () => string): Promise<StandIn> {
  const books = await openKept<Books>(path.join(folder, 'posts.json'), { posts: [], busyFor: {} });
  const desk = await openSignInDesk({
    file: path.join(folder, 'people.json'),
    path: 'social-page',
    name: 'Social page',
    wants: 'write posts',
    secret,
    origin,
  });
  const told = ({ id, takenDown }: Post) => ({
    id,
    state: takenDown ? 'taken-down' : 'there',
    address: `${origin()}/social-page#${id}`,
  });
  const setBusy = (studioId: string, times: number) =>
    books.change((value) => ({ ...value, busyFor: { ...value.busyFor, [studioId]: times } }));

  return {
    path: 'social-page',
    async visit(visit) {
      if (await desk.visit(visit)) return true;
      const { pathname } = visit.url;
      if (pathname.startsWith('/social-page/api/')) return asked(visit);
      if (pathname !== '/social-page') return false;
      const { visitor } = visit;
      if (visitor === null)
        return showPage(visit, { title: 'Social page', place: 'social-page', status: 403, body: NOT_KNOWN });
      if (visit.method === 'POST') {
        const said = new URLSearchParams(await visit.body());
        if (said.has('busyFor')) await setBusy(visitor, Math.max(0, Math.floor(Number(said.get('busyFor')) || 0)));
        else if (said.has('sign-out')) await desk.signOut(visitor);
        else
          await books.change((value) => ({
            ...value,
            posts: value.posts.map((one) =>
              one.id === said.get('post') && one.studioId === visitor ? { ...one, takenDown: true } : one,
            ),
          }));
        return sendOn(visit, '/social-page');
      }
      return showPage(visit, { title: 'Social page', place: 'social-page', body: wall(visitor) });
    },
  };

  async function asked(visit: Visit): Promise<boolean> {
    const account = desk.bearer(visit);
    if (!account) return answerJson(visit, 401, { problem: 'Sign in first.' }, { 'www-authenticate': 'Bearer' });
    const { pathname } = visit.url;
    if (pathname === '/social-page/api/channel') return answerJson(visit, 200, { name: account.name });
    if (pathname === '/social-page/api/posts' && visit.method === 'POST') {
      const busy = books.value().busyFor[account.studioId] ?? 0;
      if (busy > 0) {
        await setBusy(account.studioId, busy - 1);
        return answerJson(visit, 429, { problem: 'Too many posts at once.' }, { 'retry-after': '1' });
      }
      const key = String(visit.request.headers['idempotency-key'] ?? '');
      const before = books.value().posts.find((one) => one.accountId === account.id && one.key === key);
      if (before) return answerJson(visit, 200, told(before));
      const { words, link } = JSON.parse(await visit.body()) as Record<string, unknown>;
      if (typeof words !== 'string' || typeof link !== 'string' || key === '')
        return answerJson(visit, 422, { problem: 'A post needs words, a link and a key.' });
      const post: Post = {
        id: randomBytes(9).toString('base64url'),
        accountId: account.id,
        studioId: account.studioId,
        key,
        words: words.slice(0, 1000),
        link,
        card: await cardOf(link).catch(() => null),
        at: Date.now(),
      };
      await books.change((value) => ({ ...value, posts: [post, ...value.posts] }));
      return answerJson(visit, 201, told(post));
    }
    const id = /^\/social-page\/api\/posts\/([\w-]+)$/.exec(pathname)?.[1];
    const post = books.value().posts.find((one) => one.id === id && one.accountId === account.id);
    return post ? answerJson(visit, 200, told(post)) : answerJson(visit, 404, { problem: 'There is no such post.' });
  }

  function wall(studioId: string): string {
    const names = new Map(desk.accountsOf(studioId).map(({ id, name }) => [id, name]));
    const own = books.value().posts.filter((post) => post.studioId === studioId && !post.takenDown);
    const posts = own.map(
      ({ id, accountId, words, link, card, at }) =>
        `<article class="sheet post" id="${id}" data-part="post"><div class="pad"><p><b>${escaped(names.get(accountId) ?? '')}</b> <small>${hour(at)}</small></p><p style="white-space:pre-line">${escaped(words)}</p>
<a class="card" href="${escaped(link)}" data-part="card">${card?.picture ? `<img alt="" src="${card.picture}">` : ''}<span><b>${escaped(card?.title ?? link)}</b><br><small>${escaped(card?.says ?? '')}</small></span></a>
<form method="post" style="margin:12px 0 0"><button name="post" value="${id}">Take it down</button></form></div></article>`,
    );
    const empty =
      '<p class="quiet post">No posts yet. In Tanager’s Send, “Send it on” writes them here once you have signed in.</p>';
    return `<h1 class="post">Social page</h1>${own.length === 0 ? empty : posts.join('')}
<form method="post" class="switches" aria-label="What this page does"><label>busy for the next posts <input type="number" name="busyFor" min="0" max="1000" value="${books.value().busyFor[studioId] ?? 0}"></label><button>Set</button></form>
<form method="post" style="margin-top:14px"><button name="sign-out" value="1">Sign Tanager out</button></form>`;
  }
}

/** What a screening’s page says of itself. Nothing but our own screenings is looked at: a post is no way to make this machine ask others. */
async function cardOf(link: string): Promise<Card | null> {
  const url = new URL(link);
  if (!ownHosts().includes(url.hostname) || !/^\/s\/[\w-]+$/.test(url.pathname)) return null;
  const page = (await (await fetch(url, { signal: AbortSignal.timeout(LOOK_MS), redirect: 'error' })).text()).slice(
    0,
    LONGEST_PAGE,
  );
  const said = (name: string) =>
    unescaped(new RegExp(`<meta property="${name}" content="([^"]*)"`).exec(page)?.[1] ?? '');
  const image = said('og:image');
  const title = said('og:title');
  if (title === '') return null;
  return {
    title,
    says: said('og:site_name') || url.host,
    picture: image === '' ? null : await pictureOf(new URL(image), url),
  };
}

async function pictureOf(image: URL, page: URL): Promise<string | null> {
  if (image.origin !== page.origin) return null;
  const answer = await fetch(image, { signal: AbortSignal.timeout(LOOK_MS), redirect: 'error' });
  const type = answer.headers.get('content-type') ?? '';
  const bytes = Buffer.from(await answer.arrayBuffer());
  if (!answer.ok || !/^image\/(jpeg|png|webp)$/.test(type) || bytes.length > LARGEST_PICTURE_BYTES) return null;
  return `data:${type};base64,${bytes.toString('base64')}`;
}

const ENTITIES: Readonly<Record<string, string>> = {
  '&amp;': '&',
  '&lt;': '<',
  '&gt;': '>',
  '&quot;': '"',
  '&#x27;': "'",
  '&#39;': "'",
};
const unescaped = (text: string): string => text.replace(/&(?:amp|lt|gt|quot|#x27|#39);/g, (mark) => ENTITIES[mark]!);
