// Looked up once: these are asked for each sample.
const { abs } = Math;
export interface BeatRange {
  /** Frames between two beats, at least and at most. */
  readonly shortest: number;
  readonly longest: number;
  /** How likely an interval is in itself, as a logarithm. */
  prior(interval: number): number;
}

/** Intervals that are tried lie so far apart, as a share: fine enough that a tempo never has to jump to stay in time. */
const STEP = 1.02;
/** How much a change of the interval costs, for its squared logarithm; a ritardando of 4 % a beat costs little, a jump is as good as impossible. */
const CHANGE_COST = 900;
/** A beat may take any of so many neighbouring intervals after one. */
const REACH = 4;

/** The weight of a beat is for its gap; this is a usual one. */
const USUAL_GAP = 50;

/**
 * The best sequence of beats by dynamic programming over moments and intervals (after Ellis 2007, “Beat tracking by dynamic programming”, with the interval as
 * a second state, as in the bar pointer of Whiteley, Cemgil and Godsill 2006): onsets under the beats count, changes of tempo cost.
 *
 * @param strength of a beat at each frame, mean about 0
 * @returns the frames of the beats; null when the song is shorter than three
 */
export function bestBeats(strength: Float32Array, range: BeatRange): number[] | null {
  const intervals: number[] = [];
  for (let interval = range.shortest; interval <= range.longest * 1.0001; interval *= STEP) intervals.push(interval);
  const kinds = intervals.length;
  const count = strength.length;
  const whole = intervals.map(Math.round);
  const longest = whole.at(-1)!;
  if (count < 3 * longest) return null;
  const priors = intervals.map((interval) => range.prior(interval) * interval);
  const change = Array.from({ length: REACH + 1 }, (_, steps) => CHANGE_COST * (steps * Math.log(STEP)) ** 2);
  const scores = new Float32Array(count * kinds);
  const came = new Int8Array(count * kinds);
  // A beat is worth what it says; time without one costs nothing, so the worth is set against the interval it stands for.
  for (let frame = 0; frame < count; frame += 1)
    for (let kind = 0; kind < kinds; kind += 1) {
      const gap = whole[kind]!;
      const own = (strength[frame]! * gap + priors[kind]!) / USUAL_GAP;
      const before = frame - gap;
      let best = -Infinity;
      let step = 0;
      if (before < 0) best = 0;
      else
        for (let by = -REACH; by <= REACH; by += 1) {
          const from = kind + by;
          if (from < 0 || from >= kinds) continue;
          const value = scores[before * kinds + from]! - change[abs(by)]!;
          if (value > best) [best, step] = [value, by];
        }
      scores[frame * kinds + kind] = best + own;
      came[frame * kinds + kind] = step;
    }
  let [frame, kind, best] = [0, 0, -Infinity];
  for (let end = count - longest; end < count; end += 1)
    for (let of = 0; of < kinds; of += 1)
      if (end >= count - whole[of]! && scores[end * kinds + of]! > best)
        [frame, kind, best] = [end, of, scores[end * kinds + of]!];
  const frames: number[] = [];
  while (frame >= 0) {
    frames.push(frame);
    const step = came[frame * kinds + kind]!;
    frame -= whole[kind]!;
    kind += step;
  }
  return frames.reverse();
}
