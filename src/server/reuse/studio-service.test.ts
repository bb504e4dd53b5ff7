import { createWriteStream } from 'node:fs';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import { ZipFile } from 'yazl';
import { documentOf, draftsOf, fitOf } from '../../core/mounts/keep-mount';
import { groundOf, layEdit } from '../../core/mounts/lay-mount';
import { mountOf, type MountDocument } from '../../core/mounts/mount-document';
import { asset, counter, FACTS, given, showOf, withTitle } from '../../core/mounts/mounts.testing';
import { shippedMount } from '../../core/mounts/shipped/shipped-mounts';
import { takeOffEdit } from '../../core/mounts/take-off';
import { dressed } from '../../core/plumage/dress';
import { shippedPlumage } from '../../core/plumage/shipped-plumage';
import { applyEdit, type ShowEdit } from '../../core/show/edit';
import { layerId, showId, slideId, type AssetId } from '../../core/show/ids';
import { assetIdsOfSlides, emptyShow, type Show, type Slide } from '../../core/show/show';
import { EMPTY_PROFILE } from '../../core/studio/studio-profile';
import { THE_STUDIO } from '../studio/may-do';
import { openServer, type RunningServer } from '../running-server';
import { parseShow } from '../schema/show-schema';
import { shelfOf } from './shelf-of';

let folder: string;
const opened: RunningServer[] = [];
beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-reuse-'));
});
afterEach(async () => {
  for (const server of opened.splice(0)) await server.close();
  delete process.env.TANAGER_DATA;
  await rm(folder, { recursive: true, force: true });
});

/** An installation of its own. */
async function installation(name: string): Promise<RunningServer> {
  process.env.TANAGER_DATA = path.join(folder, name);
  const server = await openServer();
  opened.push(server);
  return server;
}

const done = (show: Show, edit: ShowEdit): Show => {
  const result = applyEdit(show, edit);
  if (!result.ok) throw new Error(result.sentence);
  return result.show;
};

/** A file that lies on a show's sheet. */
async function brought(server: RunningServer, show: string, text: string): Promise<AssetId> {
  const file = path.join(folder, `${text}.svg`);
  await writeFile(file, `<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"><text>${text}</text></svg>`);
  await server.sheet.takeIn(showId(show), file, `${text}.svg`, 'copy');
  const entry = (await server.sheet.entries(showId(show))).find(({ fileName }) => fileName === `${text}.svg`)!;
  return entry.assetId;
}

/** A slide of two pictures, one masked and one that comes by keys, over a drawing that is part of the design. */
function designed(frill: AssetId): Slide {
  return {
    ...withTitle(showOf(1).slides[0]!, 'A title', 'and more'),
    id: slideId('made'),
    backing: { kind: 'colour', colour: '#203040' },
    transition: { kind: 'iris', lengthMs: 900 },
    layers: [
      { kind: 'drawing', id: layerId('frill'), assetId: frill },
      {
        kind: 'picture',
        id: layerId('left'),
        assetId: asset(0),
        move: { kind: 'automatic' },
        channels: {
          x: {
            keys: [
              { at: { tied: 'start', ms: 0 }, value: -0.4, easing: 'swing' },
              { at: { tied: 'start', ms: 900 }, value: 0.3 },
            ],
          },
          width: 0.4,
          height: 0.6,
        },
      },
      {
        kind: 'picture',
        id: layerId('right'),
        assetId: asset(1),
        move: { kind: 'still' },
        channels: { x: 0.7, width: 0.4, height: 0.6 },
      },
      {
        kind: 'shape',
        id: layerId('hole'),
        shape: { kind: 'star', points: 5, depth: 0.5 },
        fill: { kind: 'colour', colour: '#ffffff' },
        channels: { x: 0.7, width: 0.4, height: 0.6 },
        mask: { by: 'brightness', cuts: [layerId('right')] },
      },
      { kind: 'words', id: layerId('w'), title: 'A title', subtitle: 'and more', place: 'bottom' },
    ],
  };
}

function documentFrom(slide: Slide, fileNames: Map<AssetId, string>): MountDocument {
  const { windows, words } = draftsOf([slide]);
  const fit = fitOf({ name: '2 pictures', suits: 'any', frame: showOf(1).frame, slides: [slide], windows, words });
  return documentOf(
    {
      name: 'Star and frill',
      author: 'Harrow Lane',
      description: 'Two pictures.',
      shelf: 'Our own',
      posterMs: 2000,
      goes: 'before',
    },
    [fit],
    fileNames,
  );
}

async function zipped(name: string, fill: (zip: ZipFile) => void): Promise<string> {
  const file = path.join(folder, name);
  const zip = new ZipFile();
  fill(zip);
  zip.end();
  await pipeline(zip.outputStream, createWriteStream(file));
  return file;
}

async function exported(): Promise<{ file: string; document: MountDocument; frill: AssetId }> {
  const server = await installation('first');
  await server.shows.put({ ...emptyShow(showId('show'), 'Show') });
  const frill = await brought(server, 'show', 'frill');
  const document = documentFrom(designed(frill), new Map([[frill, 'frill.svg']]));
  const kept = await server.studio.keep(THE_STUDIO, document, showId('show'));
  const file = path.join(folder, 'star.zip');
  expect(await server.studio.exportTo(THE_STUDIO, kept.id, file)).toBe('Star and frill.mount.zip');
  return { file, document, frill };
}

describe('a mount made from a slide with windows, masks and keys', () => {
  it('exported and imported into an empty installation lies on 2, 5 and 37 pictures and comes off without a trace', async () => {
    const { file, document, frill } = await exported();
    const server = await installation('second');
    const came = await server.studio.importFrom(THE_STUDIO, file);
    expect([came.document, came.missing]).toEqual([document, []]);
    expect((await server.sheet.entries(shelfOf(THE_STUDIO))).map(({ assetId }) => assetId)).toEqual([frill]);
    const [listed] = await server.studio.mounts(THE_STUDIO);
    const facts = new Map([...FACTS, [frill, { ...FACTS.get(asset(0))! }] as const]);
    for (const count of [2, 5, 37]) {
      const before = showOf(count);
      const ids = before.slides.map(({ id }) => id);
      const laid = layEdit(
        before,
        groundOf(before, ids, counter('g')),
        given({ mount: mountOf(listed!.id, listed!.document), facts }),
      );
      if (!laid.ok) throw new Error(laid.sentence);
      const show = done(before, laid.edit);
      expect(show.slides).toHaveLength(Math.ceil(count / 2));
      const shown = assetIdsOfSlides(show.slides);
      for (let n = 0; n < count; n += 1) expect(shown).toContain(asset(n));
      expect(shown).toContain(frill);
      const [first] = show.slides;
      expect(first!.layers.find(({ id }) => id === layerId('hole'))).toEqual(designed(frill).layers[3]);
      expect(first!.layers.find(({ id }) => id === layerId('left'))).toMatchObject({
        assetId: asset(0),
        channels: { x: { keys: [{ value: -0.4 }, { value: 0.3 }] } },
      });
      expect(parseShow(JSON.parse(JSON.stringify({ ...show, files: undefined })))).toMatchObject({ ok: true });
      expect(JSON.stringify(done(show, takeOffEdit(show, laid.slideIds, counter('o'))!))).toBe(JSON.stringify(before));
    }
  });
  it('is the same file every time, kept once, and told apart from another of its name', async () => {
    const { file, document } = await exported();
    const [first] = opened;
    const again = path.join(folder, 'again.zip');
    const [kept] = await first!.studio.mounts(THE_STUDIO);
    await first!.studio.exportTo(THE_STUDIO, kept!.id, again);
    expect((await readFile(again)).equals(await readFile(file))).toBe(true);
    await first!.studio.importFrom(THE_STUDIO, file);
    expect(await first!.studio.mounts(THE_STUDIO)).toHaveLength(1);
    await first!.studio.keep(THE_STUDIO, { ...document, description: 'Another.' }, showId('show'));
    expect((await first!.studio.mounts(THE_STUDIO)).map((one) => one.document.name)).toEqual([
      'Star and frill',
      'Star and frill',
    ]);
  });
  it('is handed on without what was noted in its pictures, and shows the same', async () => {
    const server = await installation('first');
    await server.shows.put({ ...emptyShow(showId('show'), 'Show') });
    const file = path.join(folder, 'noted.jpg');
    const picture = sharp({ create: { width: 40, height: 30, channels: 3, background: '#8090a0' } });
    await picture
      .withExif({ IFD0: { Make: 'Slipway', Artist: 'Ilka of Port Ellery' } })
      .jpeg()
      .toFile(file);
    await server.sheet.takeIn(showId('show'), file, 'noted.jpg', 'copy');
    const [entry] = await server.sheet.entries(showId('show'));
    const kept = await server.studio.keep(
      THE_STUDIO,
      documentFrom(designed(entry!.assetId), new Map([[entry!.assetId, 'noted.jpg']])),
      showId('show'),
    );
    const out = path.join(folder, 'noted.zip');
    await server.studio.exportTo(THE_STUDIO, kept.id, out);
    expect((await readFile(out)).includes('Port Ellery')).toBe(false);
    const other = await installation('second');
    const came = await other.studio.importFrom(THE_STUDIO, out);
    expect(came.missing).toEqual([]);
    const [frill] = await other.sheet.entries(shelfOf(THE_STUDIO));
    expect([frill!.fileName, frill!.assetId === entry!.assetId]).toEqual(['noted.jpg', false]);
    const pixels = (at: string) => sharp(at).raw().toBuffer();
    expect((await pixels(await other.blobs.localFile(frill!.assetId))).equals(await pixels(file))).toBe(true);
  });
  it('is removed and brought back', async () => {
    await exported();
    const [server] = opened;
    const [kept] = await server!.studio.mounts(THE_STUDIO);
    expect(await server!.studio.setRemoved(THE_STUDIO, kept!.id, true)).toBe(true);
    expect((await server!.studio.mounts(THE_STUDIO))[0]!.removed).toBe(true);
    await server!.studio.setRemoved(THE_STUDIO, kept!.id, false);
    expect((await server!.studio.mounts(THE_STUDIO))[0]!.removed).toBe(false);
    expect(await server!.studio.setRemoved(THE_STUDIO, 'never', true)).toBe(false);
    expect(await server!.studio.exportTo('another', kept!.id, path.join(folder, 'x'))).toBeNull();
  });
});

describe('a mount file that came from elsewhere', () => {
  const note = (document: unknown) => (zip: ZipFile) =>
    zip.addBuffer(Buffer.from(typeof document === 'string' ? document : JSON.stringify(document)), 'mount.json');
  it('names fonts and files that are missing: the usual font stands in, and a window stands where the file was', async () => {
    const { document, frill } = await exported();
    const odd = JSON.parse(
      JSON.stringify(document).replace('"place":"bottom"', '"place":"bottom","style":{"font":"wingdings"}'),
    ) as MountDocument;
    const server = await installation('second');
    const came = await server.studio.importFrom(THE_STUDIO, await zipped('odd.zip', note(odd)));
    expect(came.missing).toEqual([
      'The font “wingdings” is not here; the usual one is used in its place.',
      'The file “frill.svg” is not in it; a window stands in its place.',
    ]);
    expect(came.document.fits[0]!.windows.map(({ name }) => name)).toEqual(['Picture 1', 'Picture 2', 'frill.svg']);
    expect(JSON.stringify(came.document)).not.toContain(frill);
  });
  it('is refused with one clear line when it is broken, newer, malicious or no mount, and nothing of it is kept', async () => {
    const { document, file } = await exported();
    const server = await installation('second');
    const whole = await readFile(file);
    const cut = path.join(folder, 'cut.zip');
    await writeFile(cut, whole.subarray(0, whole.length / 2));
    const deep = `${'['.repeat(50_000)}${']'.repeat(50_000)}`;
    const fit = document.fits[0]!;
    const cases: [string, RegExp][] = [
      [cut, /no ZIP file/],
      [await zipped('a.zip', (zip) => zip.addBuffer(Buffer.from('x'), 'readme.txt')), /no mount/],
      [await zipped('b.zip', note('{ not json')), /cannot be read/],
      [await zipped('c.zip', note({ ...document, version: 99 })), /newer version/],
      [await zipped('d.zip', note({ ...document, shows: 99 })), /newer version/],
      [await zipped('e.zip', note({ ...document, format: 'other' })), /no mount/],
      [await zipped('f.zip', note({ ...document, fits: [] })), /no mount that can be used/],
      [await zipped('g.zip', note({ ...document, extra: 1 })), /no mount that can be used/],
      [
        await zipped('h.zip', note(`{"format":"tanager-mount","version":1,"shows":10,"fits":${deep}}`)),
        /no mount that can be used/,
      ],
      [
        await zipped('i.zip', note({ ...document, fits: [{ ...fit, words: [{ ...fit.words[0]!, slide: 7 }] }] })),
        /words for a slide/,
      ],
      [await zipped('j.zip', note({ ...document, fits: [{ ...fit, windows: [] }] })), /a window that it does not have/],
      [
        await zipped('k.zip', (zip) => {
          note(document)(zip);
          zip.addBuffer(Buffer.from('other'), `files/${Object.keys(document.files)[0]!}.svg`);
        }),
        /is not what it was/,
      ],
    ];
    for (const [bad, says] of cases)
      expect([
        path.basename(bad),
        await server.studio.importFrom(THE_STUDIO, bad).then(
          () => 'taken',
          (error: Error) => error.message,
        ),
      ]).toEqual([path.basename(bad), expect.stringMatching(says)]);
    expect(await server.studio.mounts(THE_STUDIO)).toEqual([]);
    expect(await server.sheet.entries(shelfOf(THE_STUDIO))).toEqual([]);
  });
});

describe('the studio', () => {
  it('has a shelf of its own that is not among its shows, and a profile that is not overwritten unknowingly', async () => {
    const server = await installation('first');
    const first = await server.studio.open(THE_STUDIO);
    expect([first.profile, first.revision]).toEqual([EMPTY_PROFILE, 0]);
    expect(await server.shows.shelf()).toEqual([]);
    const changed = await server.studio.setProfile(THE_STUDIO, { ...EMPTY_PROFILE, name: 'Harrow Lane' }, 0);
    expect(changed).toMatchObject({ revision: 1, profile: { name: 'Harrow Lane' } });
    expect(await server.studio.setProfile(THE_STUDIO, EMPTY_PROFILE, 0)).toBeNull();
    expect((await server.studio.open(THE_STUDIO)).profile.name).toBe('Harrow Lane');
  });
  it('gives new shows its plumage and its watermark when it says so', async () => {
    const server = await installation('first');
    const { shelf } = await server.studio.open(THE_STUDIO);
    const logo = await brought(server, shelf, 'logo');
    await server.studio.setProfile(
      THE_STUDIO,
      { ...EMPTY_PROFILE, logo, newShows: { plumage: 'owl', logoFirst: false, logoLast: false, watermark: true } },
      0,
    );
    const { id } = await server.shows.create('New');
    await server.studio.begin(THE_STUDIO, id);
    const { show } = (await server.shows.load(id))!;
    expect([show.plumage?.is.id, show.watermark?.assetId, show.temperament]).toEqual(['owl', logo, 'calm']);
  });
  it('takes every dressed show that can be made, as the server reads it', () => {
    const wardrobe = { facts: FACTS, studio: { name: '', contact: '', logo: null }, mountOf: shippedMount };
    for (const plumage of ['heron', 'kingfisher', 'owl']) {
      const all = { opener: true, chapters: true, closer: true, several: true };
      const { show } = dressed(showOf(30), { plumage: shippedPlumage(plumage)!, with: all, seed: 4 }, wardrobe);
      expect(parseShow(JSON.parse(JSON.stringify(show)))).toMatchObject({ ok: true });
    }
  });
});
