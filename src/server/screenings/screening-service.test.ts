import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeEach, describe, expect, it } from '@jest/globals';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import type { AssetFacts } from '../../core/show/asset-facts';
import { assetId, cueId, showId, slideId } from '../../core/show/ids';
import { voiceHere } from '../../core/show/placed-sound';
import { emptyShow, type Show } from '../../core/show/show';
import { filmDocuments, films, shows } from '../database/schema';
import { createEvents, type ShowEvent } from '../events';
import { createScreeningService, type ScreeningService } from './screening-service';

const VOICE = assetId('a'.repeat(64));
const FACTS = new Map<typeof VOICE, AssetFacts>([
  [VOICE, { kind: 'sound', lengthMs: 3000, title: null, artist: null }],
]);
const OURS = showId('s');
const slide = (id: string): Show['slides'][number] => ({
  id: slideId(id),
  lengthMs: 5000,
  transition: { kind: 'cut' },
  backing: { kind: 'automatic' },
  layers: [],
  sounds: [],
});
const SHOW: Show = {
  ...emptyShow(OURS, 'Regatta'),
  slides: [
    {
      ...slide('a'),
      sounds: [voiceHere(cueId('v'), VOICE, 700)],
      script: 'At dusk we set out.',
      captions: { de: [{ fromMs: 700, toMs: 3700, text: 'Bei Dämmerung fuhren wir aus.' }] },
      chapter: 'Dusk',
    },
    slide('b'),
    { ...slide('c'), chapter: 'Night' },
  ],
};

const folders: string[] = [];
let database: OpenDatabase;
let screenings: ScreeningService;
let now = 0;
let told: ShowEvent[];
beforeEach(async () => {
  folders.push(await mkdtemp(path.join(tmpdir(), 'tanager-screenings-')));
  database = await openDatabase(`file:${path.join(folders.at(-1)!, 'studio.db')}`);
  const events = createEvents();
  told = [];
  events.listen(OURS, (event) => void told.push(event));
  now = 1000;
  screenings = createScreeningService({ database, sheet: { factsOf: async () => FACTS }, events, now: () => now });
  const row = { title: 'Working title', revision: 0, slideCount: 0, lengthMs: 0, createdAt: 0, changedAt: 0 };
  await database.db.insert(shows).values([
    { ...row, id: 's' },
    { ...row, id: 'other' },
  ]);
  const film = { title: 'Regatta', rateFrames: 30, frameCount: 450, orderedAt: 0, state: 'ready' as const };
  await database.db.insert(films).values([
    { ...film, id: 'fine', showId: 's', heightPx: 1080, byteCount: 9_000_000 },
    { ...film, id: 'light', showId: 's', heightPx: 720, byteCount: 3_000_000 },
    { ...film, id: 'making', showId: 's', heightPx: 720, state: 'making' },
    { ...film, id: 'short', showId: 's', heightPx: 720, frameCount: 300 },
    { ...film, id: 'theirs', showId: 'other', heightPx: 720 },
  ]);
  for (const filmId of ['fine', 'light']) await database.db.insert(filmDocuments).values({ filmId, document: SHOW });
});
afterAll(async () => {
  for (const folder of folders) await rm(folder, { recursive: true, force: true });
});

const opened = async (filmIds: readonly string[] = ['light', 'fine']) => {
  const id = (await screenings.open('studio', OURS, filmIds))!;
  return (await screenings.row(OURS, id))!;
};
const PASSWORD = 'lanterns at dusk';

describe('a screening', () => {
  it('is found by its link, the finest film first, with its chapters, and nothing of the show behind it', async () => {
    const { token } = await opened();
    expect(token).toMatch(/^[\w-]{24}$/);
    const found = (await screenings.find(token))!;
    expect(found).toMatchObject({
      title: 'Regatta',
      settings: { mayTake: false, guestBook: true, counts: true, call: null },
    });
    expect(found.films.map(({ id }) => id)).toEqual(['fine', 'light']);
    expect(await screenings.programme(found)).toEqual({
      languages: ['en', 'de'],
      chapters: [
        { title: 'Dusk', startMs: 0, endMs: 10_000 },
        { title: 'Night', startMs: 10_000, endMs: 15_000 },
      ],
    });
    expect(await screenings.find('guess')).toBeNull();
  });
  it('is opened only of finished films of the show itself, of one length', async () => {
    expect([
      await screenings.open('studio', OURS, ['making']),
      await screenings.open('studio', OURS, ['theirs']),
      await screenings.open('studio', OURS, ['fine', 'nowhere']),
      await screenings.open('studio', OURS, ['fine', 'short']),
    ]).toEqual([null, null, null, null]);
    const { id } = await opened();
    expect(await screenings.change(OURS, id, { films: ['theirs'] })).toBe('films');
    expect((await screenings.row(OURS, id))!.films.toSorted()).toEqual(['fine', 'light']);
  });
  it('has the captions of the show as it was when the film was ordered, by language', async () => {
    const { token } = await opened();
    expect(await screenings.captions(token, 'en')).toContain('00:00:00.700 --> 00:00:03.700\nAt dusk we set out.');
    expect(await screenings.captions(token, 'de')).toContain('Bei Dämmerung');
    expect([
      await screenings.captions(token, 'fr'),
      await screenings.captions(token, 'constructor'),
      await screenings.captions('guess', 'en'),
    ]).toEqual([null, null, null]);
  });
  it('opens to its password alone, until the pass runs out or the password is changed', async () => {
    const { id, token } = await opened();
    expect(await screenings.door(token, null)).toBe('open');
    await screenings.change(OURS, id, { password: PASSWORD });
    expect(await screenings.door(token, null)).toBe('locked');
    expect([await screenings.enter(token, 'lanterns'), await screenings.enter('guess', PASSWORD)]).toEqual([
      null,
      null,
    ]);
    const pass = await screenings.enter(token, PASSWORD);
    expect([await screenings.door(token, pass), await screenings.door(token, `${pass}x`)]).toEqual(['open', 'locked']);
    const other = await opened();
    await screenings.change(OURS, other.id, { password: PASSWORD });
    expect(await screenings.door(other.token, pass)).toBe('locked');
    now += 13 * 3_600_000;
    expect(await screenings.door(token, pass)).toBe('locked');
    const again = await screenings.enter(token, PASSWORD);
    await screenings.change(OURS, id, { password: 'another one' });
    expect(await screenings.door(token, again)).toBe('locked');
    await screenings.change(OURS, id, { password: null });
    expect(await screenings.door(token, null)).toBe('open');
  });
  it('is not there once it is shut, has ended, has another link, or was removed', async () => {
    const { id, token } = await opened();
    await screenings.change(OURS, id, { shut: true });
    expect(await screenings.door(token, null)).toBe('none');
    await screenings.change(OURS, id, { shut: false, endsAt: 2000 });
    expect(await screenings.door(token, null)).toBe('open');
    now = 2000;
    expect(await screenings.door(token, null)).toBe('none');
    await screenings.change(OURS, id, { endsAt: null });
    await screenings.renew(OURS, id);
    const renewed = (await screenings.row(OURS, id))!.token;
    expect([await screenings.door(token, null), await screenings.door(renewed, null)]).toEqual(['none', 'open']);
    expect(await screenings.remove(OURS, id)).toBe(true);
    expect([await screenings.door(renewed, null), await screenings.list(OURS)]).toEqual(['none', []]);
  });
  it('is not changed by way of another show', async () => {
    const { id, token } = await opened();
    const other = showId('other');
    expect([
      await screenings.change(other, id, { shut: true }),
      await screenings.renew(other, id),
      await screenings.remove(other, id),
      await screenings.row(other, id),
    ]).toEqual([false, false, false, null]);
    expect(await screenings.door(token, null)).toBe('open');
  });
});

describe('the guest book', () => {
  const leave = async (token: string, atMs: number, words = 'How lovely', more = {}) => {
    const found = (await screenings.find(token))!;
    const note = { atMs, kind: 'note', name: ' Ilka ', words, ...more } as const;
    return screenings.book.leave(found.id, found.show, note, await screenings.slideAt(found, atMs));
  };
  it('keeps a note at the slide the film showed then, with those before it, and tells the studio', async () => {
    const { token } = await opened();
    const { note, held } = await leave(token, 9999, 'Please without this picture', { kind: 'wish' });
    await leave(token, 10_000);
    expect([note.name, held]).toEqual(['Ilka', false]);
    expect(await screenings.book.all(OURS)).toMatchObject([
      { atMs: 9999, kind: 'wish', slideId: 'b', before: ['a'], state: 'open', by: 'guest' },
      { atMs: 10_000, kind: 'note', slideId: 'c', before: ['b', 'a'] },
    ]);
    expect(told.filter(({ kind }) => kind === 'notes')).toHaveLength(2);
  });
  it('is answered, done, hidden and let in by the studio; viewers see what is open', async () => {
    const { id, token } = await opened();
    const { note } = await leave(token, 0);
    await screenings.book.answer(OURS, note.id, 'Harrow Lane', 'Thank you');
    const { note: mine } = await leave(token, 0, 'And again', { replyTo: note.id });
    expect((await screenings.book.seen(id)).map(({ by, words }) => [by, words])).toEqual([
      ['guest', 'How lovely'],
      ['studio', 'Thank you'],
      ['guest', 'And again'],
    ]);
    await expect(leave(token, 0, 'deeper', { replyTo: mine.id })).rejects.toThrow(/not there any more/);
    await screenings.book.setState(OURS, note.id, 'hidden');
    expect(await screenings.book.seen(id)).toEqual([]);
    await screenings.book.setState(OURS, note.id, 'done');
    expect(await screenings.book.seen(id)).toHaveLength(3);
    expect(await screenings.book.setState(showId('other'), note.id, 'hidden')).toBe(false);
    expect(await screenings.book.remove(OURS, note.id)).toBe(true);
    expect(await screenings.book.all(OURS)).toEqual([]);
  });
  it('holds back what has a link until it is let in', async () => {
    const { id, token } = await opened();
    const { held, note } = await leave(token, 0, 'Cheap lenses at www.lenses.example');
    expect([held, await screenings.book.seen(id)]).toEqual([true, []]);
    await screenings.book.setState(OURS, note.id, 'open');
    expect(await screenings.book.seen(id)).toHaveLength(1);
  });
});

describe('what is counted', () => {
  it('is what twenty viewings really saw, told in pieces, out of order and twice', async () => {
    const { id } = await opened();
    for (let viewer = 0; viewer < 20; viewer += 1) {
      const until = 750 * (viewer + 1);
      const pieces = [
        [until / 2, until],
        [0, until / 2],
        [0, until / 3],
      ] as const;
      for (const piece of pieces)
        await screenings.viewings.tell(id, { id: `viewing-${viewer}`, stretches: [piece] }, 15_000);
    }
    const { viewings, curve, seen, toTheEnd } = await screenings.viewings.watched(id, 15_000, 100);
    // The first saw less than a second: a finger that slipped.
    expect(viewings).toBe(19);
    expect(curve[0]).toBeCloseTo(1, 5);
    expect(curve[99]).toBeCloseTo(1 / 19, 5);
    expect(curve[49]).toBeCloseTo(11 / 19, 5);
    expect(seen).toBeCloseTo((209 * 750) / 19 / 15_000, 5);
    expect(toTheEnd).toBeCloseTo(1 / 19, 5);
    expect((await screenings.row(OURS, id))!.viewings).toBe(19);
  });
  it('does not mix viewings of two screenings, and is forgotten when asked', async () => {
    const [one, other] = [await opened(), await opened(['fine'])];
    const told = { id: 'same-viewing', stretches: [[0, 5000]] as const };
    expect(await screenings.viewings.tell(one.id, told, 15_000)).toBe(true);
    expect(await screenings.viewings.tell(other.id, told, 15_000)).toBe(false);
    await screenings.viewings.forget(one.id);
    expect((await screenings.viewings.watched(one.id, 15_000, 10)).viewings).toBe(0);
  });
});
