/** An upright box on the frame, in shares of its width and height. */
export interface GuideBox {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** A line that a box was laid onto, or a distance it was made equal to, to be shown. */
export interface GuideLine {
  readonly along: 'x' | 'y';
  /** Where it crosses the frame, in shares. */
  readonly at: number;
  readonly why: GuideReason;
}

export type GuideReason =
  | 'edge of the frame'
  | 'middle of the frame'
  | 'third of the frame'
  | 'safe for titles'
  | 'edge of another'
  | 'middle of another'
  | 'equal gap'
  | 'same size';

/** How far from the frame's edges televisions and halls may cut: SMPTE ST 2046-1, 90 % of either side is safe for titles. */
export const TITLE_SAFE = 0.05;

const OF_THE_FRAME: readonly { at: number; why: GuideReason }[] = [
  { at: 0, why: 'edge of the frame' },
  { at: 1, why: 'edge of the frame' },
  { at: 0.5, why: 'middle of the frame' },
  { at: 1 / 3, why: 'third of the frame' },
  { at: 2 / 3, why: 'third of the frame' },
  { at: TITLE_SAFE, why: 'safe for titles' },
  { at: 1 - TITLE_SAFE, why: 'safe for titles' },
];

export interface Guided {
  /** What the box is to be moved by, beside what the hand moved it. */
  readonly dx: number;
  readonly dy: number;
  readonly lines: readonly GuideLine[];
}

/**
 * Where a box that is moved comes to rest: its sides and its middle on lines of the frame and of other boxes, or with gaps like those between others. The
 * nearest of all that lie within reach; each direction by itself.
 *
 * @param reach in shares of the frame's width and height
 */
export function guidedMove(
  box: GuideBox,
  others: readonly GuideBox[],
  reach: { readonly x: number; readonly y: number },
): Guided {
  const x = caught(spanX(box), others.map(spanX), reach.x);
  const y = caught(spanY(box), others.map(spanY), reach.y);
  return { dx: x.by, dy: y.by, lines: [...lines('x', x), ...lines('y', y)] };
}

/** What a size is caught by: the sizes of others. */
export function guidedSize(
  size: number,
  others: readonly number[],
  reach: number,
): { readonly size: number; readonly caught: boolean } {
  const near = others.filter((other) => Math.abs(other - size) <= reach);
  if (near.length === 0) return { size, caught: false };
  return {
    size: near.reduce((best, other) => (Math.abs(other - size) < Math.abs(best - size) ? other : best)),
    caught: true,
  };
}

interface Span {
  readonly from: number;
  readonly to: number;
}
interface Caught {
  readonly by: number;
  readonly hits: readonly { readonly at: number; readonly why: GuideReason }[];
}

const spanX = ({ left, right }: GuideBox): Span => ({ from: left, to: right });
const spanY = ({ top, bottom }: GuideBox): Span => ({ from: top, to: bottom });
const middle = ({ from, to }: Span) => (from + to) / 2;

function caught(own: Span, others: readonly Span[], reach: number): Caught {
  const goals: { by: number; at: number; why: GuideReason }[] = [];
  const offer = (from: number, at: number, why: GuideReason) => {
    if (Math.abs(at - from) <= reach) goals.push({ by: at - from, at, why });
  };
  for (const { at, why } of OF_THE_FRAME) {
    if (why === 'middle of the frame' || why === 'third of the frame') offer(middle(own), at, why);
    if (why !== 'middle of the frame') for (const side of [own.from, own.to]) offer(side, at, why);
  }
  for (const other of others) {
    for (const side of [own.from, own.to]) for (const at of [other.from, other.to]) offer(side, at, 'edge of another');
    offer(middle(own), middle(other), 'middle of another');
  }
  for (const { from, at } of gapsFor(own, others)) offer(from, at, 'equal gap');
  const best = goals.reduce<number | null>(
    (least, { by }) => (least === null || Math.abs(by) < Math.abs(least) ? by : least),
    null,
  );
  if (best === null) return { by: 0, hits: [] };
  const hits = goals.filter(({ by }) => Math.abs(by - best) < 1e-6);
  // One line is enough for each place, and the first reason is the plainest.
  return { by: best, hits: hits.filter((hit, index) => hits.findIndex((other) => other.at === hit.at) === index) };
}

/** Places where the gap to a neighbour is like that between two others: beside them, or between two. */
function gapsFor(own: Span, others: readonly Span[]): { from: number; at: number }[] {
  const found: { from: number; at: number }[] = [];
  const size = own.to - own.from;
  const inOrder = [...others].sort((one, other) => one.from - other.from);
  for (let index = 0; index + 1 < inOrder.length; index += 1) {
    const [a, b] = [inOrder[index]!, inOrder[index + 1]!];
    const gap = b.from - a.to;
    if (gap <= 0) continue;
    found.push({ from: own.from, at: b.to + gap }, { from: own.to, at: a.from - gap });
    if (gap > size) found.push({ from: own.from, at: a.to + (gap - size) / 2 });
  }
  return found;
}

function lines(along: 'x' | 'y', { hits }: Caught): GuideLine[] {
  return hits.map(({ at, why }) => ({ along, at, why }));
}
