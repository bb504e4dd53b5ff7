// How much processor time listening to a song takes: the demo's, as it is and four minutes of it.
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { runFfmpeg } from '../src/server/ffmpeg/run-ffmpeg';
import { hearFile } from '../src/server/listening/hear-file';

const folder = await mkdtemp(path.join(tmpdir(), 'tanager-bench-'));
const long = path.join(folder, 'four-minutes.mp3');
const song = path.resolve('demo/files/harbour-reel.mp3');
await runFfmpeg(['-stream_loop', '1', '-i', song, '-t', '240', '-c:a', 'libmp3lame', '-y', long]);
try {
  for (const [name, file] of [
    ['the demo’s song', song],
    ['four minutes', long],
  ] as const) {
    const runs: { cpuMs: number; wallMs: number; beats: number }[] = [];
    for (let run = 0; run < 3; run += 1) {
      const before = process.cpuUsage();
      const startedMs = performance.now();
      const { beats } = await hearFile(file, true);
      const used = process.cpuUsage(before);
      runs.push({
        cpuMs: (used.user + used.system) / 1000,
        wallMs: performance.now() - startedMs,
        beats: beats?.beatsMs.length ?? 0,
      });
    }
    const best = runs.toSorted((a, b) => a.cpuMs - b.cpuMs)[0]!;
    process.stdout.write(
      `${name}: ${(best.cpuMs / 1000).toFixed(1)} s of processor time, ${(best.wallMs / 1000).toFixed(1)} s in all, ${best.beats} beats\n`,
    );
  }
} finally {
  await rm(folder, { recursive: true, force: true });
}
