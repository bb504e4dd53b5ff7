import type { Channel } from '../keys/channel';
import type { Framing } from '../motion/framing';
import type { LayerId } from '../show/ids';
import { edgeOfShape } from '../show/edge-shapes';
import { isLit, type BoxLayer, type Edge, type GroupLayer, type Layer } from '../show/layer';
import { boxFaces } from './box-faces';
import { bitmapFor, flipped, frameToScreen, isFrame, mirrored } from './box-on-screen';
import type { LayerPlan, MaskPlan } from './frame-plan';
import { projected, times4, type Eye, type Matrix3, type Matrix4 } from './matrix';
import { planContent, plainContent, standingPicture, type SingleLayer } from './plan-content';
import { coveredPart, edgeAt } from './plan-edge';
import type { HalfPlane } from './polygon';
import { slideMoment, type SlideMoment, type SlideSurroundings } from './slide-moment';
import { facesEye, farToNear } from './space-order';
import { viewInto, type View } from './view';

/** Which layers cut which: masks name their targets, or cut the nearest layer below them that is not a mask itself. */
export function masksOf(layers: readonly Layer[], into = new Map<LayerId, Layer[]>()): Map<LayerId, Layer[]> {
  const add = (target: LayerId, mask: Layer) => into.set(target, [...(into.get(target) ?? []), mask]);
  layers.forEach((layer, index) => {
    if (layer.kind === 'group') masksOf(layer.layers, into);
    if (!layer.mask || layer.hidden) return;
    if (layer.mask.cuts !== 'below') return layer.mask.cuts.forEach((id) => add(id, layer));
    const below = layers
      .slice(0, index)
      .reverse()
      .find((other) => !other.mask);
    if (below) add(below.id, layer);
  });
  return into;
}

/** The slide's layers at an offset, bottom to top, groups opened wherever they need no canvas of their own. */
export function planLayers(around: SlideSurroundings, offsetMs: number): LayerPlan[] {
  const moment = slideMoment(around, offsetMs);
  const view = { eye: moment.usualEye, shift: null };
  return seen(pile(moment, around.slide.layers, view), view.eye);
}

/** A layer to be drawn, with where it stands in space. */
interface Placed {
  readonly box: Matrix4;
  readonly plan: (toScreen: Matrix3) => LayerPlan | null;
  /** The parts of the screen it is held to, where it passes through others. */
  readonly cuts?: readonly HalfPlane[];
}

function seen(placed: readonly Placed[], eye: Eye): LayerPlan[] {
  return placed.flatMap(({ box, plan, cuts = [] }) => {
    const planned = plan(projected(box, eye));
    if (!planned) return [];
    return [cuts.length === 0 ? planned : { ...planned, plain: false, cuts: [...planned.cuts, ...cuts] }];
  });
}

function pile(moment: SlideMoment, layers: readonly Layer[], view: View): Placed[] {
  return layers.filter((layer) => !layer.hidden && !layer.mask).flatMap((layer) => placedOf(moment, layer, view));
}

function placedOf(moment: SlideMoment, layer: Layer, view: View): Placed[] {
  const own = moment.poses.box(layer);
  const box = view.shift ? times4(view.shift, own) : own;
  if (layer.kind === 'group') return placedGroup(moment, layer, box, view);
  if (layer.kind === 'box') return placedFaces(moment, layer, box, view.eye);
  return [{ box, plan: (toScreen) => singlePlan(moment, layer, toScreen, facesEye(box, view.eye)) }];
}

function placedGroup(moment: SlideMoment, layer: GroupLayer, box: Matrix4, view: View): Placed[] {
  const { space } = layer;
  const inside = space ? viewInto(moment, space, view) : view;
  const inner = (): Placed[] => {
    const placed = pile(moment, layer.layers, inside);
    if (!space) return placed;
    return farToNear(placed, (one) => one.box, inside.eye).map(({ item, cuts }) => ({ ...item, cuts }));
  };
  const parts = partsOf(moment, layer, IDENTITY3);
  if (needsNoCanvas(parts) && !space) return inner();
  // A space has an eye of its own. On the slide itself what it sees lies as it is; within another space, where layers are sorted together, it is one picture.
  if (needsNoCanvas(parts) && view.shift === null)
    return seen(inner(), inside.eye).map((planned) => ({ box, plan: () => planned }));
  return [
    {
      box,
      plan: (toScreen) => ({
        ...parts,
        content: { kind: 'group', layers: seen(inner(), inside.eye) },
        toScreen,
        plain: false,
      }),
    },
  ];
}

function needsNoCanvas({ opacity, blurPx, blend, edge, masks, crop }: Parts): boolean {
  const cropped = crop.left > 0 || crop.top > 0 || crop.right > 0 || crop.bottom > 0;
  return opacity >= 1 && blurPx === 0 && blend === 'normal' && !edge && masks.length === 0 && !cropped;
}

/** A box is convex: the faces turned to the eye never cover each other. */
function placedFaces(moment: SlideMoment, layer: BoxLayer, box: Matrix4, eye: Eye): Placed[] {
  const depthPx = moment.at(layer.depth, 0) * moment.around.frame.heightPx;
  return boxFaces(layer, box, depthPx)
    .filter((face) => facesEye(face.box, eye))
    .map(({ box: stands, face, aspect, side }) => ({
      box: stands,
      plan: (toScreen) => {
        const parts = partsOf(moment, layer, toScreen);
        const content =
          face.kind === 'colour'
            ? plainContent(face.colour)
            : standingPicture(moment, face.assetId, aspect, toScreen, `${layer.id} ${side}`, null);
        return content && parts.opacity > 0 ? { ...parts, content, toScreen, plain: false } : null;
      },
    }));
}

function singlePlan(moment: SlideMoment, layer: SingleLayer, toScreen: Matrix3, isFront: boolean): LayerPlan | null {
  const parts = partsOf(moment, layer, toScreen);
  if (parts.opacity <= 0) return null;
  const away = layer.kind === 'picture' && layer.back !== undefined && !isFront;
  const flip = layer.kind === 'picture' || layer.kind === 'clip' ? layer.flip : undefined;
  // From behind left and right have changed places already.
  const across = away !== Boolean(flip?.across);
  const outTo = flipped(across ? mirrored(toScreen) : toScreen, Boolean(flip?.down));
  const content = planContent(moment, layer, outTo, away);
  return content && { ...parts, content, toScreen: outTo, plain: isPlain(layer, parts, outTo, moment) };
}

/** Whether a layer's box is the frame, by what it says as well as by where it stands: what is held by a group stands where that is. */
function isPlain(layer: SingleLayer, parts: Parts, toScreen: Matrix3, { around }: SlideMoment): boolean {
  const stands = !layer.channels || Object.keys(layer.channels).every((name) => name === 'opacity');
  return (
    stands &&
    !layer.tether &&
    parts.masks.length === 0 &&
    !parts.edge &&
    parts.blend === 'normal' &&
    parts.vignette === 0 &&
    isFrame(toScreen, around.frame)
  );
}

type Parts = Omit<LayerPlan, 'content' | 'toScreen' | 'plain'>;

/** What any layer may have beside its content. */
function partsOf(moment: SlideMoment, layer: Layer, toScreen: Matrix3): Parts {
  const { around, poses, at } = moment;
  const channels = layer.channels ?? {};
  const share = (channel: Channel | undefined) => Math.min(1, Math.max(0, at(channel, 0)));
  const covered =
    layer.kind === 'picture' || layer.kind === 'clip' ? coveredPart(poses.framing(layer) ?? WHOLE_FRAMING) : undefined;
  return {
    crop: {
      left: share(channels.cropLeft),
      top: share(channels.cropTop),
      right: share(channels.cropRight),
      bottom: share(channels.cropBottom),
    },
    cuts: [],
    opacity: poses.opacity(layer),
    blurPx: Math.min(0.1, Math.max(0, at(channels.blur, 0))) * around.frame.heightPx,
    blend: layer.blend ?? 'normal',
    edge: layer.edge
      ? edgeAt(edgeOf(layer, layer.edge), at, bitmapFor(around, layer.id, toScreen), around.frame, covered)
      : null,
    vignette: share(isLit(layer) ? layer.light?.vignette : undefined),
    masks: (around.masks.get(layer.id) ?? []).map((mask) => maskPlan(moment, mask)),
  };
}

/** What goes along a shape's edge follows the shape; a shadow does so by itself. */
function edgeOf(layer: Layer, edge: Edge): Edge {
  if (layer.kind !== 'shape' || edge.shape || (!edge.outline && edge.feather === undefined)) return edge;
  const shape = edgeOfShape(layer.shape);
  return shape ? { ...edge, shape } : edge;
}

function maskPlan(moment: SlideMoment, layer: Layer): MaskPlan {
  const { around, at, usualEye } = moment;
  const mask = layer.mask!;
  const { mask: _cuts, ...cutting } = layer;
  const inside = seen(placedOf(moment, cutting as Layer, { eye: usualEye, shift: null }), usualEye);
  return {
    layer:
      inside.length === 1
        ? inside[0]!
        : { ...BARE, content: { kind: 'group', layers: inside }, toScreen: frameToScreen(around.frame) },
    by: mask.by,
    inverted: mask.inverted ?? false,
    featherPx: Math.min(0.1, Math.max(0, at(mask.feather, 0))) * around.frame.heightPx,
  };
}

const WHOLE_FRAMING: Framing = { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };
const IDENTITY3: Matrix3 = [1, 0, 0, 0, 1, 0, 0, 0, 1];
/** A layer with nothing about it but what it shows. */
export const BARE = {
  plain: false,
  crop: { left: 0, top: 0, right: 0, bottom: 0 },
  cuts: [],
  opacity: 1,
  blurPx: 0,
  blend: 'normal',
  edge: null,
  vignette: 0,
  masks: [],
} as const;
