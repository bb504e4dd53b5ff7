import type { BassLine } from './band-style';
import type { PlacedChord } from './harmony';

interface BassNote {
  readonly beat: number;
  readonly beats: number;
  readonly pitch: number;
}

/** A pitch of that class, nearest to another, within a range. */
export function nearestPitch(pitchClass: number, to: number, low: number, high: number): number {
  let best = low;
  for (let pitch = low; pitch <= high; pitch += 1)
    if (
      pitch % 12 === ((pitchClass % 12) + 12) % 12 &&
      (best % 12 !== pitch % 12 || Math.abs(pitch - to) < Math.abs(best - to))
    )
      best = pitch;
  return best;
}

/** The lowest tone of each chord, so that the line moves little and stays low. */
export function bassPitches(chords: readonly PlacedChord[], tonic: number, low: number, high: number): number[] {
  let last = low + (high - low) / 3;
  return chords.map(
    ({ chord }) => (last = nearestPitch(tonic + chord.bass, 0.75 * last + 0.25 * (low + (high - low) / 3), low, high)),
  );
}

/** The notes of a bass under chords. @param beatsABar bars begin at its multiples */
export function bassLine(
  line: BassLine,
  chords: readonly PlacedChord[],
  tonic: number,
  range: readonly [low: number, high: number],
  beatsABar: number,
): BassNote[] {
  const [low, high] = range;
  const roots = bassPitches(chords, tonic, low, high);
  return chords.flatMap(({ chord, beat, beats }, at): BassNote[] => {
    const root = roots[at]!;
    const fifthClass = tonic + (chord.tones[2] ?? chord.bass);
    const below = nearestPitch(fifthClass, root - 5, low, high);
    const next = roots[at + 1] ?? root;
    const note = (from: number, length: number, pitch: number): BassNote[] =>
      from < beats ? [{ beat: beat + from, beats: Math.min(length, beats - from), pitch }] : [];
    const every = (step: number, of: (count: number) => readonly [number, number][]) =>
      Array.from({ length: Math.ceil(beats / step) }, (_, count) => of(count)).flatMap((notes, count) =>
        notes.flatMap(([offset, pitch], index) => {
          const until = notes[index + 1]?.[0] ?? step;
          return note(count * step + offset, until - offset, pitch);
        }),
      );
    switch (line) {
      case 'held':
      case 'roots':
        return note(0, beats, root);
      case 'fifths':
        return beats >= 3
          ? [...note(0, beatsABar === 3 ? 3 : 2, root), ...(beatsABar === 4 ? note(2, 2, below) : [])]
          : note(0, beats, root);
      case 'marching':
        return every(2, (count) => [[0, count % 2 === 0 ? root : below]]).map((one) => ({
          ...one,
          beats: Math.min(1, one.beats),
        }));
      case 'swaying':
        return every(4, () => [
          [0, root],
          [1.5, below],
          [2, below],
          [3, root],
        ]);
      case 'ahead':
        return every(4, () => [
          [0, root],
          [1.5, below],
          [3, next],
        ]);
      case 'pulsing':
        return every(0.5, () => [[0, root]]);
      case 'walking':
        return walked(chord.tones, root, next, beats, tonic, low, high).map((pitch, step) => ({
          beat: beat + step,
          beats: 1,
          pitch,
        }));
    }
  });
}

/** A note a beat: the root, tones of the chord, and last of all one beside the next root. */
function walked(
  tones: readonly number[],
  root: number,
  next: number,
  beats: number,
  tonic: number,
  low: number,
  high: number,
): number[] {
  const up = next >= root;
  const notes = [root];
  for (let beat = 1; beat < beats; beat += 1) {
    const last = notes.at(-1)!;
    if (beat === beats - 1) {
      const beside = [next - 1, next + 1, next + 2, next - 2].filter(
        (pitch) => pitch >= low && pitch <= high && pitch !== last,
      );
      notes.push(beside.toSorted((a, b) => Math.abs(a - last) - Math.abs(b - last))[0] ?? next);
    } else {
      const wanted = last + (up ? 4 : -4);
      const near = tones
        .map((tone) => nearestPitch(tonic + tone, Math.max(low, Math.min(high, wanted)), low, high))
        .filter((pitch) => pitch !== last);
      notes.push(near.toSorted((a, b) => Math.abs(a - wanted) - Math.abs(b - wanted))[0] ?? root);
    }
  }
  return notes;
}
