// A series for the demo: a small show that is the pattern, and a table with a row for each crew.
import { copyFile, mkdir } from 'node:fs/promises';
import path from 'node:path';
import { cueId, layerId, showId, slideId } from '../../src/core/show/ids';
import { songAfter } from '../../src/core/show/placed-sound';
import { DEFAULT_TRANSITION, emptyShow, type Slide } from '../../src/core/show/show';
import { dataFolder, projectFolder } from '../../src/server/paths';
import type { RunningServer } from '../../src/server/running-server';
import { THE_STUDIO } from '../../src/server/studio/may-do';

export const CREWS = showId('crew-of-the-regatta');
const PATTERN = ['PE_0458.jpg', 'PE_0461.jpg', 'PE_0463.jpg', 'PE_0472.jpg', 'PE_0475.jpg', 'PE_0499.jpg'];
const SONG = 'harbour-reel.mp3';
const TABLE = [
  ['The Otters', 'Port Ellery', 'otters', 'Third, and dry to the last'],
  ['The Kingfishers', 'Saltmere', 'kingfishers', 'First by half a lantern'],
  ['The Coots', 'Aldwick Sound', 'coots', 'They came for the pies'],
  ['The Grebes', 'Upper Fenn', 'grebes', 'Late, as always'],
];
const ALBUMS: Readonly<Record<string, readonly string[]>> = {
  otters: ['PE_0412.jpg', 'PE_0423.jpg', 'PE_0431.jpg', 'PE_0458.jpg', 'PE_0480.jpg', 'PE_0497.jpg'],
  kingfishers: ['PE_0415.jpg', 'PE_0426.jpg', 'PE_0434.jpg', 'PE_0461.jpg', 'PE_0486.jpg'],
  coots: ['PE_0419.jpg', 'PE_0440.jpg', 'PE_0447.jpg', 'PE_0463.jpg', 'PE_0468.jpg', 'PE_0475.jpg', 'PE_0491.jpg'],
};

/** A folder is missing for one of them: so that it is seen what is said then. */
export async function seedCrews(server: RunningServer): Promise<void> {
  const files = path.join(projectFolder(), 'demo/files');
  const show = { ...emptyShow(CREWS, 'A crew of the regatta'), defaultLengthMs: 4500 };
  await server.shows.put(show);
  for (const name of [...PATTERN, SONG]) await server.sheet.takeIn(CREWS, path.join(files, name), name, 'copy');
  await server.runner.idle('look');
  const entries = await server.sheet.entries(CREWS);
  const named = (name: string) => entries.find(({ fileName }) => fileName === name)!.assetId;
  const slides = PATTERN.map((name, index): Slide => ({
    id: slideId(`crew-${index + 1}`),
    lengthMs: index === 0 ? 6000 : 4500,
    transition: DEFAULT_TRANSITION,
    backing: { kind: 'automatic' },
    layers: [
      { kind: 'picture', id: layerId(`crew-picture-${index + 1}`), assetId: named(name), move: { kind: 'automatic' } },
      ...(index === 0 ? [words(index, '{Crew}', 'from {Town}')] : []),
      ...(index === PATTERN.length - 1 ? [words(index, 'Until next June', '{Words}')] : []),
    ],
    sounds: [],
  }));
  const edits = [
    { kind: 'add-slides', runs: [{ afterId: null, slides }] },
    { kind: 'set-cues', cues: [songAfter(cueId('crew-song'), named(SONG), 3000)] },
  ];
  await server.shows.applyEdits(
    CREWS,
    edits.map((edit, index) => ({ editId: `crews-seeded-${index}`, edit })),
    0,
  );
  const id = (await server.series.create(THE_STUDIO, CREWS))!;
  for (const [album, names] of Object.entries(ALBUMS)) {
    const part = path.join(dataFolder(), 'uploads');
    await mkdir(part, { recursive: true });
    for (const name of names) {
      await copyFile(path.join(files, name), path.join(part, name));
      await server.seriesFiles.take(id, path.join(part, name), `${album}/${name}`);
    }
  }
  await server.series.change(THE_STUDIO, id, {
    title: 'The crews of the regatta',
    columns: ['Crew', 'Town', 'Album', 'Words'],
    rows: TABLE,
  });
}

const words = (index: number, title: string, subtitle: string) => ({
  ...{ kind: 'words' as const, id: layerId(`crew-words-${index + 1}`), title, subtitle },
  place: 'bottom-left' as const,
});
