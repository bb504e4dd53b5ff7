import { describe, expect, it } from '@jest/globals';
import type { SongEvidence } from './grid-evidence';
import { untilLastChord, untilLastStroke } from './beat-grid';

/** A stroke of that strength at each of these frames. */
const rising = (strokes: ReadonlyMap<number, number>) => {
  const rise = new Float32Array(1000);
  for (const [frame, strength] of strokes) rise[frame] = strength;
  return rise;
};
const beats = Array.from({ length: 16 }, (_, beat) => 20 + 50 * beat);
const struck = (upTo: number, strength = (beat: number): number => (beat % 2 === 0 ? 30 : 8)) =>
  new Map(beats.slice(0, upTo).map((frame, beat) => [frame, strength(beat)]));

describe('the beats of a song that rings on', () => {
  it('end with its last stroke', () => expect(untilLastStroke(beats, rising(struck(11)))).toEqual(beats.slice(0, 11)));
  it('all stay where something begins at the last of them, however soft, and where some in between are silent', () => {
    const strokes = struck(16);
    for (const silent of [5, 6, 7]) strokes.delete(beats[silent]!);
    strokes.set(beats[15]!, 4);
    expect(untilLastStroke(beats, rising(strokes))).toEqual(beats);
  });
  it('are found a little beside their strokes, and between frames', () => {
    const between = beats.map((frame) => frame + 2.6);
    expect(untilLastStroke(between, rising(struck(9)))).toEqual(between.slice(0, 9));
  });
  it('stay while it fades, as long as strokes are a sixth of what they were', () => {
    const fading = struck(16, (beat) => 30 * 0.9 ** beat);
    expect(untilLastStroke(beats, rising(fading))).toEqual(beats);
  });
});

describe('a last chord that is held', () => {
  /** Chords that change with every fourth beat up to the last one, and what its players make it rise and fall by. */
  const song = (lastChord: number, ringing: number, changes: readonly number[] = []): SongEvidence => {
    const rise = rising(struck(lastChord + 1, (beat) => (beat % 4 === 0 ? 30 : 8)));
    const harmony = new Float32Array(1000).fill(-0.5);
    for (let beat = 0; beat <= lastChord; beat += 4) harmony[beats[beat]! + 2] = 4;
    for (const beat of beats.slice(lastChord + 1)) rise[beat + 1] = ringing;
    for (const beat of changes) harmony[beats[beat]! - 3] = 0.4;
    return { onsets: { all: rise, low: rise, high: rise, rise }, harmony, peaks: [] };
  };
  it('is the last beat, though what sounds rises and falls as strongly as strokes between chords', () =>
    expect(untilLastChord(beats, song(12, 12))).toEqual(beats.slice(0, 13)));
  it('is none where strokes go on half as strong as it was', () =>
    expect(untilLastChord(beats, song(12, 16))).toEqual(beats));
  it('is none while the harmony goes on changing', () =>
    expect(untilLastChord(beats, song(12, 12, [14]))).toEqual(beats));
  it('is none where it would last longer than anybody holds one', () => {
    const slow = beats.map((_, beat) => 20 + 62 * beat);
    const evidence = song(0, 0);
    expect(untilLastChord(slow, evidence).length).toBeGreaterThan(6);
  });
});
