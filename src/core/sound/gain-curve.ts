import type { FadeCurve, LevelPoint } from '../show/placed-sound';
import { gainOfDb, type GainPoint } from './mix-plan';

/** How a sound’s gain goes over its span, as a function of the moment, and the moments at which it bends. */
export interface GainCurve {
  readonly corners: readonly number[];
  at(momentMs: number): number;
}

export interface Fades {
  readonly startMs: number;
  readonly endMs: number;
  readonly inMs: number;
  readonly outMs: number;
  readonly inCurve?: FadeCurve | undefined;
  readonly outCurve?: FadeCurve | undefined;
}

/** In and out, each at most half of the span. */
export function fadeCurve(fades: Fades): GainCurve {
  const lengthMs = fades.endMs - fades.startMs;
  const [inMs, outMs] = [Math.min(fades.inMs, lengthMs / 2), Math.min(fades.outMs, lengthMs / 2)];
  return {
    corners: [fades.startMs, fades.startMs + inMs, fades.endMs - outMs, fades.endMs],
    at(momentMs) {
      const fadeIn = inMs > 0 ? bent(fades.inCurve, (momentMs - fades.startMs) / inMs) : 1;
      const fadeOut = outMs > 0 ? bent(fades.outCurve, (fades.endMs - momentMs) / outMs) : 1;
      return fadeIn * fadeOut;
    },
  };
}

function bent(curve: FadeCurve = 'straight', progress: number): number {
  const share = Math.max(0, Math.min(1, progress));
  if (curve === 'gentle') return 0.5 - 0.5 * Math.cos(Math.PI * share);
  return curve === 'equal' ? Math.sin((Math.PI / 2) * share) : share;
}

/** A level line: straight between its points in decibels, level before the first and after the last. */
export function levelCurve(points: readonly LevelPoint[], startMs: number, endMs: number): GainCurve | null {
  if (points.length === 0) return null;
  const placed = points
    .map(({ from, offsetMs, gainDb }) => ({ atMs: from === 'start' ? startMs + offsetMs : endMs - offsetMs, gainDb }))
    .sort((a, b) => a.atMs - b.atMs);
  return {
    corners: placed.map(({ atMs }) => atMs),
    at(momentMs) {
      const after = placed.findIndex(({ atMs }) => atMs > momentMs);
      if (after === 0) return gainOfDb(placed[0]!.gainDb);
      if (after < 0) return gainOfDb(placed.at(-1)!.gainDb);
      const [from, to] = [placed[after - 1]!, placed[after]!];
      const share = (momentMs - from.atMs) / (to.atMs - from.atMs);
      return gainOfDb(from.gainDb + (to.gainDb - from.gainDb) * share);
    },
  };
}

export interface Stretch {
  readonly startMs: number;
  readonly endMs: number;
}

/** Down under each stretch and back up after it, evenly in decibels; stretches that a short pause parts are one. */
export function duckCurve(
  spoken: readonly Stretch[],
  { db, inMs, outMs }: { readonly db: number; readonly inMs: number; readonly outMs: number },
): GainCurve | null {
  if (db === 0 || spoken.length === 0) return null;
  const stretches = joined(spoken, Math.max(SHORT_PAUSE_MS, inMs + outMs));
  return {
    corners: stretches.flatMap(({ startMs, endMs }) => [startMs - inMs, startMs, endMs, endMs + outMs]),
    at(momentMs) {
      let depth = 0;
      for (const { startMs, endMs } of stretches) {
        const share = momentMs < startMs ? 1 - (startMs - momentMs) / inMs : 1 - Math.max(0, momentMs - endMs) / outMs;
        if (share > depth) depth = share;
      }
      return 10 ** ((-db * depth) / 20);
    },
  };
}

/** Pauses in speech shorter than this do not bring the music back. */
const SHORT_PAUSE_MS = 1200;

function joined(stretches: readonly Stretch[], pauseMs: number): Stretch[] {
  const result: Stretch[] = [];
  for (const stretch of [...stretches].sort((a, b) => a.startMs - b.startMs)) {
    const last = result.at(-1);
    if (last && stretch.startMs - last.endMs < pauseMs)
      result[result.length - 1] = { startMs: last.startMs, endMs: Math.max(last.endMs, stretch.endMs) };
    else result.push(stretch);
  }
  return result;
}

/** Straight lines stay this close to the curve, as a share of its largest value there: less than a tenth of a decibel. */
const CLOSE = 0.01;
const DEEPEST = 7;
/** Where a curve nears silence, a line may lie this far from it. */
const AUDIBLE = 0.002;

/** The product of curves over a span as points with straight lines between, close enough that nobody hears the corners. */
export function pointsOf(curves: readonly GainCurve[], { startMs, endMs }: Stretch): GainPoint[] {
  const valueAt = (momentMs: number) => curves.reduce((product, curve) => product * curve.at(momentMs), 1);
  const corners = [...new Set([startMs, endMs, ...curves.flatMap((curve) => curve.corners)])]
    .filter((atMs) => atMs >= startMs && atMs <= endMs)
    .sort((a, b) => a - b);
  const points: GainPoint[] = [{ atMs: startMs, gain: valueAt(startMs) }];
  const between = (from: GainPoint, to: GainPoint, depth: number): void => {
    const middle = { atMs: (from.atMs + to.atMs) / 2, gain: valueAt((from.atMs + to.atMs) / 2) };
    const off = Math.abs(middle.gain - (from.gain + to.gain) / 2);
    const isClose = off <= CLOSE * middle.gain + AUDIBLE * CLOSE;
    if (depth >= DEEPEST || (isClose && depth > 0)) {
      points.push(to);
      return;
    }
    between(from, middle, depth + 1);
    between(middle, to, depth + 1);
  };
  for (const atMs of corners.slice(1)) {
    const to = { atMs, gain: valueAt(atMs) };
    const from = points.at(-1)!;
    const quarter = valueAt(from.atMs + (atMs - from.atMs) / 4);
    const isLevel = from.gain === to.gain && quarter === to.gain && valueAt((from.atMs + atMs) / 2) === to.gain;
    if (isLevel) points.push(to);
    else between(from, to, 0);
  }
  return points;
}
