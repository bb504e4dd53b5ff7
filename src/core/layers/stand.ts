import { valueAt } from '../keys/channel';
import { factsInUse } from '../motion/crop';
import { sightOf, type LayerSight, type ScreenPoint } from '../frame/layer-sight';
import type { SlideSurroundings } from '../frame/slide-moment';
import type { LayerId } from '../show/ids';
import type { Channels, Layer } from '../show/layer';
import { layerIn, withChanged } from '../show/pile';
import type { FactsById } from '../show/asset-facts';
import type { FrameShape } from '../show/show';
import type { Values } from './column-keys';

/** Farther than this from where it is wanted, in shares of the frame, is not there: the goal lies behind the eye, or nothing of the layer can be moved there. */
const NEAR_ENOUGH = 1e-3;
const MOST_STEPS = 8;

/**
 * Where a layer's `x` and `y` have to be for its centre to be seen at a point, in whatever group, tether or space it stands. By Newton's method on where it is
 * seen, which needs one step where nothing is tilted.
 *
 * @returns null when it cannot get there
 */
export function placedAt(
  around: SlideSurroundings,
  id: LayerId,
  offsetMs: number,
  wanted: ScreenPoint,
): { x: number; y: number } | null {
  const layer = layerIn(around.slide.layers, id);
  if (!layer) return null;
  const seen = (x: number, y: number) => sightOf(standing(around, id, { x, y }), id, offsetMs)?.centre ?? null;
  const at = (channel: keyof Channels) => valueNow(layer, channel, offsetMs, around.seenMs);
  let [x, y] = [at('x'), at('y')];
  for (let step = 0; step < MOST_STEPS; step += 1) {
    const here = seen(x, y);
    if (!here) return null;
    const [ex, ey] = [wanted.x - here.x, wanted.y - here.y];
    if (Math.hypot(ex, ey) < 1e-9) break;
    const little = 1e-4;
    const [right, down] = [seen(x + little, y), seen(x, y + little)];
    if (!right || !down) return null;
    const [a, b] = [(right.x - here.x) / little, (down.x - here.x) / little];
    const [c, d] = [(right.y - here.y) / little, (down.y - here.y) / little];
    const determinant = a * d - b * c;
    if (Math.abs(determinant) < 1e-9) return null;
    x += (d * ex - b * ey) / determinant;
    y += (a * ey - c * ex) / determinant;
  }
  const there = seen(x, y);
  return there && Math.hypot(there.x - wanted.x, there.y - wanted.y) < NEAR_ENOUGH ? { x, y } : null;
}

/** A slide with a layer that stands still somewhere: for asking where it would be seen. */
function standing(around: SlideSurroundings, id: LayerId, channels: Partial<Channels>): SlideSurroundings {
  const layers = withChanged(around.slide.layers, new Map([[id, channels]]), (layer, more) => ({
    ...layer,
    channels: { ...layer.channels, ...more },
  }));
  return { ...around, slide: { ...around.slide, layers } };
}

/** A channel's value at an offset, its usual one where the layer does without it. */
export function valueNow(layer: Layer, name: keyof Channels, offsetMs: number, seenMs: number): number {
  const channel = layer.channels?.[name];
  if (channel !== undefined) return valueAt(channel, offsetMs, seenMs);
  if (name === 'x' || name === 'y') return 0.5;
  return name === 'width' || name === 'height' || name === 'opacity' ? 1 : 0;
}

/** A layer's own size, in shares of the frame that holds it, before it is turned or tilted. */
export interface OwnSize {
  readonly width: number;
  readonly height: number;
  /** Which sides it says; the other follows its picture's shape. */
  readonly says: 'both' | 'width' | 'height';
}

/**
 * A layer's size as hands take it. A picture that fills the frame by itself is taken as the print it is, at the largest size at which all of it is within the
 * frame; from then on it says its width and keeps its own shape. One whose framings were set keeps the frame's shape, and its framings.
 */
export function sizeNow(
  layer: Layer,
  facts: FactsById,
  frame: Pick<FrameShape, 'widthPx' | 'heightPx'>,
  offsetMs: number,
  seenMs: number,
): OwnSize {
  const { width, height } = layer.channels ?? {};
  const frameAspect = frame.widthPx / frame.heightPx;
  const aspect = ownAspect(layer, facts) ?? frameAspect;
  const now = (name: 'width' | 'height') => valueNow(layer, name, offsetMs, seenMs);
  if (width !== undefined && height !== undefined) return { width: now('width'), height: now('height'), says: 'both' };
  if (height !== undefined)
    return { width: (now('height') * aspect) / frameAspect, height: now('height'), says: 'height' };
  if (width !== undefined) return { width: now('width'), height: (now('width') * frameAspect) / aspect, says: 'width' };
  // A framing that was set has the frame's shape: in a box of another it would be stretched.
  const isFramed = layer.kind === 'picture' && layer.move.kind === 'set';
  if (isFramed || ownAspect(layer, facts) === null) return { width: 1, height: 1, says: 'both' };
  const fitted = Math.min(1, aspect / frameAspect);
  return { width: fitted, height: (fitted * frameAspect) / aspect, says: 'width' };
}

/** The values that give a layer another size. */
export function sizeValues(size: OwnSize, width: number, height: number): Values {
  const [w, h] = [Math.max(0.001, width), Math.max(0.001, height)];
  const isShape = Math.abs(w / h - size.width / size.height) < 1e-9;
  if (size.says !== 'both' && isShape)
    return size.says === 'width' ? { 'channels/width': w } : { 'channels/height': h };
  return { 'channels/width': w, 'channels/height': h };
}

function ownAspect(layer: Layer, facts: FactsById): number | null {
  if (!('assetId' in layer)) return null;
  const known = factsInUse(layer, facts.get(layer.assetId));
  return known && known.kind !== 'sound' ? known.widthPx / known.heightPx : null;
}

/** The upright box around where a layer is seen. */
export function boundsOf({ corners }: LayerSight): { left: number; top: number; right: number; bottom: number } {
  const [xs, ys] = [corners.map((corner) => corner.x), corners.map((corner) => corner.y)];
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
}
