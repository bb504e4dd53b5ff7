// What a change costs when the film is made again: npm run bench:remake -- [FOLDER OF PICTURES]
// A show of sixty slides of five seconds; CPU of the whole making and of all it started, against the first making in the same run.
import { mkdtemp, rm } from 'node:fs/promises';
import { readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { specFor } from '../src/core/film/purposes/purposes';
import { applyEdit, type ShowEdit } from '../src/core/show/edit';
import { cueId, layerId, slideId } from '../src/core/show/ids';
import { songAfter } from '../src/core/show/placed-sound';
import type { Show } from '../src/core/show/show';
import { hashOfFile } from '../src/server/blobs/content-hash';
import { createKeptFiles } from '../src/server/films/kept-files';
import { makeFilm } from '../src/server/films/make-film';
import { lookAndFind } from '../src/server/focus/look-and-find';
import { benchShow } from './demo-show';

const SLIDES = 60;
const folder = process.argv[3] ?? 'demo/files';
const { show: few, facts, files } = await benchShow(folder, 20, 5000);
// With a song all through, so that what sound costs is in it.
const songFile = path.resolve('demo/files/harbour-reel.mp3');
const song = await hashOfFile(songFile);
files.set(song, songFile);
facts.set(song, await lookAndFind(songFile));
const show: Show = {
  ...few,
  cues: [{ ...songAfter(cueId('song'), song, 3000), loops: true }],
  slides: Array.from({ length: SLIDES }, (_, index) => {
    const slide = few.slides[index % few.slides.length]!;
    return {
      ...slide,
      id: slideId(`s${index}`),
      layers: slide.layers.map((layer, at) => ({ ...layer, id: layerId(`s${index}-${at}`) })),
    };
  }),
};
const work = await mkdtemp(path.join(tmpdir(), 'tanager-remake-'));
const kept = createKeptFiles(path.join(work, 'kept'));

/** CPU seconds of this process and of every child it has waited for. */
function cpuSeconds(): number {
  const fields = readFileSync('/proc/self/stat', 'utf8').split(') ')[1]!.split(' ');
  return [11, 12, 13, 14].reduce((sum, at) => sum + Number(fields[at]), 0) / 100;
}
async function cost(of: Show): Promise<{ readonly cpu: number; readonly kept: number }> {
  const before = cpuSeconds();
  const made = await makeFilm({
    show: of,
    spec: specFor(of, 'phone'),
    facts,
    files,
    outFile: path.join(work, 'film.mp4'),
    workFolder: path.join(work, 'work'),
    kept,
  });
  return { cpu: cpuSeconds() - before, kept: made.keptFrames / made.plan.frameCount };
}
function edited(of: Show, edit: ShowEdit): Show {
  const result = applyEdit(of, edit);
  if (!result.ok) throw new Error(`the edit was refused: ${JSON.stringify(result)}`);
  return result.show;
}

try {
  const first = await cost(show);
  process.stdout.write(`first making ${first.cpu.toFixed(1)} s CPU\n`);
  const changes: Readonly<Record<string, Show>> = {
    'nothing changed': show,
    'one title changed': edited(show, {
      kind: 'set-words',
      slideId: slideId('s20'),
      layerId: layerId('title'),
      words: { title: 'Dusk', subtitle: '', place: 'bottom-left' },
    }),
    'one slide moved in the middle': edited(show, {
      kind: 'move-slides',
      runs: [{ slideIds: [slideId('s30')], afterId: slideId('s36') }],
    }),
  };
  for (const [name, of] of Object.entries(changes)) {
    const again = await cost(of);
    process.stdout.write(
      `${name}: ${((100 * again.cpu) / first.cpu).toFixed(1)} % of the first making’s CPU, ${(100 * again.kept).toFixed(1)} % of the frames kept\n`,
    );
  }
} finally {
  await rm(work, { recursive: true, force: true });
}
