import type { LayerId } from '../show/ids';
import type { GroupLayer, Layer } from '../show/layer';
import { inverse3, mapped, projected, times4, type Matrix3 } from './matrix';
import { slideMoment, type SlideMoment, type SlideSurroundings } from './slide-moment';
import { facesEye } from './space-order';
import { viewInto, type View } from './view';

export interface ScreenPoint {
  /** Shares of the frame's width and height. */
  readonly x: number;
  readonly y: number;
}

/** Where a layer's box is seen at a moment. */
export interface LayerSight {
  readonly layer: Layer;
  readonly group: GroupLayer | null;
  /** Top left, top right, bottom right, bottom left of the box, as it lies in itself. */
  readonly corners: readonly [ScreenPoint, ScreenPoint, ScreenPoint, ScreenPoint];
  readonly centre: ScreenPoint;
  readonly facesEye: boolean;
  /** Its box (unit square) to shares of the frame. */
  readonly toFrame: Matrix3;
}

/** Where every layer of a slide is seen, masks and hidden ones too, groups before what they hold; without those that reach behind the eye. */
export function sightsAt(around: SlideSurroundings, offsetMs: number): LayerSight[] {
  const moment = slideMoment(around, offsetMs);
  return walk(moment, around.slide.layers, { eye: moment.usualEye, shift: null }, null);
}

/** Where one layer is seen; null when it reaches behind the eye or is not there. */
export function sightOf(around: SlideSurroundings, id: LayerId, offsetMs: number): LayerSight | null {
  return sightsAt(around, offsetMs).find((sight) => sight.layer.id === id) ?? null;
}

function walk(moment: SlideMoment, layers: readonly Layer[], view: View, group: GroupLayer | null): LayerSight[] {
  return layers.flatMap((layer) => {
    const own = moment.poses.box(layer);
    const box = view.shift ? times4(view.shift, own) : own;
    const sight = seenAs(moment, layer, group, projected(box, view.eye), facesEye(box, view.eye));
    if (layer.kind !== 'group') return sight ? [sight] : [];
    const inside = layer.space ? viewInto(moment, layer.space, view) : view;
    return [...(sight ? [sight] : []), ...walk(moment, layer.layers, inside, layer)];
  });
}

function seenAs(
  { around }: SlideMoment,
  layer: Layer,
  group: GroupLayer | null,
  toScreen: Matrix3,
  faces: boolean,
): LayerSight | null {
  const { widthPx, heightPx } = around.frame;
  const toFrame = toScreen.map((value, at) => (at < 3 ? value / widthPx : at < 6 ? value / heightPx : value));
  const spots = [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
    [0.5, 0.5],
  ].map(([x, y]) => mapped(toFrame, x!, y!));
  if (spots.some(({ w }) => !(w > 1e-6))) return null;
  const [a, b, c, d, centre] = spots.map(({ x, y }): ScreenPoint => ({ x, y })) as [
    ScreenPoint,
    ScreenPoint,
    ScreenPoint,
    ScreenPoint,
    ScreenPoint,
  ];
  return { layer, group, corners: [a, b, c, d], centre, facesEye: faces, toFrame };
}

/** A point of the frame in a layer's own unit square; null where the layer is seen edge-on. */
export function localOf({ toFrame }: Pick<LayerSight, 'toFrame'>, { x, y }: ScreenPoint): ScreenPoint | null {
  const back = inverse3(toFrame);
  if (!back) return null;
  const local = mapped(back, x, y);
  return { x: local.x, y: local.y };
}

/** Whether a point lies within a layer's box. */
export function isWithin({ corners }: LayerSight, { x, y }: ScreenPoint): boolean {
  let side = 0;
  for (let index = 0; index < 4; index += 1) {
    const [a, b] = [corners[index]!, corners[(index + 1) % 4]!];
    const cross = (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x);
    if (cross === 0) continue;
    if (side !== 0 && Math.sign(cross) !== side) return false;
    side = Math.sign(cross);
  }
  return true;
}
