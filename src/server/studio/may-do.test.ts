import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { assetId, showId } from '../../core/show/ids';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import { accounts, films, screenings, sheetEntries, showGuests, shows } from '../database/schema';
import { STRANGER, type Actor } from './actor';
import { mayDo, THE_STUDIO, type Deed, type Subject } from './may-do';

let folder: string;
let database: OpenDatabase;
const file = assetId('a'.repeat(64));
const someone = { kind: 'person', sessionId: 'x', name: 'Ilka' } as const;
const owner: Actor = { ...someone, accountId: 'owner', studioId: THE_STUDIO, role: 'owner' };
const member: Actor = { ...someone, accountId: 'member', studioId: THE_STUDIO, role: 'member' };
const foreigner: Actor = { ...someone, accountId: 'foreigner', studioId: 'another', role: 'owner' };
const guest: Actor = { ...someone, accountId: 'guest', studioId: THE_STUDIO, role: 'guest' };
const may = (actor: Actor, deed: Deed, on: Subject = {}) => mayDo(database.db, actor, deed, on);

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-studio-'));
  database = await openDatabase(`file:${path.join(folder, 'studio.db')}`);
  const row = { revision: 0, slideCount: 0, lengthMs: 0, createdAt: 0, changedAt: 0, title: 'Ours' };
  await database.db.insert(shows).values([
    { ...row, id: 'ours' },
    { ...row, id: 'off', removedAt: 5 },
    { ...row, id: 'second' },
    { ...row, id: 'theirs', studioId: 'another' },
  ]);
  await database.db
    .insert(accounts)
    .values({ id: 'guest', studioId: THE_STUDIO, role: 'guest', name: 'Ilka', createdAt: 0 });
  await database.db.insert(showGuests).values({ accountId: 'guest', showId: 'ours' });
  await database.db
    .insert(sheetEntries)
    .values([{ id: 'e', showId: 'ours', assetId: file, fileName: 'a.jpg', byteCount: 1, state: 'ready', addedAt: 0 }]);
  const film = {
    title: '',
    heightPx: 720,
    rateFrames: 30,
    state: 'ready' as const,
    frameCount: 1,
    orderedAt: 0,
  };
  await database.db.insert(films).values([
    { ...film, id: 'film', showId: 'ours' },
    { ...film, id: 'their-film', showId: 'theirs' },
  ]);
});
afterAll(async () => {
  database.close();
  await rm(folder, { recursive: true, force: true });
});

const OURS = { show: showId('ours') };

describe('who may do what', () => {
  it.each<[Deed, Subject, string]>([
    ['own-account', {}, 'owner member foreigner guest'],
    ['see-shelf', {}, 'owner member foreigner guest'],
    ['bring-files', {}, 'owner member foreigner guest'],
    ['see-people', {}, 'owner member foreigner'],
    ['make-show', {}, 'owner member foreigner'],
    ['see-folders', {}, 'owner member'],
    ['bring-folder', OURS, 'owner member'],
    ['see-studio', {}, 'owner member foreigner'],
    ['change-studio', {}, 'owner member foreigner'],
    ['clear-away', {}, 'owner member foreigner'],
    ['change-people', {}, 'owner foreigner'],
    ['see-audit', {}, 'owner foreigner'],
    ['see-show', OURS, 'owner member guest'],
    ['change-show', OURS, 'owner member guest'],
    ['see-file', { ...OURS, asset: file }, 'owner member guest'],
    ['send-show', OURS, 'owner member'],
    ['bring-back-show', { show: showId('off') }, 'owner member'],
    ['see-film', { film: 'film' }, 'owner member'],
    ['change-film', { film: 'film' }, 'owner member'],
    ['see-film', { film: 'their-film' }, 'foreigner'],
    ['change-film', { film: 'their-film' }, 'foreigner'],
    ['see-show', { show: showId('second') }, 'owner member'],
    ['see-show', { show: showId('theirs') }, 'foreigner'],
    ['sign-in', {}, 'owner member foreigner guest stranger'],
    ['see-health', {}, 'owner member foreigner guest stranger'],
  ])('%s %j: %s', async (deed, on, allowed) => {
    const actors = { owner, member, foreigner, guest, stranger: STRANGER };
    const able: string[] = [];
    for (const [name, actor] of Object.entries(actors)) if (await may(actor, deed, on)) able.push(name);
    expect(able.join(' ')).toBe(allowed);
  });
  it('a file is seen only by way of a show that has it', async () => {
    expect(await may(member, 'see-file', { show: showId('off'), asset: file })).toBe(false);
    expect(await may(member, 'see-file', { asset: file })).toBe(false);
    expect(await may(member, 'see-file', { show: showId('theirs'), asset: file })).toBe(false);
  });
  it('a show off the shelf is not there until it is brought back', async () => {
    expect([
      await may(member, 'see-show', { show: showId('off') }),
      await may(member, 'see-show', { show: showId('never') }),
    ]).toEqual([false, false]);
  });
  it.each<[string, Partial<typeof screenings.$inferInsert>, boolean]>([
    ['whoever has a screening’s link may watch it', {}, true],
    ['nobody watches what was shut', { shut: true }, false],
    ['nobody watches after its end', { endsAt: 1 }, false],
    ['nobody watches without the password', { passwordHash: 'x' }, false],
  ])('%s', async (_says, settings, allowed) => {
    await database.db.delete(screenings);
    const row = { id: 's', studioId: THE_STUDIO, showId: 'ours', token: 't', createdAt: 0 };
    await database.db.insert(screenings).values({ ...row, ...settings });
    expect([
      await may(STRANGER, 'watch-screening', { token: 't', pass: 'guessed' }),
      await may(member, 'watch-screening', { token: 'u' }),
    ]).toEqual([allowed, false]);
  });
});
