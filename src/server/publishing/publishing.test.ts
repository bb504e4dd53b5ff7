import { spawnSync } from 'node:child_process';
import { mkdtemp, readFile, rm, stat } from 'node:fs/promises';
import { get } from 'node:http';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeAll, afterAll, beforeEach, describe, expect, it } from '@jest/globals';
import { eq } from 'drizzle-orm';
import type { NewPublication, PublicationRow } from '../../core/publishing/publication';
import { showId } from '../../core/show/ids';
import { EMPTY_PROFILE } from '../../core/studio/studio-profile';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import {
  accounts,
  channels as channelTable,
  films,
  publications,
  screeningFilms,
  screenings,
  shows,
} from '../database/schema';
import { createEvents } from '../events';
import { createJobRunner, type JobRunner } from '../jobs/job-runner';
import { createJobStore } from '../jobs/job-store';
import { openStandIns, type StandIns } from '../stand-ins/open-stand-ins';
import type { Person } from '../studio/sessions';
import { createChannels, type Channels } from './channels';
import { createPlaces } from './places';
import { createPublishingService, type PublishingService } from './publishing-service';

const SHOW = showId('s');
const STUDIO = 'studio';
const REST_MS = 300;
const ORIGIN = 'http://localhost:4700';
const SENDER = { studioId: STUDIO, email: 'owner@studio.example', origin: ORIGIN };
const OWNER = {
  kind: 'person',
  accountId: 'owner',
  studioId: STUDIO,
  name: 'Ilka',
  role: 'owner',
  sessionId: 'x',
} as Person;
const LETTER: NewPublication = {
  kind: 'mail',
  screening: 'open',
  to: ['ilka@example.org'],
  subject: 'Your film',
  words: 'Dear choir,\nhere it is.',
};

let made: string;
let filmFile: string;
let folder: string;
let database: OpenDatabase;
let standIns: StandIns;
let channels: Channels;
let publishing: PublishingService;
let runner: JobRunner;

beforeAll(async () => {
  made = await mkdtemp(path.join(tmpdir(), 'tanager-film-'));
  filmFile = path.join(made, 'film.mp4');
  const noise = ['-f', 'lavfi', '-i', 'nullsrc=s=640x360:r=10:d=4,geq=random(1)*255:128:128'];
  const drawn = spawnSync('ffmpeg', ['-v', 'error', ...noise, '-c:v', 'libx264', '-crf', '20', '-y', filmFile]);
  expect(drawn.status).toBe(0);
});
afterAll(() => rm(made, { recursive: true, force: true }));

beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-publishing-'));
  standIns = await openStandIns(path.join(folder, 'stand-ins'), 0);
  database = await openDatabase(`file:${path.join(folder, 'studio.db')}`);
  const row = { title: 'Regatta', revision: 0, slideCount: 0, lengthMs: 0, createdAt: 0, changedAt: 0 };
  await database.db.insert(shows).values([{ ...row, id: SHOW }]);
  await database.db
    .insert(accounts)
    .values({ id: 'owner', studioId: STUDIO, role: 'owner', name: 'Ilka', createdAt: 0 });
  const film = { title: 'Regatta', showId: SHOW, rateFrames: 10, frameCount: 40, orderedAt: 0, heightPx: 180 };
  await database.db.insert(films).values([
    { ...film, id: 'film', state: 'ready' },
    { ...film, id: 'making', state: 'making' },
  ]);
  const screening = { studioId: STUDIO, showId: SHOW, createdAt: 0 };
  await database.db.insert(screenings).values([
    { ...screening, id: 'open', token: 'token-of-the-open-one' },
    { ...screening, id: 'shut', token: 'token-of-the-shut-one', shut: true },
  ]);
  for (const screeningId of ['open', 'shut'])
    await database.db.insert(screeningFilms).values({ screeningId, filmId: 'film' });
  const jobs = createJobStore(database);
  const places = createPlaces(standIns, {});
  channels = createChannels(database, places);
  const service = createPublishingService({
    ...{ database, jobs, channels, places },
    events: createEvents(),
    films: {
      localFile: () => Promise.resolve(filmFile),
      pictureOf: async () => new Uint8Array([0xff, 0xd8, 0xff, 0xd9]),
    },
    studio: { open: async () => ({ profile: { ...EMPTY_PROFILE, name: 'Harrow Lane' } }) as never },
    wake: () => runner.look(),
    stop: (id) => runner.stop('publish', id),
    restMs: REST_MS,
  });
  publishing = service;
  runner = createJobRunner(jobs, [service.publishing]);
  runner.start();
});
afterEach(async () => {
  await runner.drain();
  await standIns.close();
  database.close();
  await rm(folder, { recursive: true, force: true });
});

const rows = () => publishing.list(SHOW);
const row = async (id: string) => (await rows()).find((one) => one.id === id)!;

async function until(id: string, right: (row: PublicationRow) => boolean): Promise<PublicationRow> {
  const giveUpAt = Date.now() + 25_000;
  for (;;) {
    const one = await row(id);
    if (right(one)) return one;
    if (Date.now() > giveUpAt) throw new Error(`never came to it: ${JSON.stringify(one)}`);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}
const ended = (id: string) => until(id, ({ state }) => state !== 'waiting' && state !== 'working');

async function ordered(wanted: NewPublication): Promise<string> {
  const ids = await publishing.order(SHOW, wanted, SENDER);
  if (typeof ids === 'string') throw new Error(ids);
  return ids[0]!;
}

/** As a browser that came through Tanager’s door. */
function visit(where: string, form?: Record<string, string | number>, studio = STUDIO): Promise<Response> {
  return fetch(`${standIns.address}${where}`, {
    headers: { cookie: `tanager-stand-ins=${standIns.keyOf(studio)}` },
    redirect: 'manual',
    ...(form && {
      method: 'POST',
      body: new URLSearchParams(Object.entries(form).map(([name, value]) => [name, String(value)])),
    }),
  });
}
const page = async (where: string, studio = STUDIO) => (await visit(where, undefined, studio)).text();
const count = (text: string, what: string) => text.split(what).length - 1;

/** To the host and back, as a person goes. */
async function wentThere(place: 'video' | 'post', answer = 'yes'): Promise<URLSearchParams> {
  const way = new URL((await channels.begin(OWNER, place, SHOW, ORIGIN))!);
  const desk = await (await fetch(way)).text();
  expect(desk).toContain('Tanager asks to be let in');
  const back = await visit(way.pathname, { ...Object.fromEntries(way.searchParams), answer, called: 'Harbour films' });
  return new URL(back.headers.get('location')!).searchParams;
}
async function signedIn(place: 'video' | 'post'): Promise<string> {
  expect(await channels.arrive(OWNER, await wentThere(place))).toEqual({ show: SHOW, letIn: true });
  return (await channels.list(STUDIO)).find((one) => one.place === place)!.id;
}
const film = (channel: string): NewPublication => ({
  ...{ kind: 'video', channel, film: 'film', title: 'The regatta', about: 'An evening', seenBy: 'link' },
});

describe('letters', () => {
  it('go to each address as one of its own, with words, poster and the screening’s link, as HTML and as plain text', async () => {
    const ids = await publishing.order(SHOW, { ...LETTER, to: ['ilka@example.org', 'tom@example.org'] }, SENDER);
    for (const id of ids) expect(await ended(id)).toMatchObject({ state: 'there', problem: null });
    const room = await page('/post-room');
    expect(count(room, '<b>ilka@example.org</b>')).toBe(1);
    expect(count(room, '<b>tom@example.org</b>')).toBe(1);
    expect(room).toContain(`${ORIGIN}/s/token-of-the-open-one`);
    expect(room).toContain('owner@studio.example');
    const open = /letter=([\w-]+)/.exec(room)![1]!;
    const source = await page(`/post-room/${open}/source`);
    expect(source).toMatch(/^From: Harrow Lane </m);
    for (const type of ['multipart/alternative', 'text/plain', 'text/html', 'image/jpeg'])
      expect(source).toContain(type);
    const inside = await visit(`/post-room/${open}/html`);
    expect(inside.headers.get('content-security-policy')).toMatch(/^sandbox.*default-src 'none'/);
    expect(await inside.text()).toContain('src="data:image/jpeg;base64,');
  });
  it('rest a little before they go, so that they can still be stopped', async () => {
    const id = await ordered(LETTER);
    expect((await row(id)).nextTryAt! - Date.now()).toBeGreaterThan(0);
    expect(await publishing.cancel(SHOW, id)).toBe(true);
    await new Promise((resolve) => setTimeout(resolve, 4 * REST_MS));
    expect(await row(id)).toMatchObject({ state: 'cancelled' });
    expect(await page('/post-room')).toContain('No post yet');
  });
  it('are read by the studio they came from alone; who is not known sees none', async () => {
    await ended(await ordered(LETTER));
    const open = /letter=([\w-]+)/.exec(await page('/post-room'))![1]!;
    expect(await page('/post-room', 'another')).not.toContain('ilka@example.org');
    expect((await visit(`/post-room/${open}/html`, undefined, 'another')).status).toBe(404);
    expect((await fetch(`${standIns.address}/post-room`)).status).toBe(403);
    const forged = `${STUDIO}.${standIns.keyOf('another').split('.')[1]}`;
    const sneaky = await fetch(`${standIns.address}/post-room`, { headers: { cookie: `tanager-stand-ins=${forged}` } });
    expect(sneaky.status).toBe(403);
  });
  it('that come back say why, in the post’s own words, and are sent again when asked', async () => {
    const id = await ordered({ ...LETTER, to: ['nobody@example.org'] });
    expect(await ended(id)).toMatchObject({ state: 'refused', problem: 'The post came back: There is no such box.' });
    await visit('/post-room', { busyFor: 0, notThere: '' });
    expect(await publishing.again(SHOW, id)).toBe(true);
    expect(await ended(id)).toMatchObject({ state: 'there' });
  });
  it('are tried again after growing pauses when the post is busy, which is told meanwhile, and arrive once', async () => {
    await visit('/post-room', { busyFor: 2, notThere: '' });
    const id = await ordered(LETTER);
    const waiting = await until(id, ({ tries }) => tries === 2);
    expect(waiting).toMatchObject({ state: 'waiting', problem: 'The post office said: Busy, come again later.' });
    expect(waiting.nextTryAt! - Date.now()).toBeGreaterThan(2500);
    expect(await ended(id)).toMatchObject({ state: 'there' });
    expect(count(await page('/post-room'), '<b>ilka@example.org</b>')).toBe(1);
  }, 30_000);
  it('are never handed in twice: whether one went that the server died over is left to a person', async () => {
    await visit('/post-room', { busyFor: 1, notThere: '' });
    const id = await ordered(LETTER);
    await until(id, ({ tries }) => tries === 1);
    await database.db.update(publications).set({ handedAt: 1 }).where(eq(publications.id, id));
    expect((await ended(id)).problem).toMatch(/It may have arrived; ask before you send it again/);
    expect(await page('/post-room')).toContain('No post yet');
    await publishing.again(SHOW, id);
    expect(await ended(id)).toMatchObject({ state: 'there' });
  }, 30_000);
  it('are not written to links that lead nowhere', async () => {
    expect(await publishing.order(SHOW, { ...LETTER, screening: 'shut' }, SENDER)).toMatch(/not open/);
    await visit('/post-room', { busyFor: 1, notThere: '' });
    const id = await ordered(LETTER);
    await until(id, ({ tries }) => tries === 1);
    await database.db.update(screenings).set({ shut: true }).where(eq(screenings.id, 'open'));
    expect(await ended(id)).toMatchObject({
      state: 'refused',
      problem: expect.stringMatching(/not open: a link to it leads nowhere/),
    });
  }, 30_000);
});

describe('signing in elsewhere', () => {
  it('takes a yes there; a no is a no', async () => {
    expect(await channels.arrive(OWNER, await wentThere('video', 'no'))).toEqual({ show: SHOW, letIn: false });
    expect(await channels.list(STUDIO)).toEqual([]);
    await signedIn('video');
    expect(await channels.list(STUDIO)).toMatchObject([{ place: 'video', name: 'Harbour films', signedIn: true }]);
    expect(await channels.list('another')).toEqual([]);
  });
  it('is good once, and only for whoever went', async () => {
    const said = await wentThere('video');
    expect(await channels.arrive({ ...OWNER, accountId: 'somebody-else' }, said)).toBeNull();
    expect(await channels.arrive(OWNER, said)).toMatchObject({ letIn: true });
    expect(await channels.arrive(OWNER, said)).toBeNull();
  });
  it('needs the half of the question that never left the server: a code that was overheard opens nothing', async () => {
    const said = await wentThere('video');
    const stolen = await fetch(`${standIns.address}/video-host/token`, {
      method: 'POST',
      body: new URLSearchParams({
        grant_type: 'authorization_code',
        client_id: 'tanager',
        code: said.get('code')!,
        redirect_uri: `${ORIGIN}/api/v1/channels/arrival`,
        code_verifier: 'a'.repeat(43),
      }),
    });
    expect([stolen.status, await stolen.json()]).toEqual([400, { error: 'invalid_grant' }]);
  });
  it('is renewed by itself when its time is over, and the word before is good no more', async () => {
    const id = await signedIn('video');
    const before = (await database.db.select().from(channelTable))[0]!;
    await database.db.update(channelTable).set({ expiresAt: 1 });
    const token = await (await channels.letIn(id, 'Harbour films')).token();
    expect(token).not.toBe(before.accessToken);
    await database.db.update(channelTable).set({ expiresAt: 1, refreshToken: before.refreshToken });
    await expect((await channels.letIn(id, 'Harbour films')).token()).rejects.toThrow(
      '“Harbour films” wants to be signed in to again.',
    );
    expect(await channels.list(STUDIO)).toMatchObject([{ signedIn: false }]);
  });
  it('is renewed once when two ask at the same time, so that neither signs the other out', async () => {
    const id = await signedIn('video');
    await database.db.update(channelTable).set({ expiresAt: 1 });
    const letIn = await channels.letIn(id, 'Harbour films');
    const [one, other] = await Promise.all([letIn.token(), letIn.token()]);
    expect(one).toBe(other);
    expect(await channels.list(STUDIO)).toMatchObject([{ signedIn: true }]);
  });
  it('ends there too', async () => {
    const id = await signedIn('video');
    const token = await (await channels.letIn(id, 'Harbour films')).token();
    const asked = () =>
      fetch(`${standIns.address}/video-host/api/channel`, { headers: { authorization: `Bearer ${token}` } });
    expect((await asked()).status).toBe(200);
    expect(await channels.remove('another', id)).toBe(false);
    expect(await channels.remove(STUDIO, id)).toBe(true);
    expect((await asked()).status).toBe(401);
  });
});

describe('a film at a host', () => {
  const watched = async ({ address }: PublicationRow) =>
    Buffer.from(await (await fetch(`${address}/file`)).arrayBuffer());

  it('that fails twice and breaks the line off half way arrives whole, once, and can be watched there', async () => {
    const channel = await signedIn('video');
    await visit('/video-host', { failNext: 2, breakNext: 1, preparingSeconds: 1, quotaMegabytes: 100 });
    const id = await ordered(film(channel));
    await until(id, ({ tries, problem }) => tries === 2 && /Out of breath/.test(problem ?? ''));
    await until(id, ({ problem }) => /The line to Harbour films broke/.test(problem ?? ''));
    const there = await ended(id);
    expect(there).toMatchObject({ state: 'there', problem: null, to: 'Harbour films' });
    expect((await watched(there)).equals(await readFile(filmFile))).toBe(true);
    expect(count(await page('/video-host'), 'data-part="video"')).toBe(1);
  }, 60_000);
  it('is one film there also when the server dies before it has written down that it arrived', async () => {
    const channel = await signedIn('video');
    await visit('/video-host', { preparingSeconds: 0, quotaMegabytes: 100 });
    const id = await ordered(film(channel));
    await ended(id);
    await database.db
      .update(publications)
      .set({ state: 'failed', outsideId: null, uploadUrl: null })
      .where(eq(publications.id, id));
    await publishing.again(SHOW, id);
    expect(await ended(id)).toMatchObject({ state: 'there' });
    expect(count(await page('/video-host'), 'data-part="video"')).toBe(1);
  });
  it('is refused with the host’s reason when there is no room, or when it can make nothing of it', async () => {
    const channel = await signedIn('video');
    await visit('/video-host', { quotaMegabytes: 0.1 });
    const { size } = await stat(filmFile);
    // It is told before, too.
    const rows = await channels.list(STUDIO);
    const room = () =>
      channels.room(
        rows.find(({ id }) => id === channel)!,
        new AbortController().signal,
      );
    expect((await room())!.mostBytes).toBe(100_000);
    expect((await room())!.mostBytes - (await room())!.usedBytes).toBeLessThan(size);
    const full = await ended(await ordered(film(channel)));
    expect(full).toMatchObject({
      state: 'refused',
      problem: `Harbour films did not take it: The channel has 0.1 MB left, and the film has ${(size / 1e6).toFixed(1)} MB.`,
    });
    await visit('/video-host', { quotaMegabytes: 100, spoilNext: 1, preparingSeconds: 0 });
    const spoilt = await ended(await ordered(film(channel)));
    expect(spoilt).toMatchObject({ state: 'refused', problem: 'Harbour films could not make anything of the file.' });
    await publishing.again(SHOW, spoilt.id);
    expect(await ended(spoilt.id)).toMatchObject({ state: 'there' });
  });
  it('that was taken down there is told as such, and put there anew when asked', async () => {
    const channel = await signedIn('video');
    await visit('/video-host', { preparingSeconds: 0, quotaMegabytes: 100 });
    const { id, address } = await ended(await ordered(film(channel)));
    await visit('/video-host', { video: address!.split('/').at(-1)! });
    await database.db.update(publications).set({ seenAt: 1 });
    await until(id, ({ state }) => state === 'taken-down');
    await publishing.again(SHOW, id);
    const anew = await ended(id);
    expect(anew).toMatchObject({ state: 'there' });
    expect(anew.address).not.toBe(address);
  });
  it('waits for no host that has signed us out: it says so, and goes on once signed in again', async () => {
    const channel = await signedIn('video');
    await visit('/video-host', { 'sign-out': 1 });
    const id = await ordered(film(channel));
    expect(await ended(id)).toMatchObject({
      state: 'failed',
      problem: '“Harbour films” wants to be signed in to again.',
    });
    expect(await publishing.order(SHOW, film(channel), SENDER)).toBe('Sign in there first.');
    await channels.arrive(OWNER, await wentThere('video'));
    await publishing.again(SHOW, id);
    expect(await ended(id)).toMatchObject({ state: 'there' });
  });
  it('goes on when the word it was let in by is over in the middle of the line', async () => {
    const channel = await signedIn('video');
    await visit('/video-host', { slowKilobytes: 1500, preparingSeconds: 0, quotaMegabytes: 100 });
    const id = await ordered(film(channel));
    await until(id, ({ progress }) => (progress?.share ?? 0) > 0);
    await database.db.update(channelTable).set({ expiresAt: 1 });
    // From here on the host takes the word before no more.
    await (await channels.letIn(channel, 'Harbour films')).token();
    const troubles: string[] = [];
    const there = await until(id, ({ state, problem }) => {
      if (problem) troubles.push(problem);
      return state === 'there';
    });
    expect([there.state, troubles]).toEqual(['there', []]);
  }, 30_000);
  it('goes on by another word when the host takes the one it has no more, without a word about it', async () => {
    const channel = await signedIn('video');
    await visit('/video-host', { preparingSeconds: 0, quotaMegabytes: 100 });
    await database.db.update(channelTable).set({ accessToken: 'worn out' });
    const id = await ordered(film(channel));
    expect(await ended(id)).toMatchObject({ state: 'there', problem: null, tries: 0 });
  }, 30_000);
  it('is put there after all when the channel was signed out of here and in to again', async () => {
    const channel = await signedIn('video');
    await visit('/video-host', { failNext: 1, preparingSeconds: 0, quotaMegabytes: 100 });
    const id = await ordered(film(channel));
    await until(id, ({ tries }) => tries === 1);
    await channels.remove(STUDIO, channel);
    expect(await ended(id)).toMatchObject({ state: 'failed', problem: expect.stringMatching(/signed in to again/) });
    await signedIn('video');
    await publishing.again(SHOW, id);
    expect(await ended(id)).toMatchObject({ state: 'there' });
  }, 30_000);
  it('can be stopped on its way, and nothing of it stays there', async () => {
    const channel = await signedIn('video');
    await visit('/video-host', { slowKilobytes: 1000, quotaMegabytes: 100 });
    const id = await ordered(film(channel));
    await until(id, ({ state, progress }) => state === 'working' && (progress?.share ?? 0) > 0);
    expect(await publishing.remove(SHOW, id)).toBe(false);
    expect(await publishing.cancel(SHOW, id)).toBe(true);
    expect(await row(id)).toMatchObject({ state: 'cancelled' });
    expect(await page('/video-host')).toContain('No films yet');
    expect(await publishing.cancel(SHOW, id)).toBe(false);
    expect(await publishing.remove(SHOW, id)).toBe(true);
    expect(await rows()).toEqual([]);
  }, 30_000);
  it('is none that is not finished, nor goes where the studio is not signed in', async () => {
    const channel = await signedIn('video');
    expect(await publishing.order(SHOW, { ...film(channel), film: 'making' } as NewPublication, SENDER)).toMatch(
      /finished/,
    );
    expect(await publishing.order(SHOW, film('nowhere'), SENDER)).toBe('Sign in there first.');
    expect(await publishing.order(SHOW, film(channel), { ...SENDER, studioId: 'another' })).toBe(
      'Sign in there first.',
    );
    expect(await rows()).toEqual([]);
  });
});

describe('a post', () => {
  it('stands on the page once, though the page was busy, and links to the screening', async () => {
    const channel = await signedIn('post');
    await visit('/social-page', { busyFor: 1 });
    const id = await ordered({ kind: 'post', channel, screening: 'open', words: 'Our <evening>' });
    expect(await ended(id)).toMatchObject({ state: 'there' });
    const wall = await page('/social-page');
    expect(count(wall, 'data-part="post"')).toBe(1);
    expect(wall).toContain('Our &lt;evening&gt;');
    expect(wall).toContain(`href="${ORIGIN}/s/token-of-the-open-one"`);
  }, 30_000);
});

describe('the stand-ins', () => {
  it('answer to names of this machine only, and to no other site’s forms', async () => {
    const { port } = new URL(standIns.address);
    const named = await new Promise<number | undefined>((resolve, reject) => {
      get({ port, host: '127.0.0.1', headers: { host: 'evil.example' } }, ({ statusCode }) => resolve(statusCode)).on(
        'error',
        reject,
      );
    });
    expect(named).toBe(403);
    const form = await fetch(`${standIns.address}/post-room`, {
      method: 'POST',
      headers: { origin: 'http://evil.example', cookie: `tanager-stand-ins=${standIns.keyOf(STUDIO)}` },
      body: 'busyFor=5',
    });
    expect(form.status).toBe(403);
  });
  it('remember what arrived, and stay at their address, when they are opened anew', async () => {
    await ended(await ordered(LETTER));
    const { address } = standIns;
    await standIns.close();
    standIns = await openStandIns(path.join(folder, 'stand-ins'), 0);
    expect(standIns.address).toBe(address);
    expect(await page('/post-room')).toContain('ilka@example.org');
  });
});
