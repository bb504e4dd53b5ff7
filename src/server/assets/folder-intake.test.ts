import { mkdir, mkdtemp, rm, symlink, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import type { ShowId } from '../../core/show/ids';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import { createEvents } from '../events';
import { createShowService } from '../shows/show-service';
import type { ContactSheet } from './contact-sheet';
import { createFolderIntake, type FolderIntake } from './folder-intake';

let top: string;
let database: OpenDatabase;
let show: ShowId;
let taken: string[];
let intake: FolderIntake;
/** Only what a folder is taken in with; `takeIn` itself is tested with the sheet. */
const sheet = {
  takeIn: async (_show: ShowId, file: string) => {
    await new Promise((resolve) => {
      setTimeout(resolve, 20);
    });
    taken.push(path.basename(file));
    return 'added' as const;
  },
} as unknown as ContactSheet;

beforeEach(async () => {
  top = await mkdtemp(path.join(tmpdir(), 'tanager-folder-'));
  await mkdir(path.join(top, 'open/evening/.hidden'), { recursive: true });
  await mkdir(path.join(top, 'open/evening/second'), { recursive: true });
  for (const name of [
    'secret.jpg',
    'open/evening/p10.jpg',
    'open/evening/p9.jpg',
    'open/evening/.hidden/no.jpg',
    'open/evening/second/p11.jpg',
    'open/other.jpg',
  ])
    await writeFile(path.join(top, name), name);
  await symlink(top, path.join(top, 'open/way-out'));
  await symlink(path.join(top, 'secret.jpg'), path.join(top, 'open/evening/link.jpg'));
  database = await openDatabase(`file:${path.join(top, 'test.db')}`);
  show = (await createShowService(database, createEvents()).create('Evening')).id;
  taken = [];
  intake = createFolderIntake(path.join(top, 'open'), database, sheet, createEvents());
});
afterEach(async () => {
  database.close();
  await rm(top, { recursive: true, force: true });
});

const done = async (of = intake) => {
  while (of.progress(show))
    await new Promise((resolve) => {
      setTimeout(resolve, 5);
    });
};

describe('a folder on the server’s disk', () => {
  it('is listed with its folders and how many files it has', async () => {
    expect(await intake.list('')).toEqual({ folder: '', folders: ['evening'], fileCount: 1 });
    expect(await intake.list('evening')).toEqual({ folder: 'evening', folders: ['second'], fileCount: 2 });
  });
  it.each(['..', '../..', 'evening/../..', '/etc', 'way-out', 'nowhere', 'evening/p9.jpg/..\0', '/'])(
    '%j leads nowhere outside the opened one',
    async (folder) => {
      const listing = await intake.list(folder);
      if (listing) expect(listing.folder).toBe('');
      else expect(await intake.start(show, folder)).toBe('not-there');
    },
  );
  it('is taken in whole, folders in it too, by name; nothing hidden and no link out of it', async () => {
    expect(await intake.start(show, 'evening')).toBe('begun');
    expect(await intake.start(show, '')).toBe('another-is-coming');
    await done();
    expect(taken).toEqual(['p9.jpg', 'p10.jpg', 'p11.jpg']);
  });
  it('goes on after the server ended in the middle, and is then forgotten', async () => {
    await intake.start(show, 'evening');
    const later = createFolderIntake(path.join(top, 'open'), database, sheet, createEvents());
    await later.resume();
    await done(later);
    expect(taken.filter((name) => name === 'p11.jpg')).toHaveLength(2);
    taken = [];
    await createFolderIntake(path.join(top, 'open'), database, sheet, createEvents()).resume();
    expect(taken).toEqual([]);
  });
  it('stops when told to', async () => {
    await intake.start(show, 'evening');
    await intake.stop(show);
    await done();
    expect(taken.length).toBeLessThan(3);
  });
  it('cannot be reached at all when none was opened', async () => {
    const closed = createFolderIntake(null, database, sheet, createEvents());
    expect([await closed.list(''), await closed.start(show, '')]).toEqual([null, 'not-there']);
  });
});
