import type { Channel, Key } from '../keys/channel';
import { seedOf } from '../motion/seed';
import { layerId, type AssetId, type LayerId } from '../show/ids';
import type { BoxLayer, GroupLayer } from '../show/layer';
import type { FrameShape } from '../show/show';
import { isMadeAlike } from './made-again';

/** Boxes with pictures on their sides that rise, turn and gather. */
export interface LanternsPlan {
  /** One a box, facing the viewer in the end; the other sides show those that follow. 4…36. */
  readonly pictures: readonly AssetId[];
  readonly shape: LanternShape;
  /** From the first that rises until all have gathered. */
  readonly overMs: number;
  readonly beginMs: number;
  /** Colour of tops and bottoms. */
  readonly colour: string;
}

export type LanternShape = 'stack' | 'ring' | 'arch' | 'wall';
export const LANTERN_SHAPES: readonly LanternShape[] = ['stack', 'ring', 'arch', 'wall'];
export const FEWEST_LANTERNS = 4;
export const MOST_LANTERNS = 36;

export const USUAL_LANTERNS: Omit<LanternsPlan, 'pictures'> = {
  shape: 'arch',
  overMs: 7000,
  beginMs: 300,
  colour: '#c98a0c',
};
/** Of the camera before it draws nearer, in heights of the frame. */
const CAMERA = 3.1;
/** Of an arch: from its feet to its crown, in heights of the frame. */
const RISE = 0.62;
/** How long they are looked at when they have gathered. */
const LOOKED_AT_MS = 3000;

export function lanternsNeedMs({ beginMs, overMs }: LanternsPlan): number {
  return beginMs + overMs + LOOKED_AT_MS;
}

/** Where a box ends: in heights of the frame from its middle, and how it is turned about its upright axis. */
interface Spot {
  readonly x: number;
  readonly y: number;
  readonly z: number;
  readonly tiltYDegrees: number;
}

/**
 * The lanterns as layers: a group with a space and a camera that draws a little nearer, in it the boxes. A ring also goes round as one.
 *
 * @throws {RangeError} for fewer than 4 pictures or more than 36
 */
export function lanterns(plan: LanternsPlan, frame: Pick<FrameShape, 'widthPx' | 'heightPx'>, id: LayerId): GroupLayer {
  const count = plan.pictures.length;
  if (count < FEWEST_LANTERNS || count > MOST_LANTERNS)
    throw new RangeError(`there are ${FEWEST_LANTERNS} to ${MOST_LANTERNS} lanterns, got ${count}`);
  const aspect = frame.widthPx / frame.heightPx;
  const { spots, side, radius = 0 } = gathered(plan.shape, count, aspect);
  const boxes = spots.map((spot, index) => box(plan, index, spot, side, aspect, radius, `${id}-${index + 1}`));
  const end = plan.beginMs + plan.overMs;
  const ring: GroupLayer = {
    kind: 'group',
    id: layerId(`${id}-ring`),
    name: 'ring',
    channels: {
      tiltYDegrees: { keys: [key(plan.beginMs, -150), key(end, 0, 'linear'), stretched(1, 24)] },
      tiltXDegrees: -8,
      z: -radius,
    },
    layers: boxes,
  };
  return {
    kind: 'group',
    id,
    name: 'Lanterns',
    space: { distance: { keys: [key(plan.beginMs, CAMERA), key(end, 2.6), stretched(1, 2.45)] } },
    layers: plan.shape === 'ring' ? [ring] : boxes,
  };
}

/** The plan of lanterns that are as they were made in a frame of that shape; null for any other group, and for lanterns whose parts were changed by hand. */
export function lanternsPlanOf(
  group: GroupLayer,
  frame: Pick<FrameShape, 'widthPx' | 'heightPx'>,
): LanternsPlan | null {
  const distance = group.space?.distance;
  const [inner] = group.layers;
  const boxes = inner?.kind === 'group' ? inner.layers : group.layers;
  if (typeof distance !== 'object' || boxes.length < FEWEST_LANTERNS || boxes.length > MOST_LANTERNS) return null;
  const [begins, ends] = distance.keys.map(({ at }) => (at.tied === 'start' ? at.ms : NaN));
  const pictures = boxes.flatMap((layer) =>
    layer.kind === 'box' && layer.faces.front?.kind === 'picture' ? [layer.faces.front.assetId] : [],
  );
  const lid = boxes[0]!.kind === 'box' ? boxes[0]!.faces.top : undefined;
  if (pictures.length < boxes.length || lid?.kind !== 'colour' || typeof lid.colour !== 'string') return null;
  const plan = { pictures, beginMs: begins!, overMs: ends! - begins!, colour: lid.colour };
  return (
    LANTERN_SHAPES.map((shape) => ({ ...plan, shape })).find((tried) =>
      isMadeAlike(lanterns(tried, frame, group.id), group),
    ) ?? null
  );
}

function box(
  plan: LanternsPlan,
  index: number,
  spot: Spot,
  side: number,
  aspect: number,
  awayBy: number,
  id: string,
): BoxLayer {
  const { pictures, beginMs, overMs } = plan;
  const face = (by: number) => ({ kind: 'picture', assetId: pictures[(index + by) % pictures.length]! }) as const;
  const lid = { kind: 'colour', colour: plan.colour } as const;
  const random = (what: string) => seedOf(`lantern ${index} ${what}`, 1);
  // One after the other they rise, and all come to rest at about the same time.
  const start = beginMs + (0.34 * overMs * index) / pictures.length;
  const up = start + 0.36 * overMs;
  const there = beginMs + overMs * (0.86 + (0.14 * index) / pictures.length);
  const float = floating(index, pictures.length, aspect);
  const path = (from: number, over: number, to: number): Channel => ({
    smooth: true,
    keys: [key(start, from, 'linear'), key(up, over, 'linear'), key(there, to)],
  });
  const spins = (random('spin') < 0.5 ? -1 : 1) * (random('twice') < 0.4 ? 450 : 270);
  return {
    kind: 'box',
    id: layerId(id),
    name: `lantern ${index + 1}`,
    depth: side,
    faces: { front: face(0), right: face(1), back: face(2), left: face(3), top: lid, bottom: lid },
    channels: {
      x: path(0.5 + (float.x * 0.8) / aspect, 0.5 + float.x / aspect, 0.5 + spot.x / aspect),
      y: path(0.5 + (0.54 + side) * (1 - (float.z - awayBy) / CAMERA), 0.5 + float.y, 0.5 + spot.y),
      z: path(float.z, float.z, spot.z),
      width: side / aspect,
      height: side,
      tiltYDegrees: { keys: [key(start, spot.tiltYDegrees + spins), key(there, spot.tiltYDegrees)] },
      tiltXDegrees: { keys: [key(start, 30 * (random('lean') - 0.5)), key(there, 0)] },
    },
  };
}

/** Where a box hangs half way: on a grid whose neighbours stand at different depths, so that boxes which turn do not run into each other. */
function floating(index: number, count: number, aspect: number): Omit<Spot, 'tiltYDegrees'> {
  const across = Math.ceil(Math.sqrt(count * aspect * 1.3));
  const down = Math.ceil(count / across);
  // Through the grid in steps that have no divisor in common with it, so that those which rise together hang apart.
  const cell = (index * steady(across * down)) % (across * down);
  const [column, row] = [cell % across, Math.floor(cell / across)];
  return {
    x: ((column + 0.5) / across - 0.5) * aspect * 0.95,
    y: ((row + 0.5) / down - 0.5) * 0.75,
    z: -0.85 + 0.38 * ((column + 2 * row) % 4),
  };
}

/** A step near the golden section of a count that has no divisor in common with it. */
function steady(count: number): number {
  const divides = (a: number, b: number): number => (b === 0 ? a : divides(b, a % b));
  let step = Math.max(1, Math.round(count * 0.618));
  while (divides(count, step) > 1) step += 1;
  return step;
}

/** Where all of them end, and how large they are: as a share of the frame's height. */
function gathered(
  shape: LanternShape,
  count: number,
  aspect: number,
): { spots: Spot[]; side: number; radius?: number } {
  switch (shape) {
    case 'wall': {
      const across = Math.ceil(Math.sqrt(count * aspect * 0.8));
      const down = Math.ceil(count / across);
      const step = Math.min((0.88 * aspect) / across, 0.82 / down);
      return { side: step * 0.9, spots: rows(evenly(count, down), step, step) };
    }
    case 'stack': {
      // The fewest rows, each one longer than the one above it, that hold all.
      let down = 1;
      while ((down * (down + 1)) / 2 < count) down += 1;
      const lengths: number[] = [];
      for (let row = down, left = count; left > 0; row -= 1) {
        lengths.unshift(Math.min(row, left));
        left -= row;
      }
      const step = Math.min((0.86 * aspect) / Math.max(...lengths), 0.84 / lengths.length);
      return { side: step * 0.97, spots: rows(lengths, step, step) };
    }
    case 'ring': {
      const levels = Math.ceil(count / 12);
      const lengths = evenly(count, levels);
      const sideOf = (across: number) =>
        Math.min(0.3, (2 * Math.PI * across) / Math.max(...lengths) / 1.35, 0.55 / levels);
      let radius = Math.min(0.72, 0.44 * aspect);
      // Those at the sides stand as far behind the foremost as they stand aside, and turn their corners outwards.
      while ((radius + 0.71 * sideOf(radius)) * (2.5 / (2.5 + radius)) > 0.48 * aspect) radius *= 0.98;
      const side = sideOf(radius);
      const spots = lengths.flatMap((length, level) =>
        Array.from({ length }, (_, at): Spot => {
          const angle = ((at + (level % 2) / 2) / length) * 2 * Math.PI;
          return {
            x: radius * Math.sin(angle),
            y: (level - (levels - 1) / 2) * side * 1.12,
            z: radius * Math.cos(angle),
            tiltYDegrees: (angle * 180) / Math.PI,
          };
        }),
      );
      return { side, spots, radius };
    }
    case 'arch': {
      const courses = count > 14 ? 2 : 1;
      const lengths = courses === 1 ? [count] : [Math.ceil(count * 0.56), count - Math.ceil(count * 0.56)];
      const widest = Math.min(0.25, 0.34 * aspect);
      const rx = Math.min(0.38 * aspect, 0.7, 0.49 * aspect - 0.44 * widest);
      const step = Math.min(widest, ((rx + RISE) / 2) * (Math.PI / (lengths[0]! - 1)));
      const side = step * 0.88;
      const spots = lengths.flatMap((length, course) =>
        Array.from({ length }, (_, at): Spot => {
          const angle = Math.PI * (1 - at / Math.max(1, length - 1));
          const inwards = course * side * 1.15;
          return {
            x: (rx - inwards) * Math.cos(angle),
            y: 0.33 - (RISE - inwards) * Math.sin(angle),
            z: 0,
            tiltYDegrees: -14 * Math.cos(angle),
          };
        }),
      );
      return { side, spots };
    }
  }
}

/** So many in rows as alike as can be, the longer ones below. */
function evenly(count: number, rowCount: number): number[] {
  return Array.from({ length: rowCount }, (_, row) => Math.floor((count + row) / rowCount));
}

function rows(lengths: readonly number[], stepX: number, stepY: number): Spot[] {
  return lengths.flatMap((length, row) =>
    Array.from({ length }, (_, at) => ({
      x: (at - (length - 1) / 2) * stepX,
      y: (row - (lengths.length - 1) / 2) * stepY,
      z: 0,
      tiltYDegrees: 0,
    })),
  );
}

function key(ms: number, value: number, easing?: Key['easing']): Key {
  return { at: { tied: 'start', ms: Math.round(ms) }, value, ...(easing && { easing }) };
}

function stretched(share: number, value: number): Key {
  return { at: { tied: 'stretch', share }, value };
}
