import { describe, expect, it } from '@jest/globals';
import { untilLastStroke } from './beat-grid';

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
