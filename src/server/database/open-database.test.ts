import { cp, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';
import { createClient } from '@libsql/client';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { drizzle } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { blankSlide } from '../../core/show/new-slide';
import { cueId, layerId, showId, type AssetId } from '../../core/show/ids';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { ClipLayer } from '../../core/show/layer';
import type { TransitionOverTime } from '../../core/show/transition';
import { LEAVING } from '../../core/show/window-id';
import { shippedMount } from '../../core/mounts/shipped/shipped-mounts';
import { dressEdit } from '../../core/plumage/dress';
import { shippedPlumage } from '../../core/plumage/shipped-plumage';
import { FORMAT_VERSION } from '../../core/show/format/version';
import { assetIdsOf, contentOf, emptyShow, type Show } from '../../core/show/show';
import { createEvents } from '../events';
import { createFactStore } from '../facts/fact-store';
import { parseStoredShow } from '../schema/show-schema';
import { createVersionService } from '../shows/versions';
import { createShowService } from '../shows/show-service';
import { createScreeningService } from '../screenings/screening-service';
import { filmDocuments, films } from './schema';
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

/** As format 1 wrote it. */
function asInOne({ methods: _methods, slides, ...rest }: Show): object {
  return {
    ...rest,
    version: 1,
    frame: { widthPx: 1920, heightPx: 1080, framesPerSecond: 30 },
    slides: slides.map(({ sounds: _sounds, ...one }) => ({ ...one, narration: null })),
  };
}

describe('openDatabase', () => {
  it('brings along a show that was written whole into its row, with the edits since', async () => {
    const url = `file:${path.join(folder, 'older.db')}`;
    const client = await openedBefore(url, 2);
    await client.execute({
      sql: 'insert into shows (id, document, document_revision, revision, title, slide_count, length_ms, created_at, changed_at) values (?, ?, 3, 4, ?, 2, 4000, 1, 2)',
      args: [show.id, JSON.stringify(asInOne(show)), show.title],
    });
    await client.execute({
      sql: 'insert into edits (show_id, revision, edit_id, edit, at) values (?, 4, ?, ?, 2)',
      args: [show.id, 'e4', JSON.stringify({ kind: 'rename-show', title: 'Renamed since' })],
    });
    client.close();

    const database = await openDatabase(url);
    const shows = createShowService(database, createEvents());
    expect(await shows.load(show.id)).toEqual({
      show: { ...show, title: 'Renamed since', methods: { basics: 1 } },
      revision: 4,
      damage: null,
    });
    expect(
      await shows.applyEdits(show.id, [{ editId: 'e5', edit: { kind: 'rename-show', title: 'And again' } }], 4),
    ).toMatchObject({ revision: 5, refused: [] });
    expect((await shows.load(show.id))!.show.title).toBe('And again');
    database.close();
  });
  it('opens a database of format 1 with everything in it, and keeps it as it was beside', async () => {
    const file = path.join(folder, 'format-1.db');
    await writeFile(file, gunzipSync(await readFile('src/server/database/samples/format-1.db.gz')));
    const database = await openDatabase(`file:${file}`);
    const shows = createShowService(database, createEvents());
    const id = showId('lantern-regatta');
    const { show: opened, revision, damage } = (await shows.load(id))!;
    expect([opened.title, opened.slides.length, revision, damage]).toEqual([
      'Lantern Regatta, as it was',
      25,
      11,
      null,
    ]);
    expect(opened).toMatchObject({ version: FORMAT_VERSION, methods: { basics: 1 }, defaultLengthMs: 3000 });
    // Edits that named layers by their ids alone did what they did; what no font can show is gone from the words.
    expect(opened.slides[2]).toMatchObject({
      lengthMs: 4321,
      layers: [{ light: { exposure: 0.5 }, edge: { feather: 0.02 }, crop: { width: 0.9 } }, { title: 'Dusk fell' }],
    });
    const versions = createVersionService(database);
    const [kept] = await versions.list(id);
    expect([kept!.name, (await versions.load(id, kept!.id))!.content.defaultLengthMs]).toEqual([
      'As shown on Sunday',
      6000,
    ]);
    const facts = createFactStore(database);
    const ids = assetIdsOf(opened);
    expect((await facts.of('basics', ids, 1, null)).size).toBe(ids.length);
    // The film that waited waits still, with the show it was ordered of.
    const [film] = await database.db.select().from(films);
    const [document] = await database.db.select().from(filmDocuments);
    expect([film!.state, (document!.document as Show).slides.length]).toEqual(['waiting', 25]);
    expect(
      await shows.applyEdits(id, [{ editId: 'after-all', edit: { kind: 'rename-show', title: 'Now' } }], 11),
    ).toMatchObject({ revision: 12, refused: [] });
    database.close();
    const before = createClient({ url: `file:${file}.before-4` });
    expect(Number((await before.execute('select count(*) as count from edits')).rows[0]!.count)).toBe(11);
    before.close();
  });
  it('opens a database of format 4, with its clocks, moves and versions as they were', async () => {
    const file = path.join(folder, 'format-4.db');
    await writeFile(file, gunzipSync(await readFile('src/server/database/samples/format-4.db.gz')));
    const database = await openDatabase(`file:${file}`);
    const shows = createShowService(database, createEvents());
    const id = showId('lantern-regatta');
    const { show: opened, revision, damage } = (await shows.load(id))!;
    expect([opened.title, opened.slides.length, damage]).toEqual(['Lantern Regatta, as it was in four', 25, null]);
    expect(opened).toMatchObject({ version: FORMAT_VERSION, clocks: { 'Orrery F2': 60_000 } });
    expect(opened.slides[1]!.layers[0]).toMatchObject({
      move: { kind: 'set', first: { width: 0.9 }, last: { x: 0.4, width: 0.7 } },
    });
    const versions = createVersionService(database);
    const [kept] = await versions.list(id);
    expect((await versions.load(id, kept!.id))!.content).toEqual(contentOf(opened));
    expect(
      await shows.applyEdits(
        id,
        [{ editId: 'after-all', edit: { kind: 'set-temperament', temperament: 'calm' } }],
        revision,
      ),
    ).toMatchObject({ revision: revision + 1, refused: [] });
    database.close();
  });
  it('opens a database of format 5, with its rings, its temperament and its song as they were', async () => {
    const file = path.join(folder, 'format-5.db');
    await writeFile(file, gunzipSync(await readFile('src/server/database/samples/format-5.db.gz')));
    const database = await openDatabase(`file:${file}`);
    const shows = createShowService(database, createEvents());
    const id = showId('lantern-regatta');
    const { show: opened, revision, damage } = (await shows.load(id))!;
    expect([opened.title, opened.slides.length, damage]).toEqual(['Lantern Regatta, as it was in five', 25, null]);
    expect(opened).toMatchObject({
      version: FORMAT_VERSION,
      temperament: 'lively',
      focus: { ['a'.repeat(64)]: [{ x: 0.3, y: 0.4, radius: 0.1 }] },
      cues: [{ id: 'reel', starts: { at: 'after' }, trimStartMs: 1500, gainDb: -2, fadeOutMs: 3000 }],
    });
    expect([opened.pace, opened.mix, opened.beats]).toEqual([undefined, undefined, undefined]);
    expect(
      await shows.applyEdits(
        id,
        [{ editId: 'after-all', edit: { kind: 'set-pace', pace: { by: 'music' } } }],
        revision,
      ),
    ).toMatchObject({ revision: revision + 1, refused: [] });
    database.close();
  });
  it('opens a database of format 6, with its pace, its chapters, its voice and its loop as they were', async () => {
    const file = path.join(folder, 'format-6.db');
    await writeFile(file, gunzipSync(await readFile('src/server/database/samples/format-6.db.gz')));
    const database = await openDatabase(`file:${file}`);
    const shows = createShowService(database, createEvents());
    const id = showId('lantern-regatta');
    const { show: opened, revision, damage } = (await shows.load(id))!;
    expect([opened.title, opened.slides.length, damage]).toEqual(['Lantern Regatta, as it was in six', 25, null]);
    expect(opened).toMatchObject({
      version: FORMAT_VERSION,
      pace: { by: 'music', meets: 'middle' },
      mix: { duckDb: 14 },
      cues: [{ id: 'reel', loops: true, trimEndMs: 90_000, gainDb: -2 }],
    });
    expect([opened.slides[4]!.chapter, opened.slides[2]!.sounds[0]!.id]).toEqual(['The boats', 'v1']);
    expect([opened.breath, opened.captionLook, opened.slides[0]!.script]).toEqual([undefined, undefined, undefined]);
    expect(
      await shows.applyEdits(
        id,
        [{ editId: 'after-all', edit: { kind: 'set-scripts', scripts: [{ slideId: 's1', script: 'At dusk.' }] } }],
        revision,
      ),
    ).toMatchObject({ revision: revision + 1, refused: [] });
    database.close();
  });
  it('opens a database of format 7, with its pace, its chapters and its scripts as they were, and takes keys that 7 could not say', async () => {
    const file = path.join(folder, 'format-7.db');
    await writeFile(file, gunzipSync(await readFile('src/server/database/samples/format-7.db.gz')));
    const database = await openDatabase(`file:${file}`);
    const shows = createShowService(database, createEvents());
    const id = showId('lantern-regatta');
    const { show: opened, revision, damage } = (await shows.load(id))!;
    expect([opened.title, opened.slides.length, damage]).toEqual(['Lantern Regatta, as it was in seven', 25, null]);
    expect(opened).toMatchObject({ version: FORMAT_VERSION, pace: { by: 'music' } });
    expect([opened.slides[0]!.chapter, opened.slides.some((slide) => slide.script)]).toEqual(['At dusk', true]);
    const first = opened.slides[0]!;
    const key = { at: { tied: 'start', ms: 0 }, value: 0.4, easing: { of: 'settle', from: 0, to: 0.5 } } as const;
    expect(
      await shows.applyEdits(
        id,
        [
          {
            editId: 'after-all',
            edit: {
              kind: 'set-channels',
              slideId: first.id,
              layerId: first.layers[0]!.id,
              channels: { x: { keys: [key], smooth: true, still: 0.6 } },
            },
          },
        ],
        revision,
      ),
    ).toMatchObject({ revision: revision + 1, refused: [] });
    database.close();
  });
  it('opens a database of format 8, with its loupe and its lanterns, and takes what 8 could not say', async () => {
    const file = path.join(folder, 'format-8.db');
    await writeFile(file, gunzipSync(await readFile('src/server/database/samples/format-8.db.gz')));
    const database = await openDatabase(`file:${file}`);
    const shows = createShowService(database, createEvents());
    const id = showId('lantern-regatta');
    const { show: opened, revision, damage } = (await shows.load(id))!;
    expect([opened.slides.length, damage, opened.letBe, opened.licences]).toEqual([25, null, undefined, undefined]);
    const kinds = opened.slides.flatMap((slide) => slide.layers.map((layer) => layer.id as string));
    expect(kinds).toEqual(expect.arrayContaining(['band-loupe', 'ring']));
    const edits = [
      { kind: 'let-be', snags: [{ key: 'used-twice regatta-1', reason: 'meant so' }] },
      { kind: 'set-waits', slides: [{ slideId: opened.slides[2]!.id, waits: true }] },
      { kind: 'set-licences', licences: [{ assetId: opened.cues[0]!.assetId, licence: 'Our own work' }] },
    ] as const;
    expect(
      await shows.applyEdits(
        id,
        edits.map((edit, index) => ({ editId: `after-all-${index}`, edit })),
        revision,
      ),
    ).toMatchObject({ revision: revision + 3, refused: [] });
    const after = (await shows.load(id))!.show;
    expect([after.version, after.slides[2]!.waits, Object.values(after.licences!)]).toEqual([
      FORMAT_VERSION,
      true,
      ['Our own work'],
    ]);
    database.close();
  });
  it('opens a database of format 3, with its narrations as voices and its songs one after the other', async () => {
    const file = path.join(folder, 'format-3.db');
    await writeFile(file, gunzipSync(await readFile('src/server/database/samples/format-3.db.gz')));
    const database = await openDatabase(`file:${file}`);
    const shows = createShowService(database, createEvents());
    const id = showId('lantern-regatta');
    const { show: opened, revision, damage } = (await shows.load(id))!;
    expect([opened.title, opened.slides.length, revision, damage]).toEqual([
      'Lantern Regatta, as it was in three',
      25,
      11,
      null,
    ]);
    expect(opened).toMatchObject({ version: FORMAT_VERSION, frame: { rate: { frames: 30, seconds: 1 } } });
    const spoken = opened.slides.flatMap(({ sounds }, index) =>
      sounds.map(({ kind, starts, gainDb }) => [index, kind, starts, gainDb]),
    );
    expect(spoken).toEqual([[2, 'voice', { at: 'here', offsetMs: 900 }, -2]]);
    expect(opened.cues.map(({ id: cue, kind, starts, gainDb }) => [cue, kind, starts, gainDb])).toEqual([
      ['reel', 'song', { at: 'after' }, 0],
      ['again', 'song', { at: 'after' }, -4],
    ]);
    // Who chose a length was noted already; who chose a move, a light or a backing was not.
    expect(opened.slides[3]).toMatchObject({ lengthMs: 4321, chosen: { length: 'hand' } });
    expect([opened.slides[1]!.chosen, opened.slides[1]!.layers[0]!.chosen]).toEqual([undefined, undefined]);
    expect(opened.slides[1]).toMatchObject({
      backing: { colour: '#203040' },
      layers: [{ move: { kind: 'still' }, light: { exposure: 0.5 } }],
    });
    const versions = createVersionService(database);
    const [kept] = await versions.list(id);
    expect((await versions.load(id, kept!.id))!.content).toEqual(contentOf(opened));
    // The film that was being made goes on at the rate it was ordered at.
    const [film] = await database.db.select().from(films);
    expect(film).toMatchObject({ state: 'making', rateFrames: 30, rateSeconds: 1, frameCount: 4657 });
    const [document] = await database.db.select().from(filmDocuments);
    expect(parseStoredShow(document!.document)).toEqual({ ok: true, value: opened });
    expect(
      await shows.applyEdits(
        id,
        [
          {
            editId: 'after-all',
            edit: { kind: 'remove-sounds', slideId: opened.slides[2]!.id, soundIds: [cueId('voice')] },
          },
        ],
        11,
      ),
    ).toMatchObject({ revision: 12, refused: [] });
    database.close();
  });
  it('opens a database of format 10: a clip that was silent because of its speed stays so, and may be heard now', async () => {
    const file = path.join(folder, 'format-10.db');
    await writeFile(file, gunzipSync(await readFile('src/server/database/samples/format-10.db.gz')));
    const database = await openDatabase(`file:${file}`);
    const shows = createShowService(database, createEvents());
    const id = showId('lantern-regatta');
    const { show: opened, revision, damage } = (await shows.load(id))!;
    expect([opened.slides.length, damage, opened.version]).toEqual([25, null, FORMAT_VERSION]);
    const slide = opened.slides.find(({ layers }) => layers[0]?.kind === 'clip')!;
    const clip = slide.layers[0] as ClipLayer;
    expect(clip).toMatchObject({ speed: 0.5, soundGainDb: -60 });
    const layer = {
      ...clip,
      soundGainDb: 0,
      backwards: true,
      trimEndMs: 4000,
      freezes: [{ atMs: 900, lengthMs: 500 }],
    };
    const edit = { kind: 'put-layer', slideId: slide.id, layer } as const;
    expect(await shows.applyEdits(id, [{ editId: 'said-in-11', edit }], revision)).toMatchObject({ refused: [] });
    expect((await shows.load(id))!.show.slides.find((one) => one.id === slide.id)!.layers[0]).toEqual(layer);
    database.close();
  });
  it('opens a database of format 11 with its turned clip and tailored song, and takes a join that is kept, a poster and tags', async () => {
    const file = path.join(folder, 'format-11.db');
    await writeFile(file, gunzipSync(await readFile('src/server/database/samples/format-11.db.gz')));
    const database = await openDatabase(`file:${file}`);
    const shows = createShowService(database, createEvents());
    const id = showId('lantern-regatta');
    const { show: opened, revision, damage } = (await shows.load(id))!;
    expect([opened.slides.length, damage, opened.version, opened.tags]).toEqual([25, null, FORMAT_VERSION, undefined]);
    const clip = opened.slides.flatMap(({ layers }) => layers).find((layer) => layer.kind === 'clip')!;
    expect(clip).toMatchObject({ backwards: true, trimEndMs: 4000, freezes: [{ atMs: 900, lengthMs: 500 }] });
    // Its transitions were laid over words, and go on doing so.
    for (const { layers, transition } of opened.slides)
      if (transition.kind !== 'cut')
        expect(transition.overWords).toBe(layers.some(({ kind }) => kind === 'words') || undefined);
    expect(opened.slides.some(({ transition }) => transition.kind !== 'cut' && transition.overWords)).toBe(true);
    const avoid = [{ fromMs: 8000, toMs: 16_000 }];
    expect(opened.cues[0]!.tailored).toEqual({ avoid });
    const versions = createVersionService(database);
    const [kept] = await versions.list(id);
    expect((await versions.load(id, kept!.id))!.content).toEqual(contentOf(opened));
    const song = opened.cues[0]!;
    const edits = [
      { kind: 'set-posters', posters: [{ assetId: (clip as ClipLayer).assetId, atMs: 700 }] },
      { kind: 'set-tags', tags: [{ assetId: song.assetId, tags: { style: 'reel' } }] },
      {
        kind: 'set-sound',
        slideId: null,
        soundId: song.id,
        properties: { tailored: { avoid, keep: [{ fromMs: 12_000, toMs: 4000 }] } },
      },
    ] as const;
    expect(
      await shows.applyEdits(
        id,
        edits.map((edit, index) => ({ editId: `said-in-12-${index}`, edit })),
        revision,
      ),
    ).toMatchObject({ refused: [] });
    const after = (await createShowService(database, createEvents()).load(id))!.show;
    expect([Object.values(after.posters!), Object.values(after.tags!), after.cues[0]!.tailored!.keep!.length]).toEqual([
      [700],
      [{ style: 'reel' }],
      1,
    ]);
    expect((await shows.shelf()).find((entry) => entry.id === id)).toMatchObject({ posterAtMs: null });
    database.close();
  });
  it('opens a database of format 9 and takes what 9 could not say: a mount, a plumage, a transition of one’s own', async () => {
    const file = path.join(folder, 'format-9.db');
    await writeFile(file, gunzipSync(await readFile('src/server/database/samples/format-9.db.gz')));
    const database = await openDatabase(`file:${file}`);
    const shows = createShowService(database, createEvents());
    const id = showId('lantern-regatta');
    const { show: opened, revision, damage } = (await shows.load(id))!;
    expect([opened.slides.length, damage, opened.plumage, opened.title]).toEqual([
      25,
      null,
      undefined,
      'Lantern Regatta of Port Ellery',
    ]);
    const facts = new Map<AssetId, AssetFacts>();
    const wardrobe = { facts, studio: { name: '', contact: '', logo: null }, mountOf: shippedMount };
    const dressing = { opener: false, chapters: true, closer: true, several: false };
    const dress = dressEdit(opened, { plumage: shippedPlumage('owl')!, with: dressing, seed: 2 }, wardrobe).edit!;
    const transition: TransitionOverTime = {
      kind: 'built',
      name: 'Own',
      lengthMs: 900,
      ofMs: 2000,
      layers: [{ kind: 'picture', id: layerId('old'), assetId: LEAVING, move: { kind: 'still' } }],
    };
    const edits = [
      dress,
      { kind: 'set-transitions', transitions: [{ slideId: opened.slides[3]!.id, transition }] } as const,
    ];
    expect(
      await shows.applyEdits(
        id,
        edits.map((edit, index) => ({ editId: `reused-${index}`, edit })),
        revision,
      ),
    ).toMatchObject({ revision: revision + 2, refused: [] });
    const after = (await createShowService(database, createEvents()).load(id))!.show;
    expect([after.version, after.plumage?.is.id, after.slides.filter(({ mounted }) => mounted).length]).toEqual([
      FORMAT_VERSION,
      'owl',
      1,
    ]);
    expect(after.slides.find((slide) => slide.id === opened.slides[3]!.id)!.transition).toEqual(transition);
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

describe('films of earlier versions', () => {
  it('keep the links that were given for them, as screenings without a guest book', async () => {
    const url = `file:${path.join(folder, 'links.db')}`;
    const client = await openedBefore(url, 8);
    await client.execute(
      "insert into shows (id, revision, title, slide_count, length_ms, created_at, changed_at) values ('s', 0, 'S', 0, 0, 1, 1)",
    );
    await client.execute(
      "insert into films (id, show_id, title, height_px, frames_per_second, state, frame_count, screening_token, ordered_at) values ('f', 's', 'S', 720, 30, 'ready', 9, 'given-away', 5), ('g', 's', 'S', 720, 30, 'cancelled', 9, 'never-seen', 6)",
    );
    client.close();
    const database = await openDatabase(url);
    const screenings = createScreeningService({
      database,
      sheet: { factsOf: async () => new Map() },
      events: createEvents(),
    });
    expect(await screenings.door('given-away', null)).toBe('open');
    expect(await screenings.list(showId('s'))).toHaveLength(1);
    expect(await screenings.find('given-away')).toMatchObject({
      films: [{ id: 'f' }],
      settings: { guestBook: false, counts: false },
    });
    database.close();
  });
});
