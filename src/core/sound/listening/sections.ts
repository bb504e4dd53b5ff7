import { likeness } from './bars';
import { FRAMES_PER_SECOND, PITCH_STRIDE, type Spectrogram } from './spectrogram';

/** A stretch of a song that is of one kind. */
export interface Section {
  readonly startMs: number;
  readonly endMs: number;
  /** What a person would call it, by its place and its energy; one that is like an earlier one is called the same. */
  readonly label: string;
  /** 0…1, against the loudest of the song. */
  readonly energy: number;
}

/** What is known of each half second. */
interface Moment {
  readonly chord: number[];
  readonly timbre: number[];
}

/** How far a section’s border reaches to both sides: 8 s. */
const KERNEL = 16;
const MOMENTS_PER_SECOND = 2;
/** Sections shorter than this are no sections. */
const SHORTEST_MS = 7000;
/** A border stands out by so many deviations. */
const NOVELTY = 0.6;
const ALIKE = 0.985;

/**
 * Sections by self-similarity: a checkerboard moved down the diagonal of how alike all moments are to each other (Foote 2000, “Automatic audio segmentation
 * using a measure of audio novelty”); borders fall on the nearest bar.
 *
 * @param energy 0…1 for each half second
 * @param barsMs where bars begin; may be empty
 */
export function sectionsOf(
  spectrum: Spectrogram,
  energy: readonly number[],
  barsMs: readonly number[],
  lengthMs: number,
): Section[] {
  const moments = momentsOf(spectrum);
  const novelty = noveltyOf(moments, energy);
  const borders = [0, ...peaksOf(novelty).map((moment) => nearest(barsMs, (moment * 1000) / MOMENTS_PER_SECOND))];
  const starts: number[] = [];
  for (const startMs of borders)
    if (starts.length === 0 || startMs - starts.at(-1)! >= SHORTEST_MS)
      if (startMs === 0 || lengthMs - startMs >= SHORTEST_MS / 2) starts.push(startMs);
  return labelled(
    starts.map((startMs, index) => ({ startMs, endMs: Math.round(starts[index + 1] ?? lengthMs) })),
    moments,
    energy,
  );
}

function momentsOf(spectrum: Spectrogram): Moment[] {
  const { frameCount, bandCount, bands, chroma, chromaCount } = spectrum;
  const perMoment = FRAMES_PER_SECOND / MOMENTS_PER_SECOND;
  const groups = Math.max(1, Math.round(bandCount / 12));
  return Array.from({ length: Math.ceil(frameCount / perMoment) }, (_, moment) => {
    const chord = Array.from({ length: 12 }, () => 0);
    const timbre = Array.from({ length: Math.ceil(bandCount / groups) }, () => 0);
    const [from, to] = [Math.round(moment * perMoment), Math.min(frameCount, Math.round((moment + 1) * perMoment))];
    for (let frame = from; frame < to; frame += 1)
      for (let band = 0; band < bandCount; band += 1) {
        const group = Math.floor(band / groups);
        timbre[group] = timbre[group]! + bands[frame * bandCount + band]!;
      }
    const end = Math.min(chromaCount, Math.ceil(to / PITCH_STRIDE));
    for (let group = Math.floor(from / PITCH_STRIDE); group < end; group += 1)
      for (let pitch = 0; pitch < 12; pitch += 1) chord[pitch] = chord[pitch]! + chroma[group * 12 + pitch]!;
    return { chord, timbre };
  });
}

function noveltyOf(moments: readonly Moment[], energy: readonly number[]): number[] {
  const alike = (a: number, b: number) => {
    const [one, other] = [moments[a]!, moments[b]!];
    const louder = Math.abs((energy[a] ?? 0) - (energy[b] ?? 0));
    return likeness(one.chord, other.chord) + 2 * likeness(one.timbre, other.timbre) - 2 * louder;
  };
  return moments.map((_, centre) => {
    let [sum, weights] = [0, 0];
    for (let by = -KERNEL; by < KERNEL; by += 1)
      for (let to = -KERNEL; to < KERNEL; to += 2) {
        const [a, b] = [centre + by, centre + to];
        if (a < 0 || b < 0 || a >= moments.length || b >= moments.length) continue;
        const weight = Math.exp(-((by * by + to * to) / (KERNEL * KERNEL)));
        sum += alike(a, b) * weight * (by < 0 === to < 0 ? 1 : -1);
        weights += weight;
      }
    return weights > 0 ? sum / weights : 0;
  });
}

function peaksOf(novelty: readonly number[]): number[] {
  const mean = novelty.reduce((sum, value) => sum + value, 0) / Math.max(1, novelty.length);
  const deviation = Math.sqrt(
    novelty.reduce((sum, value) => sum + (value - mean) ** 2, 0) / Math.max(1, novelty.length),
  );
  const reach = KERNEL / 2;
  return novelty.flatMap((value, at) => {
    if (at < reach || at >= novelty.length - reach || value < mean + NOVELTY * deviation) return [];
    for (let by = -reach; by <= reach; by += 1) {
      const other = novelty[at + by] ?? -Infinity;
      if (other > value || (other === value && by < 0)) return [];
    }
    return [at];
  });
}

function labelled(
  spans: readonly { startMs: number; endMs: number }[],
  moments: readonly Moment[],
  energy: readonly number[],
): Section[] {
  const part = <T>(values: readonly T[], { startMs, endMs }: { startMs: number; endMs: number }) =>
    values.slice(
      Math.floor((startMs * MOMENTS_PER_SECOND) / 1000),
      Math.max(1, Math.floor((endMs * MOMENTS_PER_SECOND) / 1000)),
    );
  const sums = (vectors: readonly number[][]) =>
    (vectors[0] ?? []).map((_, at) => vectors.reduce((sum, vector) => sum + vector[at]!, 0));
  const known: { label: string; chord: number[]; timbre: number[]; energy: number }[] = [];
  return spans.map((span, index) => {
    const within = part(energy, span);
    const level = within.reduce((sum, value) => sum + value, 0) / Math.max(1, within.length);
    const chord = sums(part(moments, span).map((moment) => moment.chord));
    const timbre = sums(part(moments, span).map((moment) => moment.timbre));
    const same = known.find(
      (one) =>
        likeness(one.chord, chord) > ALIKE &&
        likeness(one.timbre, timbre) > ALIKE &&
        Math.abs(one.energy - level) < 0.12,
    );
    const label = same?.label ?? named(level, index, spans.length, known);
    // What is like the opening does not open anything.
    if (!same && label !== OPENING) known.push({ label, chord, timbre, energy: level });
    return { ...span, label, energy: Math.round(level * 100) / 100 };
  });
}

const OPENING = 'quiet opening';

/** Told apart by a letter when several of one energy differ otherwise. */
function named(level: number, index: number, count: number, known: readonly { readonly label: string }[]): string {
  if (count > 1 && index === 0 && level < 0.55) return OPENING;
  if (count > 1 && index === count - 1 && level < 0.55) return 'quiet ending';
  const word = level < 0.4 ? 'quiet' : level < 0.72 ? 'middle' : 'full';
  const others = known.filter(({ label }) => label.startsWith(word) && !label.includes(' ')).length;
  return others === 0 ? word : `${word} ${others + 1}`;
}

/** The moment of the list that lies nearest; the moment itself when the list is empty. */
function nearest(momentsMs: readonly number[], atMs: number): number {
  return momentsMs.reduce(
    (best, moment) => (Math.abs(moment - atMs) < Math.abs(best - atMs) ? moment : best),
    momentsMs[0] ?? atMs,
  );
}
