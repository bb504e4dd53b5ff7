import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import type { AssetFacts } from '../../core/show/asset-facts';
import { assetId, cueId, showId, slideId } from '../../core/show/ids';
import { voiceHere } from '../../core/show/placed-sound';
import { emptyShow, type Show } from '../../core/show/show';
import { filmDocuments, films, shows } from '../database/schema';
import { createScreeningService, type ScreeningService } from './screening-service';

const VOICE = assetId('a'.repeat(64));
const FACTS = new Map<typeof VOICE, AssetFacts>([
  [VOICE, { kind: 'sound', lengthMs: 3000, title: null, artist: null }],
]);
const SHOW: Show = {
  ...emptyShow(showId('s'), 'Regatta'),
  slides: [
    {
      id: slideId('a'),
      lengthMs: 5000,
      transition: { kind: 'cut' },
      backing: { kind: 'automatic' },
      layers: [],
      sounds: [voiceHere(cueId('v'), VOICE, 700)],
      script: 'At dusk we set out.',
      captions: { de: [{ fromMs: 700, toMs: 3700, text: 'Bei Dämmerung fuhren wir aus.' }] },
    },
  ],
};

let folder: string;
let database: OpenDatabase;
let screenings: ScreeningService;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-screenings-'));
  database = await openDatabase(`file:${path.join(folder, 'studio.db')}`);
  screenings = createScreeningService(database.db, { factsOf: async () => FACTS });
  await database.db
    .insert(shows)
    .values({ id: 's', title: 'Working title', revision: 0, slideCount: 0, lengthMs: 0, createdAt: 0, changedAt: 0 });
  const film = { showId: 's', heightPx: 720, rateFrames: 30, frameCount: 150, orderedAt: 0 };
  await database.db.insert(films).values([
    { ...film, id: 'one', title: 'Regatta', state: 'ready', screeningToken: 'token-of-one' },
    { ...film, id: 'two', title: 'Regatta', state: 'making', screeningToken: 'token-of-two' },
  ]);
  await database.db.insert(filmDocuments).values({ filmId: 'one', document: SHOW });
});
afterAll(async () => {
  database.close();
  await rm(folder, { recursive: true, force: true });
});

describe('a screening', () => {
  it('is found by its link, as the film with its frame and its title, and nothing of the show behind it', async () => {
    expect(await screenings.find('token-of-one')).toEqual({
      film: {
        id: 'one',
        lengthMs: 5000,
        spec: expect.objectContaining({ widthPx: 1280, heightPx: 720, format: 'mp4' }),
      },
      title: 'Regatta',
      languages: ['en', 'de'],
    });
  });
  it('has the captions of the show as it was when the film was ordered, by language', async () => {
    expect(await screenings.captions('token-of-one', 'en')).toContain(
      '00:00:00.700 --> 00:00:03.700\nAt dusk we set out.',
    );
    expect(await screenings.captions('token-of-one', 'de')).toContain('Bei Dämmerung');
    expect([
      await screenings.captions('token-of-one', 'fr'),
      await screenings.captions('token-of-one', 'constructor'),
      await screenings.captions('token-of-two', 'en'),
      await screenings.captions('guess', 'en'),
    ]).toEqual([null, null, null, null]);
  });
  it('is not there for a film that is not ready, nor for a guess', async () => {
    expect([await screenings.find('token-of-two'), await screenings.find('one'), await screenings.find('')]).toEqual([
      null,
      null,
      null,
    ]);
  });
});
