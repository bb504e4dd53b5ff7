// How long a night's series takes: films of 90 s at 720p for the rows of a table, each with pictures of its own, from the taking in to the finished film: npm run bench:series [rows]
import { mkdir, mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { cueId, layerId, showId, slideId } from '../src/core/show/ids';
import { songAfter } from '../src/core/show/placed-sound';
import { DEFAULT_TRANSITION, emptyShow, type Slide } from '../src/core/show/show';
import { projectFolder } from '../src/server/paths';
import { openServer } from '../src/server/running-server';

const PICTURES = 18;
const SLIDE_MS = 5000;
const NIGHT = 200;
const rows = Number(process.argv.at(-1)) || 6;
const folder = await mkdtemp(path.join(tmpdir(), 'tanager-bench-series-'));
process.env.TANAGER_DATA = path.join(folder, 'data');
const server = await openServer();
server.runner.start();
const pattern = showId('pattern');
const files = path.join(projectFolder(), 'demo/files');
const names = (await readdir(files))
  .filter((name) => name.startsWith('PE_') && name.endsWith('.jpg'))
  .slice(0, PICTURES);
await server.shows.put(emptyShow(pattern, 'A house'));
for (const name of [...names, 'harbour-reel.mp3'])
  await server.sheet.takeIn(pattern, path.join(files, name), name, 'copy');
for (const kind of ['look', 'focus', 'hear'] as const) await server.runner.idle(kind);
const entries = await server.sheet.entries(pattern);
const named = (name: string) => entries.find(({ fileName }) => fileName === name)!.assetId;
const slides = names.map((name, at): Slide => ({
  ...{
    id: slideId(`s${at}`),
    lengthMs: SLIDE_MS,
    transition: DEFAULT_TRANSITION,
    backing: { kind: 'automatic' },
    sounds: [],
  },
  layers: [
    { kind: 'picture', id: layerId(`p${at}`), assetId: named(name), move: { kind: 'automatic' } },
    ...(at === 0
      ? [{ kind: 'words' as const, id: layerId('w'), title: '{House}', subtitle: 'for sale', place: 'bottom' as const }]
      : []),
  ],
}));
const edits = [
  { kind: 'add-slides', runs: [{ afterId: null, slides }] },
  { kind: 'set-cues', cues: [songAfter(cueId('song'), named('harbour-reel.mp3'), 3000)] },
];
await server.shows.applyEdits(
  pattern,
  edits.map((edit, at) => ({ editId: `pattern-${at}`, edit })),
  0,
);
const id = (await server.series.create('studio', pattern))!;
for (let row = 1; row <= rows; row += 1)
  for (const name of names) {
    const part = path.join(folder, 'part');
    // Pictures of its own: the same to look at, and known as none that was seen.
    await mkdir(folder, { recursive: true });
    await writeFile(part, Buffer.concat([await readFile(path.join(files, name)), Buffer.from(`row ${row}`)]));
    await server.seriesFiles.take(id, part, `house-${row}/${name}`);
  }
const table = Array.from({ length: rows }, (_, at) => [`House ${at + 1}`, `house-${at + 1}`]);
await server.series.change('studio', id, { columns: ['House', 'Folder'], rows: table });
const from = performance.now();
await server.series.start('studio', id, null);
await server.runner.idle('series');
const seconds = (performance.now() - from) / 1000;
const seen = (await server.series.find('studio', id))!;
const done = seen.rows.filter(({ state }) => state === 'done').length;
const filmSeconds = (rows * slides.length * SLIDE_MS) / 1000;
process.stdout.write(
  `${done} of ${rows} films of ${(slides.length * SLIDE_MS) / 1000} s in ${seconds.toFixed(0)} s: ${(filmSeconds / seconds).toFixed(2)} × as fast as watching them; ${NIGHT} would take ${((seconds / rows) * (NIGHT / 3600)).toFixed(1)} h\n`,
);
await server.close();
await rm(folder, { recursive: true, force: true });
process.exit(0);
