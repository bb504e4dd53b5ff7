import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { assetId, showId } from '../../core/show/ids';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import { films, screenings, sheetEntries, shows } from '../database/schema';
import { mayDo, THE_STUDIO, type Actor, type Deed, type Subject } from './may-do';

let folder: string;
let database: OpenDatabase;
const file = assetId('a'.repeat(64));
const member: Actor = { kind: 'member', studioId: THE_STUDIO };
const stranger: Actor = { kind: 'member', studioId: 'another' };
const guest: Actor = { kind: 'guest' };
const may = (actor: Actor, deed: Deed, on: Subject = {}) => mayDo(database.db, actor, deed, on);

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-studio-'));
  database = await openDatabase(`file:${path.join(folder, 'studio.db')}`);
  const row = { revision: 0, slideCount: 0, lengthMs: 0, createdAt: 0, changedAt: 0, title: 'Ours' };
  await database.db.insert(shows).values([
    { ...row, id: 'ours' },
    { ...row, id: 'off', removedAt: 5 },
    { ...row, id: 'theirs', studioId: 'another' },
  ]);
  await database.db
    .insert(sheetEntries)
    .values([{ id: 'e', showId: 'ours', assetId: file, fileName: 'a.jpg', byteCount: 1, state: 'ready', addedAt: 0 }]);
  await database.db.insert(films).values({
    id: 'film',
    showId: 'ours',
    title: '',
    heightPx: 720,
    rateFrames: 30,
    state: 'ready',
    frameCount: 1,
    orderedAt: 0,
  });
});
afterAll(async () => {
  database.close();
  await rm(folder, { recursive: true, force: true });
});

describe('who may do what', () => {
  it.each<[Deed, Subject]>([
    ['see-shelf', {}],
    ['make-show', {}],
    ['bring-files', {}],
    ['see-folders', {}],
    ['see-studio', {}],
    ['change-studio', {}],
    ['see-show', { show: showId('ours') }],
    ['change-show', { show: showId('ours') }],
    ['bring-back-show', { show: showId('off') }],
    ['see-file', { show: showId('ours'), asset: file }],
    ['see-film', { film: 'film' }],
    ['change-film', { film: 'film' }],
  ])('the studio’s own people may %s %j, and no guest may', async (deed, on) => {
    expect([await may(member, deed, on), await may(guest, deed, on)]).toEqual([true, false]);
  });
  it.each<[Deed, Subject]>([
    ['see-show', { show: showId('ours') }],
    ['change-show', { show: showId('ours') }],
    ['bring-back-show', { show: showId('off') }],
    ['see-file', { show: showId('ours'), asset: file }],
    ['see-film', { film: 'film' }],
    ['change-film', { film: 'film' }],
  ])('another studio’s people may not %s %j', async (deed, on) => {
    expect(await may(stranger, deed, on)).toBe(false);
  });
  it('a file is seen only by way of a show that has it', async () => {
    expect(await may(member, 'see-file', { show: showId('off'), asset: file })).toBe(false);
    expect(await may(member, 'see-file', { asset: file })).toBe(false);
    expect(await may(stranger, 'see-file', { show: showId('theirs'), asset: file })).toBe(false);
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
      await may(guest, 'watch-screening', { token: 't', pass: 'guessed' }),
      await may(member, 'watch-screening', { token: 'u' }),
    ]).toEqual([allowed, false]);
  });
});
