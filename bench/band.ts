// The house band: how long composing and playing take, how soon the first ten seconds are there, and whether our own listener finds the beats again.
import { BAND_STYLES } from '../src/core/sound/band/band-wishes';
import { compose } from '../src/core/sound/band/compose';
import { playPiece } from '../src/core/sound/band/playing/play-piece';
import { asHeard, sideLikeness, thirdOctaves } from '../src/core/sound/band/playing/sound-measures.testing';
import { BAND_RATE } from '../src/core/sound/band/playing/tone';
import { songHearing } from '../src/core/sound/listening/hear-song';
import { loudnessMeter } from '../src/core/sound/loudness';

const seconds = process.argv.slice(3).map(Number);
for (const length of seconds.length > 0 ? seconds : [17, 60, 181]) {
  process.stdout.write(
    `${length} s\nstyle             compose  play   10 s   LUFS   sides  lowest band  beats found (F, at one level of the pulse)\n`,
  );
  for (const style of BAND_STYLES) {
    const begunMs = performance.now();
    const piece = compose({ style, mood: 'warm', energy: 0.6, lengthMs: 1000 * length, seed: 7 });
    const composedMs = performance.now() - begunMs;
    const playing = playPiece(piece);
    const samples = new Float32Array(2 * playing.frameCount);
    let [at, firstMs] = [0, 0];
    for (let block = playing.next(); block; block = playing.next()) {
      samples.set(block, at);
      at += block.length;
      if (firstMs === 0 && at >= 2 * 10 * BAND_RATE) firstMs = performance.now() - begunMs;
    }
    const playedMs = performance.now() - begunMs - composedMs;
    const meter = loudnessMeter(BAND_RATE);
    meter.add(samples);
    const loudness = meter.finish();
    const hearing = songHearing(true);
    hearing.add(asHeard(samples));
    const heard = hearing.finish(loudness).beats?.beatsMs ?? [];
    const beats = piece.form.beatsMs;
    const twice = beats.flatMap((atMs, beat) =>
      beat + 1 < beats.length ? [atMs, (atMs + beats[beat + 1]!) / 2] : [atMs],
    );
    const levels = [beats, beats.filter((_, beat) => beat % 2 === 0), twice].map((truth) => agreement(heard, truth));
    const names = ['as written', 'every other', 'twice'];
    const best = levels.indexOf(Math.max(...levels));
    process.stdout.write(
      `${style.padEnd(18)}${(composedMs / 1000).toFixed(2)} s  ${(playedMs / 1000).toFixed(1)} s  ${(firstMs / 1000).toFixed(2)} s  ${(loudness.integratedLufs ?? 0).toFixed(1)}  ${sideLikeness(samples).toFixed(2)}  ${Math.min(...thirdOctaves(samples)).toFixed(0)} dB       ${levels[best]!.toFixed(2)} ${names[best]!}\n`,
    );
  }
}

/** The share of beats within 70 ms of each other, both ways (F-measure). */
function agreement(found: readonly number[], truth: readonly number[]): number {
  const hits = found.filter((one) => truth.some((other) => Math.abs(one - other) <= 70)).length;
  return (2 * hits) / Math.max(1, found.length + truth.length);
}
