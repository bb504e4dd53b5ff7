import { valueAt, type Channel } from '../keys/channel';
import { factsInUse } from '../motion/crop';
import { fitFraming, fillFraming, type Framing } from '../motion/framing';
import type { AssetFacts } from '../show/asset-facts';
import type { AssetId, LayerId } from '../show/ids';
import { everyLayer, isLit, type BoxLayer, type GroupLayer, type Layer } from '../show/layer';
import { unreachable } from '../unreachable';
import { finerUnit, planPassage } from '../words/passage';
import { frameAtMoment } from '../timing/frames';
import type { SlideSpan } from '../timing/slide-span';
import { boxFaces } from './box-faces';
import {
  CLIP_RATE,
  type ContentPlan,
  type CropPlan,
  type LayerPlan,
  type LightPlan,
  type MaskPlan,
  type SizeShare,
} from './frame-plan';
import { layerPoses, type PoseSurroundings } from './layer-poses';
import { mapped, projected, times4, translation, type Eye, type Matrix3, type Matrix4 } from './matrix';
import { cropPlan } from './plan-crop';
import { coveredPart, edgeAt } from './plan-edge';
import { lightAt } from './plan-light';
import { sizesFor, wantedWidthPx } from './picture-size';
import { facesEye, farToNear } from './space-order';

/** From where a layer with no space of its own is seen, in heights of the frame. */
export const USUAL_DISTANCE = 2.5;
/** Largest side of a bitmap that is drawn once and scaled. */
const LARGEST_BITMAP_PX = 4096;

/** What is planned before one moment is: how large layers get, by layer, and the masks of the slide. */
export interface SlideSurroundings extends PoseSurroundings {
  readonly span: SlideSpan;
  readonly masks: ReadonlyMap<LayerId, readonly Layer[]>;
  /** Largest width and height of a box on the screen during the slide, in pixels; filled as layers ask. */
  readonly largest: Map<string, { readonly widthPx: number; readonly heightPx: number }>;
}

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

/** A layer to be drawn, with where it stands in space. */
interface Placed {
  readonly box: Matrix4;
  readonly plan: (toScreen: Matrix3) => LayerPlan | null;
}

/** The slide's layers at an offset, bottom to top, groups opened wherever they need no canvas of their own. */
export function planLayers(around: SlideSurroundings, offsetMs: number): LayerPlan[] {
  const { frame, span } = around;
  const poses = layerPoses(around, offsetMs);
  const at = (channel: Channel | undefined, usual: number) =>
    channel === undefined ? usual : valueAt(channel, offsetMs, around.seenMs);
  const usualEye: Eye = { x: frame.widthPx / 2, y: frame.heightPx / 2, distance: USUAL_DISTANCE * frame.heightPx };
  return pile(around.slide.layers, usualEye, null).flatMap(seen(usualEye));

  function seen(eye: Eye): (placed: Placed) => LayerPlan[] {
    return (placed) => {
      const plan = placed.plan(projected(placed.box, eye));
      return plan ? [plan] : [];
    };
  }

  /** @param shift moves everything against the camera's own shift; null outside a space */
  function pile(layers: readonly Layer[], eye: Eye, shift: Matrix4 | null): Placed[] {
    return layers.filter((layer) => !layer.hidden && !layer.mask).flatMap((layer) => placedOf(layer, eye, shift));
  }

  function placedOf(layer: Layer, eye: Eye, shift: Matrix4 | null): Placed[] {
    const own = poses.box(layer);
    const box = shift ? times4(shift, own) : own;
    if (layer.kind === 'group') return groupOf(layer, box, eye, shift);
    if (layer.kind === 'box') return boxOf(layer, box, eye);
    return [{ box, plan: (toScreen) => single(layer, toScreen, eye, box) }];
  }

  function groupOf(layer: GroupLayer, box: Matrix4, eye: Eye, shift: Matrix4 | null): Placed[] {
    const space = layer.space;
    const innerEye = space
      ? { ...eye, distance: Math.max(0.1, at(space.distance, USUAL_DISTANCE)) * frame.heightPx }
      : eye;
    const camera = space
      ? translation(-at(space.x, 0) * frame.widthPx, -at(space.y, 0) * frame.heightPx, at(space.z, 0) * frame.heightPx)
      : null;
    const innerShift = camera ? (shift ? times4(camera, shift) : camera) : shift;
    const inner = () => {
      const placed = pile(layer.layers, innerEye, innerShift);
      return space ? farToNear(placed, (item) => item.box, innerEye) : placed;
    };
    const parts = partsOf(layer, IDENTITY3);
    const alone =
      parts.opacity >= 1 &&
      parts.blurPx === 0 &&
      parts.blend === 'normal' &&
      !parts.edge &&
      parts.masks.length === 0 &&
      !isCropped(parts.crop);
    // Within a space layers are sorted together; a space of its own must be seen by its own eye first.
    if (alone && !space) return inner();
    return [
      {
        box,
        plan: (toScreen) => ({
          ...parts,
          content: { kind: 'group', layers: inner().flatMap(seen(innerEye)) },
          toScreen,
          plain: false,
        }),
      },
    ];
  }

  /** A box is convex: the faces turned to the eye never cover each other. */
  function boxOf(layer: BoxLayer, box: Matrix4, eye: Eye): Placed[] {
    const faces = boxFaces(layer, box, at(layer.depth, 0) * frame.heightPx).filter((face) => facesEye(face.box, eye));
    return faces.map((face) => ({
      box: face.box,
      plan: (toScreen) => {
        const parts = partsOf(layer, toScreen);
        const content: ContentPlan | null =
          face.face.kind === 'colour'
            ? { kind: 'painted', shape: { kind: 'rectangle' }, fill: face.face, bitmap: { widthPx: 4, heightPx: 4 } }
            : pictureContent(face.face.assetId, face.aspect, toScreen, `${layer.id} ${face.side}`, null);
        return content && parts.opacity > 0 ? { ...parts, content, toScreen, plain: false } : null;
      },
    }));
  }

  function partsOf(layer: Layer, toScreen: Matrix3): Omit<LayerPlan, 'content' | 'toScreen' | 'plain'> {
    const channels = layer.channels ?? {};
    const share = (channel: Channel | undefined) => Math.min(1, Math.max(0, at(channel, 0)));
    return {
      crop: {
        left: share(channels.cropLeft),
        top: share(channels.cropTop),
        right: share(channels.cropRight),
        bottom: share(channels.cropBottom),
      },
      opacity: poses.opacity(layer),
      blurPx: Math.min(0.1, Math.max(0, at(channels.blur, 0))) * frame.heightPx,
      blend: layer.blend ?? 'normal',
      edge: layer.edge
        ? edgeAt(
            layer.edge,
            at,
            bitmapFor(layer.id, toScreen),
            frame,
            layer.kind === 'picture' || layer.kind === 'clip'
              ? coveredPart(poses.framing(layer) ?? WHOLE_FRAMING)
              : undefined,
          )
        : null,
      vignette: share(isLit(layer) ? layer.light?.vignette : undefined),
      masks: (around.masks.get(layer.id) ?? []).flatMap((mask) => maskOf(mask)),
    };
  }

  function maskOf(layer: Layer): MaskPlan[] {
    const mask = layer.mask!;
    const cutting: Layer = { ...layer, mask: undefined } as Layer;
    const inside = placedOf(cutting, usualEye, null).flatMap(seen(usualEye));
    const plan: LayerPlan =
      inside.length === 1
        ? inside[0]!
        : { ...BARE, content: { kind: 'group', layers: inside }, toScreen: frameToScreen() };
    return [
      {
        layer: plan,
        by: mask.by,
        inverted: mask.inverted ?? false,
        featherPx: Math.min(0.1, Math.max(0, at(mask.feather, 0))) * frame.heightPx,
      },
    ];
  }

  function single(
    layer: Exclude<Layer, GroupLayer | BoxLayer>,
    toScreen: Matrix3,
    eye: Eye,
    box: Matrix4,
  ): LayerPlan | null {
    const parts = partsOf(layer, toScreen);
    if (parts.opacity <= 0) return null;
    const away = layer.kind === 'picture' && layer.back && !facesEye(box, eye);
    const flip = layer.kind === 'picture' || layer.kind === 'clip' ? layer.flip : undefined;
    // From behind left and right have changed places already.
    const across = Boolean(away) !== Boolean(flip?.across);
    const outTo = flipped(across ? mirrored(toScreen) : toScreen, Boolean(flip?.down));
    const content = contentOf(layer, outTo, Boolean(away));
    if (!content) return null;
    const plain = !flip && (!layer.channels || Object.keys(layer.channels).every((name) => name === 'opacity'));
    return {
      ...parts,
      content,
      toScreen: outTo,
      plain:
        plain &&
        !layer.tether &&
        parts.masks.length === 0 &&
        !parts.edge &&
        parts.blend === 'normal' &&
        parts.vignette === 0,
    };
  }

  function contentOf(
    layer: Exclude<Layer, GroupLayer | BoxLayer>,
    toScreen: Matrix3,
    away: boolean,
  ): ContentPlan | null {
    switch (layer.kind) {
      case 'picture': {
        const light = lightAt(layer.light, at, around.facts.get(layer.assetId));
        if (away) return pictureContent(layer.back!.assetId, aspectOf(layer), toScreen, `${layer.id} back`, light);
        const framing = poses.framing(layer);
        return (
          framing &&
          moving(
            layer.assetId,
            factsInUse(layer, around.facts.get(layer.assetId)),
            cropPlan(layer, around.facts.get(layer.assetId)),
            framing,
            tightest(layer.id),
            toScreen,
            layer.id,
            light,
          )
        );
      }
      case 'drawing':
        return pictureContent(
          layer.assetId,
          aspectOf(layer),
          toScreen,
          layer.id,
          lightAt(layer.light, at, around.facts.get(layer.assetId)),
          true,
        );
      case 'clip': {
        const facts = around.facts.get(layer.assetId);
        const framing = poses.framing(layer);
        if (facts?.kind !== 'clip' || !framing) return null;
        const lastFrame = Math.max(0, frameAtMoment(facts.lengthMs, CLIP_RATE) - 1);
        const clipFrame = Math.min(
          lastFrame,
          frameAtMoment(layer.trimStartMs + offsetMs * (layer.speed ?? 1), CLIP_RATE),
        );
        return {
          kind: 'clip',
          assetId: layer.assetId,
          framing,
          clipFrame,
          sizes: sizes(facts, framing, framing.width, toScreen, layer.id).slice(0, 1),
          light: lightAt(layer.light, at, facts),
        };
      }
      case 'words': {
        if (layer.title.trim() === '' && layer.subtitle.trim() === '') return null;
        const passage = planPassage(layer, span, offsetMs);
        if ((passage.entrance.share <= 0 && passage.travel === null) || passage.exit.share >= 1) return null;
        const crawls = layer.travel?.kind === 'crawl';
        const unit = crawls
          ? ('word' as const)
          : layer.travel
            ? ('line' as const)
            : finerUnit(passage.entrance.by, passage.exit.by);
        return {
          kind: 'words',
          look: {
            title: layer.title,
            subtitle: layer.subtitle,
            place: layer.place,
            style: layer.style ?? {},
            unit,
            crawls,
          },
          passage,
        };
      }
      case 'shape':
        return { kind: 'painted', shape: layer.shape, fill: layer.fill, bitmap: bitmapFor(layer.id, toScreen) };
      case 'gradient':
        return {
          kind: 'painted',
          shape: { kind: 'rectangle' },
          fill: layer.gradient,
          bitmap: bitmapFor(layer.id, toScreen),
        };
      case 'solid':
        return {
          kind: 'painted',
          shape: { kind: 'rectangle' },
          fill: { kind: 'colour', colour: layer.colour },
          bitmap: { widthPx: 4, heightPx: 4 },
        };
      default:
        return unreachable(layer);
    }
  }

  function aspectOf(layer: Layer): number {
    const { widthPx, heightPx } = poses.size(layer);
    return widthPx / heightPx;
  }

  /** A picture that stands in its box: filling it, or whole within it. */
  function pictureContent(
    assetId: AssetId,
    boxAspect: number,
    toScreen: Matrix3,
    key: string,
    light: LightPlan | null,
    whole = false,
  ): ContentPlan | null {
    const facts = around.facts.get(assetId);
    if (!facts || facts.kind === 'sound') return null;
    const aspect = facts.widthPx / facts.heightPx;
    const framing = whole ? fitFraming(aspect, boxAspect) : fillFraming(aspect, boxAspect);
    return moving(assetId, facts, null, framing, framing.width, toScreen, key, light);
  }

  function moving(
    assetId: AssetId,
    facts: AssetFacts | undefined,
    crop: CropPlan | null,
    framing: Framing,
    tightestWidth: number,
    toScreen: Matrix3,
    key: string,
    light: LightPlan | null,
  ): ContentPlan | null {
    if (!facts || facts.kind === 'sound') return null;
    return {
      kind: 'picture',
      assetId,
      crop,
      framing,
      sizes: sizes(facts, framing, tightestWidth, toScreen, key),
      light,
    };
  }

  function sizes(
    facts: { widthPx: number; heightPx: number },
    framing: Framing,
    tightestWidth: number,
    toScreen: Matrix3,
    key: string,
  ): SizeShare[] {
    const now = wantedWidthPx(shownWidthPx(toScreen), framing.width);
    const largest = wantedWidthPx(largestOnScreen(key, toScreen).widthPx, tightestWidth);
    return sizesFor(facts, Math.max(now, largest), now);
  }

  function tightest(id: LayerId): number {
    const move = around.moves.get(id)!;
    return Math.min(move.first.width, move.last.width);
  }

  function bitmapFor(key: string, toScreen: Matrix3): { widthPx: number; heightPx: number } {
    const { widthPx, heightPx } = largestOnScreen(key, toScreen);
    const scale = Math.min(1, LARGEST_BITMAP_PX / Math.max(widthPx, heightPx, 1));
    const up = (value: number) => Math.max(4, Math.min(LARGEST_BITMAP_PX, Math.ceil(value * scale)));
    return { widthPx: up(widthPx), heightPx: up(heightPx) };
  }

  /** How large the box gets on the screen during the slide, by looking at it at its keys and between. */
  function largestOnScreen(key: string, toScreen: Matrix3): { widthPx: number; heightPx: number } {
    const known = around.largest.get(key);
    const [w, h] = shownSize(toScreen);
    if (known && known.widthPx >= w * 0.999 && known.heightPx >= h * 0.999) return known;
    const id = key.split(' ')[0] as LayerId;
    const layer = [...everyLayer(around.slide.layers)].find((candidate) => candidate.id === id);
    let [widest, highest] = [Math.max(w, known?.widthPx ?? 0), Math.max(h, known?.heightPx ?? 0)];
    if (!known && layer) {
      for (let step = 0; step <= LOOKS; step += 1) {
        const at = layerPoses(around, (around.seenMs * step) / LOOKS);
        const [sw, sh] = shownSize(projected(at.box(layer), usualEye));
        if (Number.isFinite(sw) && Number.isFinite(sh))
          [widest, highest] = [Math.max(widest, sw), Math.max(highest, sh)];
      }
    }
    const found = {
      widthPx: Math.min(widest, LARGEST_BITMAP_PX * 2),
      heightPx: Math.min(highest, LARGEST_BITMAP_PX * 2),
    };
    around.largest.set(key, found);
    return found;
  }

  function frameToScreen(): Matrix3 {
    return [frame.widthPx, 0, 0, 0, frame.heightPx, 0, 0, 0, 1];
  }
}

const LOOKS = 24;
const WHOLE_FRAMING: Framing = { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };
const IDENTITY3: Matrix3 = [1, 0, 0, 0, 1, 0, 0, 0, 1];
const BARE = {
  plain: false,
  crop: { left: 0, top: 0, right: 0, bottom: 0 },
  opacity: 1,
  blurPx: 0,
  blend: 'normal',
  edge: null,
  vignette: 0,
  masks: [],
} as const;

function isCropped(crop: LayerPlan['crop']): boolean {
  return crop.left > 0 || crop.top > 0 || crop.right > 0 || crop.bottom > 0;
}

/** The same box seen from behind: left and right change places. */
function mirrored(m: Matrix3): Matrix3 {
  return [-m[0]!, m[1]!, m[0]! + m[2]!, -m[3]!, m[4]!, m[3]! + m[5]!, -m[6]!, m[7]!, m[6]! + m[8]!];
}

function flipped(m: Matrix3, down: boolean): Matrix3 {
  return down ? [m[0]!, -m[1]!, m[1]! + m[2]!, m[3]!, -m[4]!, m[4]! + m[5]!, m[6]!, -m[7]!, m[7]! + m[8]!] : m;
}

/** Lengths of a box's two axes on the screen, at its middle. */
function shownSize(toScreen: Matrix3): [widthPx: number, heightPx: number] {
  const { x, y, w } = mapped(toScreen, 0.5, 0.5);
  if (!(w > 0)) return [0, 0];
  const slope = (row: number, column: number, value: number) =>
    (toScreen[3 * row + column]! - value * toScreen[6 + column]!) / w;
  return [Math.hypot(slope(0, 0, x), slope(1, 0, y)), Math.hypot(slope(0, 1, x), slope(1, 1, y))];
}

function shownWidthPx(toScreen: Matrix3): number {
  return Math.max(1, shownSize(toScreen)[0]);
}
