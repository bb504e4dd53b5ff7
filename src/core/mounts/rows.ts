import type { Box, Stage } from './design';

/** Boxes in rows of given counts, which fill a part of the frame but for the gaps between them. */
export function rows(
  counts: readonly number[],
  within: { left: number; top: number; right: number; bottom: number },
  gapW: number,
  gapH: number,
): Box[] {
  const height = (within.bottom - within.top - gapH * (counts.length - 1)) / counts.length;
  return counts.flatMap((count, row) => {
    const width = (within.right - within.left - gapW * (count - 1)) / count;
    return Array.from({ length: count }, (_, at) => ({
      x: within.left + width / 2 + at * (width + gapW),
      y: within.top + height / 2 + row * (height + gapH),
      width,
      height,
    }));
  });
}

/** How many stand in each row so that the boxes come out as near a shape as can be. */
export function rowsFor(count: number, aspect: number, wanted: number): number[] {
  let best: number[] = [count];
  let least = Infinity;
  for (let lines = 1; lines <= count; lines += 1) {
    const counts = Array.from({ length: lines }, (_, row) => Math.floor((count + row) / lines));
    const price = counts.reduce((sum, each) => sum + Math.abs(Math.log((aspect * lines) / each / wanted)), 0) / lines;
    if (price < least) [best, least] = [counts, price];
  }
  return best;
}

/** How many stand in each row so that boxes of a shape in them come out as large as can be. */
export function rowsOfLargest(count: number, aspect: number, ratio: number): number[] {
  const heightOf = (counts: readonly number[]) => Math.min(1 / counts.length, aspect / Math.max(...counts) / ratio);
  return Array.from({ length: count }, (_, lines) =>
    Array.from({ length: lines + 1 }, (_row, row) => Math.floor((count + row) / (lines + 1))),
  ).reduce((best, one) => (heightOf(one) > heightOf(best) ? one : best));
}

/** How far the second print is moved from the first, in its own widths and heights. */
const WAYS_TO_LEAN = [
  { across: 0.8, down: 0.1 },
  { across: 0.42, down: 0.3 },
  { across: 0.12, down: 0.78 },
];

/** Two boxes of a shape that lie partly over each other, as large as they can be. */
export function leaning(stage: Stage, ratio: number) {
  // Room for their leaning, which takes more of the frame than they do.
  const [roomW, roomH] = [0.86 * stage.aspect, 0.84];
  const sizes = WAYS_TO_LEAN.map(({ across, down }) => {
    const high = Math.min(roomH / (1 + down), roomW / (ratio * (1 + across)));
    return {
      height: high,
      width: (high * ratio) / stage.aspect,
      dx: (across / 2) * ((high * ratio) / stage.aspect),
      dy: (down / 2) * high,
    };
  });
  return sizes.reduce((best, one) => (one.height > best.height ? one : best));
}
