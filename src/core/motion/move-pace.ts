import { curveOf } from '../keys/easing';
import type { MovePace } from '../show/layer';
import type { PlannedMove } from './automatic-move';
import { betweenFramings, type Framing } from './framing';

/**
 * Where a move is. Between its rests it goes from its first framing to its last by its easing; a framing on the way is passed without a stop: the way is a
 * cubic Hermite spline whose direction there is that from first to last.
 *
 * @param offsetMs since the picture is first seen
 * @param seenMs how long it is seen
 */
export function framingAt({ first, last, pace }: Omit<PlannedMove, 'name'>, offsetMs: number, seenMs: number): Framing {
  const [beforeMs, afterMs] = restsOf(pace, seenMs);
  const goingMs = seenMs - beforeMs - afterMs;
  const time = goingMs > 0 ? Math.min(1, Math.max(0, (offsetMs - beforeMs) / goingMs)) : offsetMs < beforeMs ? 0 : 1;
  const progress = curveOf(pace?.easing ?? 'settle')(time);
  if (!pace?.middle) return betweenFramings(first, last, progress);
  return along(first, pace.middle.framing, last, pace.middle.at, progress);
}

/** The rests of a move; where they are longer than it is seen they share it. */
export function restsOf(pace: MovePace | undefined, seenMs: number): readonly [beforeMs: number, afterMs: number] {
  const [before, after] = [pace?.beforeMs ?? 0, pace?.afterMs ?? 0];
  const scale = before + after > seenMs ? seenMs / (before + after) : 1;
  return [before * scale, after * scale];
}

/** The narrowest framing a move comes to, for what depends on how far pictures are enlarged. */
export function narrowestWidth({ first, last, pace }: Omit<PlannedMove, 'name'>): number {
  return Math.min(first.width, last.width, pace?.middle?.framing.width ?? Infinity);
}

/** Sizes go by their logarithm, as in a move without a middle. */
function along(first: Framing, middle: Framing, last: Framing, at: number, progress: number): Framing {
  const early = progress < at;
  const [from, to] = early ? [first, middle] : [middle, last];
  const [begin, span] = early ? [0, at] : [at, 1 - at];
  const t = (progress - begin) / span;
  const part = (of: (framing: Framing) => number): number => {
    const through = (of(last) - of(first)) * span;
    // At the ends the way goes straight for the middle.
    const [slopeFrom, slopeTo] = early ? [of(middle) - of(first), through] : [through, of(last) - of(middle)];
    const [t2, t3] = [t * t, t * t * t];
    return (
      (2 * t3 - 3 * t2 + 1) * of(from) +
      (t3 - 2 * t2 + t) * slopeFrom +
      (-2 * t3 + 3 * t2) * of(to) +
      (t3 - t2) * slopeTo
    );
  };
  return {
    x: part((framing) => framing.x),
    y: part((framing) => framing.y),
    width: Math.exp(part((framing) => Math.log(framing.width))),
    height: Math.exp(part((framing) => Math.log(framing.height))),
    turnDegrees: part((framing) => framing.turnDegrees),
  };
}
