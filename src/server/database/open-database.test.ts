import { cp, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createClient } from '@libsql/client';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { drizzle } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { blankSlide } from '../../core/show/new-slide';
import { showId } from '../../core/show/ids';
import { emptyShow, type Show } from '../../core/show/show';
import { createEvents } from '../events';
import { createShowService } from '../shows/show-service';
import { openDatabase } from './open-database';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-database-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

let counted = 0;
const slide = () => blankSlide(2000, '#102030', () => `n${(counted += 1)}`);
const show: Show = { ...emptyShow(showId('old'), 'An older evening'), slides: [slide(), slide()] };

/** A database as it was after the first `count` migrations. */
async function openedBefore(url: string, count: number): Promise<ReturnType<typeof createClient>> {
  const migrations = path.join(folder, `first-${count}`);
  await cp('drizzle', migrations, { recursive: true });
  const journal = path.join(migrations, 'meta/_journal.json');
  const known = JSON.parse(await readFile(journal, 'utf8')) as { entries: unknown[] };
  await writeFile(journal, JSON.stringify({ ...known, entries: known.entries.slice(0, count) }));
  const client = createClient({ url });
  await migrate(drizzle(client), { migrationsFolder: migrations });
  return client;
}

describe('openDatabase', () => {
  it('brings along a show that was written whole into its row, with the edits since', async () => {
    const url = `file:${path.join(folder, 'older.db')}`;
    const client = await openedBefore(url, 2);
    await client.execute({
      sql: 'insert into shows (id, document, document_revision, revision, title, slide_count, length_ms, created_at, changed_at) values (?, ?, 3, 4, ?, 2, 4000, 1, 2)',
      args: [show.id, JSON.stringify(show), show.title],
    });
    await client.execute({
      sql: 'insert into edits (show_id, revision, edit_id, edit, at) values (?, 4, ?, ?, 2)',
      args: [show.id, 'e4', JSON.stringify({ kind: 'rename-show', title: 'Renamed since' })],
    });
    client.close();

    const database = await openDatabase(url);
    const shows = createShowService(database, createEvents());
    expect(await shows.load(show.id)).toEqual({ show: { ...show, title: 'Renamed since' }, revision: 4 });
    expect(
      await shows.applyEdits(show.id, [{ editId: 'e5', edit: { kind: 'rename-show', title: 'And again' } }], 4),
    ).toMatchObject({ revision: 5, refused: [] });
    expect((await shows.load(show.id))!.show.title).toBe('And again');
    database.close();
  });
  it('writes whole shows small, apart from the row that every edit writes', async () => {
    const url = `file:${path.join(folder, 'new.db')}`;
    const database = await openDatabase(url);
    const shows = createShowService(database, createEvents());
    const long: Show = { ...show, id: showId('long'), slides: Array.from({ length: 1000 }, slide) };
    await shows.put(long);
    const client = createClient({ url });
    const [kept] = (
      await client.execute(
        "select typeof(document) as type, length(document) as bytes from documents where show_id = 'long'",
      )
    ).rows;
    expect(kept!.type).toBe('blob');
    expect(Number(kept!.bytes)).toBeLessThan(JSON.stringify(long).length / 8);
    // A whole show is due only after many edits; one edit alone leaves what was written as it is.
    await shows.applyEdits(long.id, [{ editId: 'a', edit: { kind: 'rename-show', title: 'Longer' } }], 0);
    expect((await client.execute("select revision from documents where show_id = 'long'")).rows[0]!.revision).toBe(0);
    const many = Array.from({ length: 50 }, (_, index) => ({
      editId: `m${index}`,
      edit: { kind: 'rename-show', title: `Title ${index}` } as const,
    }));
    await shows.applyEdits(long.id, many, 1);
    expect((await client.execute("select revision from documents where show_id = 'long'")).rows[0]!.revision).toBe(51);
    expect((await createShowService(database, createEvents()).load(long.id))!.show).toEqual({
      ...long,
      title: 'Title 49',
    });
    client.close();
    database.close();
  });
});
