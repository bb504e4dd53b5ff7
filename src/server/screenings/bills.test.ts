import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import { films, shows } from '../database/schema';
import { showId } from '../../core/show/ids';
import { createEvents } from '../events';
import { createBills, type Bills } from './bills';
import { createScreeningService, type ScreeningService } from './screening-service';

let folder: string;
let database: OpenDatabase;
let screenings: ScreeningService;
let bills: Bills;
let now = 1000;
beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-bills-'));
  database = await openDatabase(`file:${path.join(folder, 'studio.db')}`);
  now = 1000;
  screenings = createScreeningService({
    database,
    sheet: { factsOf: async () => new Map() },
    events: createEvents(),
    now: () => now,
  });
  bills = createBills(database, screenings, () => now);
  const row = { revision: 0, slideCount: 0, lengthMs: 0, createdAt: 0, changedAt: 0 };
  await database.db.insert(shows).values([
    { ...row, id: 'one', title: 'One' },
    { ...row, id: 'two', title: 'Two' },
    { ...row, id: 'theirs', title: 'Theirs', studioId: 'another' },
  ]);
  const film = { rateFrames: 30, frameCount: 450, orderedAt: 0, heightPx: 720, state: 'ready' as const };
  await database.db
    .insert(films)
    .values(['one', 'two', 'theirs'].map((id) => ({ ...film, id: `film-${id}`, showId: id, title: `Film ${id}` })));
});
afterEach(async () => {
  database.close();
  await rm(folder, { recursive: true, force: true });
});

const screened = async (show: string, studio = 'studio') =>
  (await screenings.open(studio, showId(show), [`film-${show}`]))!;
const opened = async (ids: readonly string[]) => {
  const id = (await bills.open('studio', { title: ' For the choir ', words: 'Here they are.', screenings: ids }))!;
  return (await bills.list('studio')).find((one) => one.id === id)!;
};

describe('a page of several films', () => {
  it('shows films of several shows in the order that was chosen, each once, each by its own link', async () => {
    const [one, two] = [await screened('one'), await screened('two')];
    const bill = await opened([two, one, two]);
    expect(bill.token).toMatch(/^[\w-]{24}$/);
    const found = (await bills.find(bill.token))!;
    expect([found.title, found.words]).toEqual(['For the choir', 'Here they are.']);
    expect(found.films.map(({ title, lengthMs }) => [title, lengthMs])).toEqual([
      ['Film two', 15_000],
      ['Film one', 15_000],
    ]);
    expect(found.films[0]!.token).toBe((await screenings.row(showId('two'), two))!.token);
  });
  it('says nothing of a film that asks for a password, and leaves out those that are shut, over or gone', async () => {
    const [one, two] = [await screened('one'), await screened('two')];
    const { token } = await opened([one, two]);
    await screenings.change(showId('one'), one, { password: 'lanterns at dusk' });
    await screenings.change(showId('two'), two, { endsAt: 2000 });
    expect((await bills.find(token))!.films).toMatchObject([
      { title: null, lengthMs: null },
      { title: 'Film two', endsAt: 2000 },
    ]);
    now = 3000;
    expect((await bills.find(token))!.films).toHaveLength(1);
    await screenings.change(showId('one'), one, { shut: true });
    expect((await bills.find(token))!.films).toEqual([]);
    await screenings.remove(showId('one'), one);
    expect((await bills.find(token))!.films).toEqual([]);
  });
  it('holds nothing of another studio, and is nothing of another studio’s to change', async () => {
    const [one, theirs] = [await screened('one'), await screened('theirs', 'another')];
    expect(await bills.open('studio', { title: 'x', words: '', screenings: [one, theirs] })).toBeNull();
    const bill = await opened([one]);
    expect(await bills.change('studio', bill.id, { screenings: [theirs] })).toBe('screenings');
    expect(await bills.change('another', bill.id, { title: 'Ours' })).toBe(false);
    expect(await bills.remove('another', bill.id)).toBe(false);
    expect(await bills.list('another')).toEqual([]);
    expect((await bills.choices('studio')).map(({ title, open }) => [title, open])).toEqual([['Film one', true]]);
  });
  it('leads nowhere while it is shut and once it is removed', async () => {
    const bill = await opened([await screened('one')]);
    await bills.change('studio', bill.id, { shut: true });
    expect(await bills.find(bill.token)).toBeNull();
    await bills.change('studio', bill.id, { shut: false, title: 'Again' });
    expect((await bills.find(bill.token))!.title).toBe('Again');
    await bills.remove('studio', bill.id);
    expect(await bills.find(bill.token)).toBeNull();
  });
});
