// How long the mix of a show takes, and whether that grows with more than its length.
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { assetId, cueId, showId, slideId } from '../src/core/show/ids';
import { songAfter, voiceHere } from '../src/core/show/placed-sound';
import { emptyShow, type Show } from '../src/core/show/show';
import { MIX_SAMPLE_RATE } from '../src/core/sound/mix-plan';
import { planMix } from '../src/core/sound/plan-mix';
import { lookAndFind } from '../src/server/focus/look-and-find';
import { writeMix } from '../src/server/mixing/write-mix';

const SONG = assetId('1'.repeat(64));
const VOICE = assetId('2'.repeat(64));
const files = new Map([
  [SONG, path.resolve('demo/files/harbour-reel.mp3')],
  [VOICE, path.resolve('demo/files/opening-words.flac')],
]);
const facts = new Map([
  [SONG, await lookAndFind(files.get(SONG)!)],
  [VOICE, await lookAndFind(files.get(VOICE)!)],
]);
const folder = await mkdtemp(path.join(tmpdir(), 'tanager-bench-'));
for (const minutes of [5, 10]) {
  const show: Show = {
    ...emptyShow(showId('mix'), ''),
    cues: [{ ...songAfter(cueId('q'), SONG, 3000), loops: true }],
    slides: Array.from({ length: minutes * 10 }, (_, index) => ({
      id: slideId(`s${index}`),
      lengthMs: 6000,
      transition: { kind: 'cut' },
      backing: { kind: 'automatic' },
      layers: [],
      sounds: index % 5 === 0 ? [voiceHere(cueId('v'), VOICE, 500)] : [],
    })),
  };
  const startedMs = performance.now();
  const plan = planMix(show, facts);
  const planMs = performance.now() - startedMs;
  const before = process.memoryUsage().rss;
  await writeMix(plan, {
    fileOf: (id) => files.get(id)!,
    outFile: path.join(folder, 'mix.f32'),
    sampleCount: minutes * 60 * MIX_SAMPLE_RATE,
  });
  const grownMb = (process.memoryUsage().rss - before) / 1e6;
  process.stdout.write(
    `${minutes} minutes: planned in ${planMs.toFixed(0)} ms, mixed in ${((performance.now() - startedMs) / 1000).toFixed(1)} s, ${grownMb.toFixed(0)} MB more memory\n`,
  );
}
await rm(folder, { recursive: true, force: true });
