import type { ClipContent, ContentPlan, LayerPlan, PictureContent } from '../../core/frame/frame-plan';
import { times3, type Matrix3 } from '../../core/frame/matrix';
import { cutOnScreen, cutPolygon, type Point } from '../../core/frame/polygon';
import { pieceState } from '../../core/words/passage';
import type { Kernels } from '../kernel-module';
import { bitmapSamples, drawQuad, transparencyOf, WHOLE_BOX, type Rect } from '../planes/draw-quad';
import { drawPicture, framedOutline, framingSamples } from '../planes/draw-picture';
import { lightPicture } from '../planes/light-planes';
import { allocatePlanes, padPlanes, releasePlanes, type PicturePlanes } from '../planes/picture-planes';
import {
  blendOver,
  blurCel,
  clearCel,
  layOver,
  layShadow,
  makeMask,
  maskCel,
  runRect,
  type Cels,
} from '../planes/cels';
import type { Surface } from '../planes/surface';
import { pictureContentPlate, ROLL_FADE, WHITE, type Plate } from '../plates/plate';
import type { PlateStore } from '../plates/plate-store';
import { reachOf } from './reach';

export interface Easel {
  readonly kernels: Kernels;
  readonly cels: Cels;
  readonly store: PlateStore;
  readonly frame: { readonly widthPx: number; readonly heightPx: number };
  /** The frames of both slides, padded, while a transition is performed that is built of layers. */
  readonly frames?: { readonly leaving: Surface; readonly coming: Surface };
}

/** Paints a layer on a frame or a cel. What needs it gets a cel of its own first: masks, edges, blur, blends, groups. */
export function paintLayer(easel: Easel, target: Surface, layer: LayerPlan): void {
  if (layer.opacity <= 0) return;
  if (!needsCel(layer)) return paintContent(easel, target, layer, layer.opacity);
  const { kernels, cels } = easel;
  const reach = reachOf(layer, easel.frame);
  const rect = reach && runRect(reach, easel.frame);
  if (!rect) return;
  const cel = cels.take();
  clearCel(kernels, cel, rect);
  paintContent(easel, cel, underOutline(layer), 1);
  if (layer.content.kind === 'words' && layer.content.look.rolls) fadeRoll(easel, cel, rect, layer);
  if (layer.vignette > 0) paintVignette(easel, cel, layer);
  if (layer.edge?.stencil) cutByStencil(easel, cel, rect, layer);
  if (layer.edge?.outline) paintOutline(easel, cel, layer);
  for (const mask of layer.masks) {
    const cutter = cels.take();
    clearCel(kernels, cutter, rect);
    if (mask.by !== 'transparency' || !paintTransparency(easel, cutter, mask.layer))
      paintLayer(easel, cutter, mask.layer);
    makeMask(kernels, cels, cutter, rect, mask);
    maskCel(kernels, cel, cutter, rect);
    cels.giveBack(cutter);
  }
  if (layer.blurPx > 0) blurCel(kernels, cels, cel, rect, layer.blurPx);
  if (layer.cuts.length > 0) cutCel(easel, cel, rect, layer);
  if (layer.edge?.shadow)
    layShadow(kernels, cels, target, cel, rect, {
      ...layer.edge.shadow,
      opacity: layer.edge.shadow.opacity * layer.opacity,
    });
  if (layer.blend === 'normal')
    layOver(kernels, target, cel, { ...rect, right: Math.min(rect.right, easel.frame.widthPx) }, layer.opacity);
  else blendOver(kernels, target, cel, rect, layer.opacity, layer.blend);
  cels.giveBack(cel);
}

/**
 * The layer as it is drawn under its outline: only as far as the middle of it. Where both were antialiased at the same edge, a hair of the picture would show
 * beside the outline.
 */
function underOutline(layer: LayerPlan): LayerPlan {
  const outline = layer.edge?.outline;
  if (!outline || outline.where === 'outside' || outline.shape !== null || layer.content.kind === 'group') return layer;
  const { widthPx, heightPx } = outline.bitmap;
  const inset = (outline.width * Math.min(widthPx, heightPx)) / (outline.where === 'inside' ? 2 : 4);
  const { left, top, right, bottom } = layer.edge!.around;
  const [x, y] = [(inset / widthPx) * (right - left), (inset / heightPx) * (bottom - top)];
  const { crop } = layer;
  return {
    ...layer,
    crop: {
      left: Math.max(crop.left, left + x),
      top: Math.max(crop.top, top + y),
      right: Math.max(crop.right, 1 - right + x),
      bottom: Math.max(crop.bottom, 1 - bottom + y),
    },
  };
}

function needsCel(layer: LayerPlan): boolean {
  const { content } = layer;
  if (layer.blurPx > 0 || layer.blend !== 'normal' || layer.masks.length > 0 || layer.edge || layer.vignette > 0)
    return true;
  if (content.kind === 'group') return true;
  // Words are many pieces; they are cut together.
  if (content.kind === 'words' && (layer.cuts.length > 0 || content.look.rolls)) return true;
  // A second size lies over the first: seen through, both would show.
  return (content.kind === 'picture' || content.kind === 'clip') && content.sizes.length > 1 && layer.opacity < 1;
}

function paintContent(easel: Easel, target: Surface, layer: LayerPlan, opacity: number): void {
  const { content } = layer;
  switch (content.kind) {
    case 'picture':
    case 'clip':
      content.sizes.forEach(({ size, share }) => {
        const planes = litPlanes(easel, content, size);
        if (planes) paintPicture(easel, target, planes.planes, layer, content, opacity * share);
        planes?.done();
      });
      return;
    case 'painted': {
      const made = easel.store.made(
        { kind: 'painted', shape: content.shape, fill: content.fill, bitmap: content.bitmap },
        'planes',
      );
      if (made)
        drawQuad(
          easel.kernels,
          target,
          made.planes,
          layer.toScreen,
          bitmapSamples(made.planes),
          drawnPart(layer),
          opacity,
        );
      return;
    }
    case 'words':
      return paintWords(easel, target, layer, content, opacity);
    case 'group':
      for (const inner of content.layers) paintLayer(easel, target, inner);
      return;
    case 'frame': {
      const seen = easel.frames?.[content.which];
      if (seen) drawQuad(easel.kernels, target, seen, layer.toScreen, bitmapSamples(seen), drawnPart(layer), opacity);
    }
  }
}

/** A plain shape cuts by its transparency alone: nothing else of it needs drawing. @returns false for what is more than that */
function paintTransparency({ kernels, store }: Easel, cel: Surface, layer: LayerPlan): boolean {
  const { content } = layer;
  if (content.kind !== 'painted' || layer.opacity <= 0 || needsCel(layer)) return false;
  const planes = store.made(
    { kind: 'painted', shape: content.shape, fill: content.fill, bitmap: content.bitmap },
    'planes',
  )?.planes;
  if (!planes?.alpha) return false;
  drawQuad(
    kernels,
    transparencyOf(cel),
    transparencyOf(planes),
    layer.toScreen,
    bitmapSamples(planes),
    croppedBox(layer),
    layer.opacity,
  );
  return true;
}

function paintPicture(
  { kernels }: Easel,
  target: Surface,
  planes: PicturePlanes,
  layer: LayerPlan,
  content: PictureContent | ClipContent,
  opacity: number,
): void {
  if (layer.plain) return drawPicture(kernels, target, planes, content.framing, opacity);
  drawQuad(
    kernels,
    target,
    planes,
    layer.toScreen,
    framingSamples(content.framing, planes),
    framedOutline(content.framing, planes, drawnPart(layer)),
    opacity,
  );
}

/** The picture's plate, with a light that moves laid over it in planes of its own. */
function litPlanes(
  { kernels, store }: Easel,
  content: PictureContent | ClipContent,
  size: { widthPx: number; heightPx: number },
): { planes: PicturePlanes; done: () => void } | null {
  const made = store.made(pictureContentPlate(content, size, store.isTransparent(content.assetId)), 'planes');
  if (!made) return null;
  const { light } = content;
  if (!light || made.planes.alpha !== 0 || (!light.moves && content.kind === 'picture'))
    return { planes: made.planes, done: () => undefined };
  const lit = allocatePlanes(kernels, made.planes.widthPx, made.planes.heightPx, false);
  lightPicture(kernels, made.planes, lit, light.values);
  padPlanes(kernels, lit);
  return { planes: lit, done: () => releasePlanes(kernels, lit) };
}

/** The part of a layer's box that is drawn. */
function drawnPart(layer: LayerPlan): readonly Point[] {
  const cropped = croppedBox(layer);
  return layer.cuts.length === 0 ? cropped : cutOnScreen(cropped, layer.toScreen, layer.cuts);
}

export function croppedBox({ crop }: Pick<LayerPlan, 'crop'>): readonly Point[] {
  if (crop.left === 0 && crop.top === 0 && crop.right === 0 && crop.bottom === 0) return WHOLE_BOX;
  const [left, top, right, bottom] = [crop.left, crop.top, 1 - crop.right, 1 - crop.bottom];
  return left < right && top < bottom
    ? [
        { x: left, y: top },
        { x: right, y: top },
        { x: right, y: bottom },
        { x: left, y: bottom },
      ]
    : [];
}

function paintVignette({ kernels, store }: Easel, cel: Surface, layer: LayerPlan): void {
  const made = store.made({ kind: 'vignette' }, 'planes');
  if (!made) return;
  const { content } = layer;
  const box = croppedBox(layer);
  // Only on the picture itself, where its framing leaves room around it.
  const outline =
    content.kind === 'picture' || content.kind === 'clip'
      ? framedOutline(
          content.framing,
          { widthPx: content.sizes[0]!.size.widthPx, heightPx: content.sizes[0]!.size.heightPx },
          box,
        )
      : box;
  drawQuad(kernels, cel, made.planes, layer.toScreen, bitmapSamples(made.planes), outline, layer.vignette);
}

function cutByStencil({ kernels, cels, store }: Easel, cel: Surface, rect: Rect, layer: LayerPlan): void {
  const made = store.made({ kind: 'stencil', look: layer.edge!.stencil! }, 'planes');
  if (!made) return;
  const stencil = cels.take();
  clearCel(kernels, stencil, rect);
  drawQuad(kernels, stencil, made.planes, edgeToScreen(layer), bitmapSamples(made.planes), WIDE_BOX, 1);
  maskCel(kernels, cel, stencil, rect);
  cels.giveBack(stencil);
}

/** Rolling words come and go at the edges of the frame they are laid out in. */
function fadeRoll({ kernels, cels, store }: Easel, cel: Surface, rect: Rect, layer: LayerPlan): void {
  const fade = store.made(ROLL_FADE, 'planes')?.planes;
  if (!fade) return;
  const kept = cels.take();
  clearCel(kernels, kept, rect);
  drawQuad(kernels, kept, fade, layer.toScreen, bitmapSamples(fade), WHOLE_BOX, 1);
  maskCel(kernels, cel, kept, rect);
  cels.giveBack(kept);
}

/** Keeps of a cel what lies on the right side of the layer's cuts. */
function cutCel({ kernels, cels, store, frame }: Easel, cel: Surface, rect: Rect, layer: LayerPlan): void {
  const white = store.made(WHITE, 'planes')?.planes;
  if (!white) return;
  const kept = cels.take();
  clearCel(kernels, kept, rect);
  const toScreen: Matrix3 = [frame.widthPx, 0, 0, 0, frame.heightPx, 0, 0, 0, 1];
  drawQuad(kernels, kept, white, toScreen, bitmapSamples(white), cutOnScreen(WIDE_BOX, toScreen, layer.cuts), 1);
  maskCel(kernels, cel, kept, rect);
  cels.giveBack(kept);
}

/** What the edge runs around, as a unit square, to the screen. */
function edgeToScreen(layer: LayerPlan): Matrix3 {
  const { left, top, right, bottom } = layer.edge!.around;
  return times3(layer.toScreen, [right - left, 0, left, 0, bottom - top, top, 0, 0, 1]);
}

/** A little more than the box: its own edges are antialiased already, and must not be twice. */
const WIDE_BOX: readonly Point[] = [
  { x: -0.02, y: -0.02 },
  { x: 1.02, y: -0.02 },
  { x: 1.02, y: 1.02 },
  { x: -0.02, y: 1.02 },
];

function paintOutline({ kernels, store }: Easel, cel: Surface, layer: LayerPlan): void {
  const made = store.made({ kind: 'outline', look: layer.edge!.outline! }, 'outline');
  if (!made) return;
  const { marginX, marginY, planes } = made;
  const toWideBox: Matrix3 = [1 + 2 * marginX, 0, -marginX, 0, 1 + 2 * marginY, -marginY, 0, 0, 1];
  drawQuad(kernels, cel, planes, times3(edgeToScreen(layer), toWideBox), bitmapSamples(planes), WHOLE_BOX, 1);
}

/** Pieces stand on their pixels while nothing moves them; else they are drawn through the layer's box, which for words is the frame they are laid out in. */
function paintWords(
  easel: Easel,
  target: Surface,
  layer: LayerPlan,
  content: Extract<ContentPlan, { kind: 'words' }>,
  opacity: number,
): void {
  const { kernels, cels, store, frame } = easel;
  const plate: Plate = { kind: 'words', look: content.look, frame };
  const words = store.made(plate, 'words');
  if (!words) return;
  const { passage } = content;
  const count = (by: typeof passage.entrance.by) => (by === 'all' ? 1 : words.counts[by]);
  const shift = travelOf(passage.travel, words.block, frame);
  const toFrame = layer.plain
    ? null
    : times3(layer.toScreen, [1 / frame.widthPx, 0, 0, 0, 1 / frame.heightPx, 0, 0, 0, 1]);
  for (const piece of words.pieces) {
    const of = (by: typeof passage.entrance.by) =>
      by === 'all' || piece.line < 0
        ? { index: 0, count: piece.line < 0 ? 1 : count(by) }
        : { index: piece[by], count: count(by) };
    const state = pieceState(passage, of(passage.entrance.by), of(passage.exit.by));
    if (state.opacity <= 0 || state.shown <= 0) continue;
    const still = state.down === 0 && state.shown === 1 && state.blur === 0 && shift.x === 0 && shift.y === 0;
    if (!toFrame && still) {
      const rect = {
        left: piece.leftPx,
        top: piece.topPx,
        right: piece.leftPx + piece.planes.widthPx,
        bottom: piece.topPx + piece.planes.heightPx,
      };
      if (rect.left < 0 || rect.top < 0 || rect.right > frame.widthPx || rect.bottom > frame.heightPx)
        drawPiece(target);
      else layPiece(kernels, target, piece.planes, rect, opacity * state.opacity);
      continue;
    }
    if (state.blur <= 0) {
      drawPiece(target);
      continue;
    }
    const sigma = state.blur * piece.sizePx;
    const rect = runRect(
      {
        left: piece.leftPx + shift.x - 4 * sigma,
        top: piece.topPx + shift.y - 4 * sigma,
        right: piece.leftPx + shift.x + piece.planes.widthPx + 4 * sigma,
        bottom: piece.topPx + shift.y + piece.planes.heightPx + 4 * sigma,
      },
      frame,
    );
    const whole = toFrame ? runRect({ left: 0, top: 0, right: frame.widthPx, bottom: frame.heightPx }, frame) : rect;
    if (!whole) continue;
    const cel = cels.take();
    clearCel(kernels, cel, whole);
    drawPiece(cel, 1);
    blurCel(kernels, cels, cel, whole, sigma);
    layOver(kernels, target, cel, { ...whole, right: Math.min(whole.right, frame.widthPx) }, opacity * state.opacity);
    cels.giveBack(cel);

    function drawPiece(onto: Surface, strength = opacity * state.opacity): void {
      const { planes } = piece;
      const box: Matrix3 = [
        planes.widthPx,
        0,
        piece.leftPx + shift.x,
        0,
        planes.heightPx,
        piece.topPx + shift.y + state.down * piece.sizePx,
        0,
        0,
        1,
      ];
      const outline =
        state.shown === 1
          ? WHOLE_BOX
          : piece.rightToLeft
            ? croppedBox({ crop: { left: 1 - state.shown, top: 0, right: 0, bottom: 0 } })
            : croppedBox({ crop: { left: 0, top: 0, right: 1 - state.shown, bottom: 0 } });
      drawQuad(
        kernels,
        onto,
        planes,
        toFrame ? times3(toFrame, box) : box,
        bitmapSamples(planes),
        cutPolygon(outline, WHOLE_BOX),
        strength,
      );
    }
  }
}

/** How far travelling words have come: from just outside the frame to just outside on the other side. */
function travelOf(
  travel: Extract<ContentPlan, { kind: 'words' }>['passage']['travel'],
  block: { topPx: number; heightPx: number; leftPx: number; widthPx: number },
  frame: { widthPx: number; heightPx: number },
): { x: number; y: number } {
  if (!travel) return { x: 0, y: 0 };
  if (travel.kind === 'roll')
    return { x: 0, y: frame.heightPx - block.topPx - travel.share * (frame.heightPx + block.heightPx) };
  return { x: frame.widthPx - block.leftPx - travel.share * (frame.widthPx + block.widthPx), y: 0 };
}

function layPiece(kernels: Kernels, target: Surface, planes: PicturePlanes, rect: Rect, opacity: number): void {
  const share = Math.round(Math.min(1, Math.max(0, opacity)) * 32767);
  const at = (plane: number) => plane + rect.top * target.yStride + rect.left;
  const half = (plane: number) => plane + (rect.top / 2) * target.cStride + rect.left / 2;
  const [w, h] = [planes.widthPx, planes.heightPx];
  kernels.coverPlane(at(target.y), target.yStride, planes.y, planes.alpha, planes.yStride, w, h, share);
  kernels.coverPlane(half(target.u), target.cStride, planes.u, planes.halfAlpha, planes.cStride, w / 2, h / 2, share);
  kernels.coverPlane(half(target.v), target.cStride, planes.v, planes.halfAlpha, planes.cStride, w / 2, h / 2, share);
  if (target.alpha === 0) return;
  kernels.coverPlane(at(target.alpha), target.yStride, planes.alpha, planes.alpha, planes.yStride, w, h, share);
  kernels.coverPlane(
    half(target.halfAlpha),
    target.cStride,
    planes.halfAlpha,
    planes.halfAlpha,
    planes.cStride,
    w / 2,
    h / 2,
    share,
  );
}
