import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import { films, shows } from '../database/schema';
import { createScreeningService, type ScreeningService } from './screening-service';

let folder: string;
let database: OpenDatabase;
let screenings: ScreeningService;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-screenings-'));
  database = await openDatabase(`file:${path.join(folder, 'studio.db')}`);
  screenings = createScreeningService(database.db);
  await database.db
    .insert(shows)
    .values({ id: 's', title: 'Working title', revision: 0, slideCount: 0, lengthMs: 0, createdAt: 0, changedAt: 0 });
  const film = { showId: 's', heightPx: 720, rateFrames: 30, frameCount: 1, orderedAt: 0 };
  await database.db.insert(films).values([
    { ...film, id: 'one', title: 'Regatta', state: 'ready', screeningToken: 'token-of-one' },
    { ...film, id: 'two', title: 'Regatta', state: 'making', screeningToken: 'token-of-two' },
  ]);
});
afterAll(async () => {
  database.close();
  await rm(folder, { recursive: true, force: true });
});

describe('a screening', () => {
  it('is found by its link, and tells a stranger the film and its title only', async () => {
    expect(await screenings.find('token-of-one')).toEqual({ filmId: 'one', title: 'Regatta' });
  });
  it('is not there for a film that is not ready, nor for a guess', async () => {
    expect([await screenings.find('token-of-two'), await screenings.find('one'), await screenings.find('')]).toEqual([
      null,
      null,
      null,
    ]);
  });
});
