// Puts the demo show on the shelf, once: the Lantern Regatta of Port Ellery, from the files in demo/files.
import { readdir } from 'node:fs/promises';
import path from 'node:path';
import { lanterns, USUAL_LANTERNS } from '../../src/core/builds/lanterns';
import { USUAL_LOUPE } from '../../src/core/builds/loupe';
import { makeLoupe } from '../../src/core/builds/make-builds';
import { prepareShow } from '../../src/core/frame/plan-frame';
import type { ShowEdit } from '../../src/core/show/edit';
import { cueId, layerId, showId, slideId, type AssetId } from '../../src/core/show/ids';
import { songAfter, voiceHere } from '../../src/core/show/placed-sound';
import { DEFAULT_TRANSITION, emptyShow, type Slide } from '../../src/core/show/show';
import type { WordsPlace } from '../../src/core/show/words';
import { lengthsByMusic } from '../../src/core/timing/follow-music';
import type { SheetEntry } from '../../src/server/assets/contact-sheet';
import { projectFolder } from '../../src/server/paths';
import { THE_STUDIO } from '../../src/server/studio/may-do';
import { openServer } from '../../src/server/running-server';
import { CREWS, seedCrews } from './crews';
import { seedDisc } from './disc';

const ID = showId('lantern-regatta');
const WORDS: Record<string, readonly [title: string, subtitle: string, place: WordsPlace]> = {
  'PE_0412.jpg': ['Lantern Regatta', 'Port Ellery, 14 June', 'bottom-left'],
  'PE_0423.jpg': ['Pies first', '', 'bottom-left'],
  'PE_0440.jpg': ['The brass band gets on board', '', 'bottom'],
  'PE_0444.jpg': ['And then rain', 'It stopped in time. It always does.', 'bottom-left'],
  'PE_0458.jpg': ['The crews make ready', 'at the old slipway', 'bottom-left'],
  'PE_0472.jpg': ['Forty boats on one rope', '', 'bottom'],
  'PE_0499.jpg': ['Until next June', '', 'bottom'],
};
const ORDER_AT_THE_END = ['regatta-emblem.png'];
/** On the contact sheet, but not in the show: the one with dark bars. */
const LEFT_OUT = ['regatta-still.jpg'];
const CHAPTERS: readonly (readonly [slide: number, name: string])[] = [
  [1, 'At dusk'],
  [9, 'Rain'],
  [12, 'The rope'],
];
/** What is said: the first is recorded, the others wait in the booth. */
const SCRIPTS: Record<string, string> = {
  'PE_0412.jpg':
    'Every June, when the light goes, Port Ellery puts its lanterns on the water. We set out at dusk: forty boats, on one rope.',
  'PE_0440.jpg': 'The brass band gets on board last, because the tuba needs two men and a plank.',
  'PE_0444.jpg': 'And then it rained. Nobody went home. We stood under the fish hall roof and sang.',
  'PE_0472.jpg': 'Forty boats on one rope. The harbour master counts them twice, out loud, every year.',
};
/** Where the heads of the band are, on its picture. */
const HEADS = [
  { x: 0.16, y: 0.62 },
  { x: 0.5, y: 0.58 },
  { x: 0.84, y: 0.62 },
];
const LINGERING = ['PE_0412.jpg', 'PE_0472.jpg'];

const server = await openServer();
const shelf = await server.shows.shelf();
// All of the demo, or the one show that most of what is tried goes by.
const whole = process.argv.includes('--whole');
if (whole && (await server.shows.load(CREWS)) === null && shelf.length === 0) {
  server.runner.start(['look', 'hear']);
  await seedCrews(server);
}
if (!shelf.some((entry) => entry.id === ID) && (await server.shows.load(ID)) === null) await seed();
if (whole && (await server.discs.list(THE_STUDIO)).length === 0 && shelf.length === 0) await seedDisc(server);
// Tests that all begin with the demo need not each prepare it.
if (process.env.TANAGER_SEED === 'prepared') {
  server.runner.start(['proxy', 'focus']);
  for (const kind of ['proxy', 'focus'] as const) await server.runner.idle(kind);
}
await server.close();
process.exit(0);

async function seed(): Promise<void> {
  const show = { ...emptyShow(ID, 'Lantern Regatta of Port Ellery'), defaultLengthMs: 6000 };
  await server.shows.put(show);
  const folder = path.join(projectFolder(), 'demo/files');
  for (const name of (await readdir(folder)).sort())
    await server.sheet.takeIn(ID, path.join(folder, name), name, 'copy');
  server.runner.start(['look', 'hear']);
  await server.runner.idle('look');
  await server.runner.idle('hear');

  const entries = (await server.sheet.entries(ID)).filter((entry) => entry.state === 'ready');
  const named = (name: string) => entries.find((entry) => entry.fileName === name)!;
  const time = (entry: SheetEntry) =>
    (entry.facts && 'takenAt' in entry.facts && entry.facts.takenAt) ||
    (entry.fileName.startsWith('PE_0489') ? '2025-06-14T21:56:00' : '9999');
  const pictures = entries
    .filter((entry) => entry.facts!.kind !== 'sound' && !LEFT_OUT.includes(entry.fileName))
    .sort(
      (a, b) =>
        ORDER_AT_THE_END.indexOf(a.fileName) - ORDER_AT_THE_END.indexOf(b.fileName) || time(a).localeCompare(time(b)),
    );
  const slides = pictures.map((entry, index) => slideOf(entry, index, named('opening-words.flac').assetId));
  const song = named('harbour-reel.mp3');
  const cues = [songAfter(cueId('reel'), song.assetId, 3000)];
  const edits: ShowEdit[] = [
    {
      kind: 'add-slides',
      runs: [{ afterId: null, slides }],
    },
    { kind: 'set-cues', cues },
  ];
  const marks = [
    ...pictures
      .filter((entry) => WORDS[entry.fileName])
      .map((entry) => ({
        assetId: entry.assetId,
        mark: LINGERING.includes(entry.fileName) ? ('linger' as const) : ('keep' as const),
      })),
    ...LEFT_OUT.map((name) => ({ assetId: named(name).assetId, mark: 'leave-out' as const })),
  ];
  edits.push({ kind: 'set-marks', marks }, { kind: 'set-pace', pace: { by: 'music' } });
  edits.push({
    kind: 'set-chapters',
    chapters: CHAPTERS.map(([number, name]) => ({ slideId: slideId(`regatta-${number}`), name })),
  });
  const facts = new Map(entries.flatMap((entry) => (entry.facts ? [[entry.assetId, entry.facts] as const] : [])));
  const whole = { ...show, slides, cues, marks: Object.fromEntries(marks.map(({ assetId, mark }) => [assetId, mark])) };
  const fitted = lengthsByMusic(whole, facts, { by: 'music' });
  if (fitted.ok) edits.push({ kind: 'set-lengths', lengths: fitted.lengths });
  await server.shows.applyEdits(
    ID,
    edits.map((edit, index) => ({ editId: `seeded-${index}`, edit })),
    0,
  );
  await addBuilds();
  await addStudio(named('regatta-emblem.png').assetId);
}

/** A studio that is called something and has a logo. */
async function addStudio(logo: AssetId): Promise<void> {
  const { profile, revision, shelf: own } = await server.studio.open(THE_STUDIO);
  await server.sheet.borrow(own, ID, [logo], 'studio');
  const said = { name: 'Harrow Lane Pictures', contact: 'hello@harrowlane.example', logo };
  await server.studio.setProfile(THE_STUDIO, { ...profile, ...said }, revision);
}

/** A loupe over the band, and lanterns that gather about the emblem at the end. */
async function addBuilds(): Promise<void> {
  const { show, revision } = (await server.shows.load(ID))!;
  const entries = (await server.sheet.entries(ID)).filter((entry) => entry.facts);
  const facts = new Map(entries.map((entry) => [entry.assetId, entry.facts!] as const));
  const named = (name: string) => entries.find((entry) => entry.fileName === name)!.assetId;
  const shows = (name: string) =>
    show.slides.find((slide) => slide.layers.some((layer) => 'assetId' in layer && layer.assetId === named(name)))!;
  const [band, last] = [shows('PE_0440.jpg'), shows('regatta-emblem.png')];
  const plan = { ...USUAL_LOUPE, places: HEADS, restMs: 700, glideMs: 900, beginMs: 900, across: 0.36 };
  const made = makeLoupe(prepareShow(show, facts), band, band.layers[0]!.id, plan, layerId('band-loupe'));
  if (!made.ok) throw new Error(made.sentence);
  const pictures = show.slides
    .flatMap((slide) => slide.layers)
    .flatMap((layer) =>
      layer.kind === 'picture' && layer.assetId !== named('regatta-emblem.png') ? [layer.assetId] : [],
    )
    .slice(-12);
  const ring = lanterns({ ...USUAL_LANTERNS, shape: 'ring', pictures, overMs: 4200 }, show.frame, layerId('ring'));
  const [emblem] = last.layers;
  const edits: ShowEdit[] = [
    made.edit,
    { kind: 'add-layers', slideId: last.id, runs: [{ into: null, aboveId: null, layers: [ring] }] },
    { kind: 'set-move', slideId: last.id, layerId: emblem!.id, move: { kind: 'still' } },
    { kind: 'set-channels', slideId: last.id, layerId: emblem!.id, channels: { y: 0.2, height: 0.3 } },
  ];
  await server.shows.applyEdits(
    ID,
    edits.map((edit, index) => ({ editId: `built-${index}`, edit })),
    revision,
  );
}

function slideOf(entry: SheetEntry, index: number, narration: AssetId): Slide {
  const words = WORDS[entry.fileName];
  const facts = entry.facts!;
  const isClip = facts.kind === 'clip';
  return {
    id: slideId(`regatta-${index + 1}`),
    lengthMs: isClip ? facts.lengthMs : index === 0 ? 11_000 : 6000,
    transition: DEFAULT_TRANSITION,
    backing: { kind: 'automatic' },
    layers: [
      isClip
        ? { kind: 'clip', id: layerId(`clip-${index + 1}`), assetId: entry.assetId, trimStartMs: 0, soundGainDb: 0 }
        : { kind: 'picture', id: layerId(`picture-${index + 1}`), assetId: entry.assetId, move: { kind: 'automatic' } },
      ...(words
        ? [
            {
              kind: 'words' as const,
              id: layerId(`words-${index + 1}`),
              title: words[0],
              subtitle: words[1],
              place: words[2],
            },
          ]
        : []),
    ],
    sounds: index === 0 ? [{ ...voiceHere(cueId('opening'), narration, 1600), name: 'Opening words' }] : [],
    ...(SCRIPTS[entry.fileName] && { script: SCRIPTS[entry.fileName] }),
  };
}
