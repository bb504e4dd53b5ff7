import type { SlideId } from '../show/ids';
import type { Slide } from '../show/show';
import type { ShowBeat } from '../sound/show-beats';
import type { FittedLength } from './fit-to-music';
import { frameAtMoment, momentOfFrame } from './frames';
import type { FrameRate } from './frame-rate';

export interface BeatFit {
  readonly slides: readonly Slide[];
  /** Rising; to the end of the music at least, those that begin nothing among them. */
  readonly beats: readonly ShowBeat[];
  /** Where the show is to end; null: when the pictures are through, by `idealMs`. */
  readonly endMs: number | null;
  /** How long a picture with one share stays, where nothing else asks for more or less; with an end, the end decides. */
  readonly idealMs: number | null;
  readonly rate: FrameRate;
  keepsLength(slide: Slide): boolean;
  shareOf(slide: Slide): number;
  leastOf(slide: Slide): number;
  /** 0…1 at a moment; energetic parts get shorter slides. */
  energyAt(momentMs: number): number;
  /** So long after a slide begins is what is to meet the beat: half of its transition, or 0. */
  meetsAfterMs(slide: Slide): number;
}

export type BeatFitResult =
  | {
      readonly ok: true;
      readonly lengths: readonly FittedLength[];
      /** Seams that lie on no beat, because of what slides must keep or need. */
      readonly offBeat: readonly SlideId[];
    }
  | { readonly ok: false; readonly reason: 'no-slides' | 'no-beats' | 'music-too-short'; readonly shortestMs: number };

/** Slides in the loudest parts are shorter than in the quietest by this. */
const LIVELY = 0.8;
/** What it is worth, in squared logarithms of a slide’s length, that a seam lies on a bar or where a section begins. */
const WORTH = { nothing: -0.1, beat: 0, bar: 0.06, section: 0.25 };
/** Seams are looked for among so many beats on both sides of where they would lie by shares alone; among more when that is not enough. */
const BANDS = [32, 128, 512];
/** A slide longer or shorter than its fair share by more than this is not tried, unless it must be. */
const LONGEST_TIMES = 4;

/** Slides that end on one seam: those that keep their length, and the free one after them. */
interface Group {
  readonly heldMs: number;
  readonly free: Slide;
  readonly share: number;
  readonly leastMs: number;
  /** What is to meet the beat lies so long after the group’s end. */
  readonly meetsMs: number;
}

/**
 * Lengths that let seams fall on beats, bars and section borders rather, lingering pictures get more and energetic parts get shorter slides, none under what it
 * needs, and the show end where it is to end. The best assignment of seams to beats by dynamic programming: a slide’s cost is the squared logarithm of its length
 * against its fair share, less what its seam is worth.
 */
export function fitToBeats(fit: BeatFit): BeatFitResult {
  const { slides, beats, endMs, rate } = fit;
  const groups = groupsOf(fit);
  const restMs = heldAfterLast(fit);
  if (groups.length === 0) return { ok: false, reason: 'no-slides', shortestMs: restMs };
  if (beats.length < 2) return { ok: false, reason: 'no-beats', shortestMs: 0 };
  const shortestMs = groups.reduce((sum, group) => sum + group.heldMs + group.leastMs, restMs);
  if (endMs !== null && endMs < shortestMs) return { ok: false, reason: 'music-too-short', shortestMs };

  const course = courseOf(fit, groups, restMs);
  const places = endMs === null ? extended(beats, course.at(-1)!.seamMs * 1.3 + 10_000) : beats;
  const lastMs = endMs === null ? null : endMs - restMs;
  let seams: number[] | null = null;
  for (const band of BANDS) seams ??= seamsOn(places, groups, course, lastMs, band);
  // Where beats are too far apart for what slides need, fair shares are better than none.
  const wanted = seams ?? course.map(({ seamMs }) => seamMs);
  return written(slides, groups, wanted, lastMs, restMs, places, rate, fit);
}

function groupsOf({ slides, keepsLength, shareOf, leastOf, meetsAfterMs }: BeatFit): Group[] {
  const groups: Group[] = [];
  let heldMs = 0;
  slides.forEach((slide, index) => {
    if (keepsLength(slide)) {
      heldMs += slide.lengthMs;
      return;
    }
    const next = slides[index + 1];
    groups.push({
      heldMs,
      free: slide,
      share: shareOf(slide),
      leastMs: leastOf(slide),
      meetsMs: next ? meetsAfterMs(next) : 0,
    });
    heldMs = 0;
  });
  return groups;
}

function heldAfterLast({ slides, keepsLength }: BeatFit): number {
  const last = slides.findLastIndex((slide) => !keepsLength(slide));
  return slides.slice(last + 1).reduce((sum, slide) => sum + slide.lengthMs, 0);
}

/** Where each group would end, and how long its free slide would be, by shares and energy alone. */
interface Fair {
  readonly seamMs: number;
  readonly idealMs: number;
}

function courseOf(fit: BeatFit, groups: readonly Group[], restMs: number): Fair[] {
  const { endMs, idealMs, energyAt } = fit;
  const meanEnergy = meanOf(energyAt, fit.beats);
  const along = (unitMs: number): Fair[] => {
    let atMs = 0;
    return groups.map(({ heldMs, share, leastMs }) => {
      atMs += heldMs;
      const lively = 1 + LIVELY * (meanEnergy - energyAt(atMs + (unitMs * share) / 2));
      const ideal = Math.max(leastMs, unitMs * share * lively);
      atMs += ideal;
      return { seamMs: atMs, idealMs: ideal };
    });
  };
  if (endMs === null) return along(idealMs ?? 5000);
  // The unit with which they end together, by halving: the longer it is, the later they end.
  let [low, high] = [1, endMs];
  for (let turn = 0; turn < 40; turn += 1) {
    const middle = (low + high) / 2;
    if (along(middle).at(-1)!.seamMs < endMs - restMs) low = middle;
    else high = middle;
  }
  return along((low + high) / 2);
}

/** Of the music as a whole, so that a show is as long as its pace says. */
function meanOf(energyAt: (momentMs: number) => number, beats: readonly ShowBeat[]): number {
  return beats.reduce((sum, beat) => sum + energyAt(beat.atMs), 0) / beats.length;
}

/** Beats go on at their last tempo where the music is through before the pictures are. */
function extended(beats: readonly ShowBeat[], toMs: number): ShowBeat[] {
  const all = [...beats];
  const gapMs = Math.max(200, beats.at(-1)!.atMs - beats.at(-2)!.atMs);
  while (all.at(-1)!.atMs < toMs) all.push({ atMs: all.at(-1)!.atMs + gapMs, begins: 'beat', bar: 0, beat: 0 });
  return all;
}

/**
 * The cheapest beats for the groups to end on.
 *
 * @param lastMs where the last one ends, on a beat or not; null: on a beat
 * @param band how many beats to both sides of its fair place a seam may lie
 * @returns null when no assignment gives every slide what it needs
 */
function seamsOn(
  beats: readonly ShowBeat[],
  groups: readonly Group[],
  course: readonly Fair[],
  lastMs: number | null,
  band: number,
): number[] | null {
  let before: { first: number; costs: Float64Array } | null = null;
  const bands: { first: number; came: Int32Array }[] = [];
  const moments = beats.map((beat) => beat.atMs);
  for (const [index, group] of groups.entries()) {
    const { seamMs, idealMs } = course[index]!;
    const isLast = index === groups.length - 1 && lastMs !== null;
    const centre = indexNear(moments, seamMs);
    const first = isLast ? 0 : Math.max(0, centre - band);
    const end = isLast ? 1 : Math.min(beats.length, centre + band + 1);
    const costs = new Float64Array(end - first).fill(Infinity);
    const came = new Int32Array(end - first).fill(-1);
    const startsBefore = before ? before.costs.length : 1;
    for (let to = first; to < end; to += 1) {
      const toMs = isLast ? lastMs : moments[to]! - group.meetsMs;
      const worth = isLast ? 0 : WORTH[beats[to]!.begins];
      for (let from = startsBefore - 1; from >= 0; from -= 1) {
        const beforeCost = before ? before.costs[from]! : 0;
        if (beforeCost === Infinity) continue;
        const fromMs = (before ? moments[before.first + from]! - groups[index - 1]!.meetsMs : 0) + group.heldMs;
        const lengthMs = toMs - fromMs;
        if (lengthMs < group.leastMs) continue;
        if (lengthMs > LONGEST_TIMES * idealMs && costs[to - first]! < Infinity) break;
        const off = Math.log(lengthMs / idealMs);
        const cost = beforeCost + off * off - worth;
        if (cost < costs[to - first]!) {
          costs[to - first] = cost;
          came[to - first] = from;
        }
      }
    }
    bands.push({ first, came });
    before = { first, costs };
  }
  let at = before!.costs.indexOf(Math.min(...before!.costs));
  if (before!.costs[at] === Infinity) return null;
  const seams: number[] = [];
  for (let index = groups.length - 1; index >= 0; index -= 1) {
    const isLast = index === groups.length - 1 && lastMs !== null;
    seams.push(isLast ? lastMs : moments[bands[index]!.first + at]! - groups[index]!.meetsMs);
    at = bands[index]!.came[at]!;
  }
  return seams.reverse();
}

/** Lengths in whole milliseconds, each seam in the frame nearest to its beat. */
function written(
  slides: readonly Slide[],
  groups: readonly Group[],
  seams: readonly number[],
  lastMs: number | null,
  restMs: number,
  beats: readonly ShowBeat[],
  rate: FrameRate,
  { keepsLength }: BeatFit,
): BeatFitResult {
  const lengths: FittedLength[] = [];
  const offBeat: SlideId[] = [];
  const halfFrameMs = (500 * rate.seconds) / rate.frames;
  const moments = beats.filter(({ begins }) => begins !== 'nothing').map((beat) => beat.atMs);
  let atMs = 0;
  let next = 0;
  for (const slide of slides) {
    const group = groups[next];
    if (keepsLength(slide) || !group) {
      // What begins in the middle of a group lies where its lengths put it.
      atMs += slide.lengthMs;
      if (slide !== slides.at(-1) || restMs > 0) offBeat.push(slide.id);
      continue;
    }
    const seamMs = seams[next]!;
    const isLast = next === groups.length - 1;
    const frame = frameAtMoment(seamMs + halfFrameMs, rate);
    const onFrameMs = isLast && lastMs !== null ? Math.round(lastMs) : Math.floor(momentOfFrame(frame, rate) + 1e-6);
    const lengthMs = Math.max(Math.ceil(group.leastMs), onFrameMs - atMs);
    lengths.push({ slideId: slide.id, lengthMs, by: 'music' });
    atMs += lengthMs;
    const metMs = atMs + group.meetsMs;
    if (slide !== slides.at(-1) && Math.abs(moments[indexNear(moments, metMs)]! - metMs) > 30) offBeat.push(slide.id);
    next += 1;
  }
  return { ok: true, lengths, offBeat };
}

/** Index of the value nearest to one; values rise. */
function indexNear(values: readonly number[], value: number): number {
  let low = 0;
  let high = values.length - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (values[middle]! < value) low = middle + 1;
    else high = middle;
  }
  return low > 0 && value - values[low - 1]! < values[low]! - value ? low - 1 : low;
}
