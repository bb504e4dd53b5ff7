import { describe, expect, it } from '@jest/globals';
import { sectionsOf } from './sections';
import { FRAMES_PER_SECOND, PITCH_STRIDE, type Spectrogram } from './spectrogram';

const BANDS = 48;

/** Parts of a song by what sounds in them: which of four registers, which chord, how loud, for how many seconds. */
type Part = readonly [register: number, chord: number, energy: number, seconds: number];

function song(parts: readonly Part[]): { spectrum: Spectrogram; energy: number[]; lengthMs: number } {
  const seconds = parts.reduce((sum, part) => sum + part[3], 0);
  const frameCount = Math.round(seconds * FRAMES_PER_SECOND);
  const chromaCount = Math.ceil(frameCount / PITCH_STRIDE);
  const bands = new Float32Array(frameCount * BANDS);
  const chroma = new Float32Array(chromaCount * 12);
  const partAt = (second: number) => {
    let from = 0;
    return parts.find((part) => second < (from += part[3])) ?? parts.at(-1)!;
  };
  for (let frame = 0; frame < frameCount; frame += 1) {
    const [register] = partAt(frame / FRAMES_PER_SECOND);
    for (let band = 0; band < BANDS; band += 1)
      // A little of everything, and something that changes from beat to beat.
      bands[frame * BANDS + band] =
        (Math.floor((4 * band) / BANDS) === register ? 1 : 0.05) * (1 + 0.2 * Math.sin(frame / 9 + band));
  }
  for (let group = 0; group < chromaCount; group += 1) {
    const [, chord] = partAt((group * PITCH_STRIDE) / FRAMES_PER_SECOND);
    for (const pitch of [chord, chord + 4, chord + 7]) chroma[group * 12 + (pitch % 12)] = 1 / Math.sqrt(3);
  }
  return {
    spectrum: { frameCount, bandCount: BANDS, bandHz: [], bands, chroma, chromaCount },
    energy: Array.from({ length: Math.ceil(2 * seconds) }, (_, at) => partAt(at / 2)[2]),
    lengthMs: 1000 * seconds,
  };
}
const VERSE: Part = [0, 0, 0.5, 24];
const CHORUS: Part = [2, 5, 0.95, 24];
const bars = (lengthMs: number) => Array.from({ length: Math.ceil(lengthMs / 2000) }, (_, bar) => bar * 2000);

describe('the sections of a song', () => {
  it('begin where something else begins, on a bar, and what comes again is called the same', () => {
    const { spectrum, energy, lengthMs } = song([VERSE, CHORUS, VERSE, CHORUS]);
    const found = sectionsOf(spectrum, energy, bars(lengthMs), lengthMs);
    expect(found.map(({ startMs }) => startMs)).toEqual([0, 24_000, 48_000, 72_000]);
    expect(found.map(({ label }) => label === found[1]!.label)).toEqual([false, true, false, true]);
    expect(found[1]!.label).toBe('full');
    expect(found.at(-1)!.endMs).toBe(lengthMs);
    for (const [at, { endMs }] of found.slice(0, -1).entries()) expect(endMs).toBe(found[at + 1]!.startMs);
  });
  it('are told by energy alone, too, and a soft beginning and end are named so', () => {
    const { spectrum, energy, lengthMs } = song([
      [1, 0, 0.2, 20],
      [1, 0, 0.9, 30],
      [1, 0, 0.25, 20],
    ]);
    const found = sectionsOf(spectrum, energy, bars(lengthMs), lengthMs);
    expect(found.map(({ label }) => label)).toEqual(['quiet opening', 'full', 'quiet ending']);
    expect(found.map((one) => one.energy)).toEqual([
      expect.closeTo(0.2, 1),
      expect.closeTo(0.9, 1),
      expect.closeTo(0.25, 1),
    ]);
  });
  it('open a song once: what is like its soft beginning later is only soft', () => {
    const soft: Part = [1, 0, 0.2, 20];
    const { spectrum, energy, lengthMs } = song([soft, CHORUS, soft, CHORUS, soft, CHORUS]);
    const labels = sectionsOf(spectrum, energy, bars(lengthMs), lengthMs).map(({ label }) => label);
    expect(labels).toEqual(['quiet opening', 'full', 'quiet', 'full', 'quiet', 'full']);
  });
  it('are one where nothing changes, however long', () => {
    const { spectrum, energy, lengthMs } = song([[1, 0, 0.6, 90]]);
    expect(sectionsOf(spectrum, energy, bars(lengthMs), lengthMs)).toHaveLength(1);
  });
  it('are not made of moments: what lasts four seconds is none', () => {
    const { spectrum, energy, lengthMs } = song([VERSE, [2, 5, 0.95, 4], VERSE]);
    for (const { startMs, endMs } of sectionsOf(spectrum, energy, bars(lengthMs), lengthMs))
      expect(endMs - startMs).toBeGreaterThanOrEqual(7000);
  });
  it('are found in silence and in next to nothing without failing', () => {
    const { spectrum, energy, lengthMs } = song([[0, 0, 0, 1]]);
    expect(sectionsOf(spectrum, energy, [], lengthMs)).toEqual([
      { startMs: 0, endMs: 1000, label: 'quiet', energy: 0 },
    ]);
  });
});
