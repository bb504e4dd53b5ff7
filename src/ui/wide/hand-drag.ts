import { mapped } from '../../core/frame/matrix';
import { isWithin, type LayerSight, type ScreenPoint } from '../../core/frame/layer-sight';
import type { GuideBox } from '../../core/guides/guides';
import { boundsOf, valueNow, type OwnSize } from '../../core/layers/stand';
import type { LayerId } from '../../core/show/ids';
import type { Layer } from '../../core/show/layer';

/** A corner or a side of a box, by where it lies on the unit square. */
export interface Handle {
  readonly u: 0 | 0.5 | 1;
  readonly v: 0 | 0.5 | 1;
}

export const CORNERS: readonly Handle[] = [
  { u: 0, v: 0 },
  { u: 1, v: 0 },
  { u: 1, v: 1 },
  { u: 0, v: 1 },
];
export const SIDES: readonly Handle[] = [
  { u: 0.5, v: 0 },
  { u: 1, v: 0.5 },
  { u: 0.5, v: 1 },
  { u: 0, v: 0.5 },
];

/** Where a spot of a layer's own unit square is seen. */
export function seenAt({ toFrame }: LayerSight, u: number, v: number): ScreenPoint {
  const { x, y } = mapped(toFrame, u, v);
  return { x, y };
}

/**
 * A size after a corner or a side was pulled to a spot of the box's own unit square; it grows about its middle.
 *
 * @param linked both sides change alike when a corner is pulled
 */
export function pulledSize(
  size: OwnSize,
  handle: Handle,
  local: ScreenPoint,
  linked: boolean,
): { width: number; height: number } {
  const across = handle.u === 0.5 ? 1 : Math.abs(local.x - 0.5) * 2;
  const down = handle.v === 0.5 ? 1 : Math.abs(local.y - 0.5) * 2;
  if (handle.u === 0.5 || handle.v === 0.5 || !linked)
    return { width: size.width * across, height: size.height * down };
  // By how far the hand is from the middle, along the way to the corner.
  const both = Math.max(0.001, (across + down) / 2);
  return { width: size.width * both, height: size.height * both };
}

/** The angle of a hand about a point, clockwise as seen, in degrees. */
export function angleAbout(centre: ScreenPoint, hand: ScreenPoint, frameAspect: number): number {
  return (Math.atan2(hand.y - centre.y, (hand.x - centre.x) * frameAspect) * 180) / Math.PI;
}

/** The difference of two angles, the short way round. */
export function turnBetween(from: number, to: number): number {
  return ((((to - from + 180) % 360) + 360) % 360) - 180;
}

/** A turn that is nearly upright, level or half way between is taken as that. */
export function caughtTurn(degrees: number, reach = 2.5): number {
  const near = Math.round(degrees / 45) * 45;
  return Math.abs(degrees - near) < reach ? near : degrees;
}

/**
 * What a click can mean, the likeliest first: of the layers under it, those nearest to the eye first, and of a group first the whole, then what in it was hit.
 */
export function underHand(
  sights: readonly LayerSight[],
  point: ScreenPoint,
  isFree: (sight: LayerSight) => boolean,
): LayerId[] {
  const byId = new Map(sights.map((sight) => [sight.layer.id, sight]));
  const found: LayerId[] = [];
  const add = (id: LayerId) => {
    if (!found.includes(id)) found.push(id);
  };
  for (const sight of [...sights].reverse()) {
    if (sight.layer.kind === 'group' || !isFree(sight) || !isWithin(sight, point)) continue;
    const above: LayerId[] = [];
    for (let group = sight.group; group; group = byId.get(group.id)?.group ?? null) above.unshift(group.id);
    for (const id of above) add(id);
    add(sight.layer.id);
  }
  return found;
}

/** What the next click on the same spot chooses: what lies beneath, round and round. */
export function nextUnderHand(found: readonly LayerId[], chosen: ReadonlySet<LayerId>): LayerId | null {
  if (found.length === 0) return null;
  const at = found.findIndex((id) => chosen.has(id));
  return found[(at + 1) % found.length]!;
}

/** The upright box around several. */
export function boundsOfAll(sights: readonly LayerSight[]): GuideBox | null {
  if (sights.length === 0) return null;
  const boxes = sights.map(boundsOf);
  return {
    left: Math.min(...boxes.map((box) => box.left)),
    top: Math.min(...boxes.map((box) => box.top)),
    right: Math.max(...boxes.map((box) => box.right)),
    bottom: Math.max(...boxes.map((box) => box.bottom)),
  };
}

/** What is cut away from each side of a layer's box at a moment. */
export function cropNow(layer: Layer, offsetMs: number, seenMs: number) {
  const now = (name: 'cropLeft' | 'cropTop' | 'cropRight' | 'cropBottom') => valueNow(layer, name, offsetMs, seenMs);
  return { left: now('cropLeft'), top: now('cropTop'), right: now('cropRight'), bottom: now('cropBottom') };
}

/** How much of a box is cut away when a side of its crop is pulled to a spot; some of it always stays. */
export function pulledCrop(
  crop: { readonly left: number; readonly top: number; readonly right: number; readonly bottom: number },
  side: 'left' | 'top' | 'right' | 'bottom',
  local: ScreenPoint,
): number {
  const least = 0.01;
  const within = (value: number, other: number) => Math.min(1 - other - least, Math.max(0, value));
  if (side === 'left') return within(local.x, crop.right);
  if (side === 'right') return within(1 - local.x, crop.left);
  return side === 'top' ? within(local.y, crop.bottom) : within(1 - local.y, crop.top);
}
