import { bytesOf, type Kernels } from '../kernel-module';
import type { PictureReader } from '../picture-reader';
import { lightPicture } from '../planes/light-planes';
import {
  padPlanes,
  planesFromDecodedFrame,
  planesFromPixels,
  releasePlanes,
  type PicturePlanes,
  type Pixels,
} from '../planes/picture-planes';
import { createSurface } from '../planes/surface';
import type { FontShelf } from '../words/fonts';
import { drawWords, type DrawnPiece } from '../words/draw-words';
import type { Drawing2d } from '../words/outline';
import { BACKING_SOURCE_WIDTH_PX, fillWithBlur } from './blurred-backing';
import { fillWithGradient } from './gradient-backing';
import { paintOutline, paintShape, paintStencil, paintVignette } from './painted';
import { NEUTRAL } from '../../core/frame/frame-plan';
import type { Plate } from './plate';
import { readCropped } from './read-cropped';
import { readCroppedClip, rgbaOf } from './read-cropped-clip';
import { applyStillEffects } from './still-effects';
import { mapOfPicture, wipeMap, type WipeMap } from './wipe-maps';

/** A plate as the kernels take it. */
export type Made =
  | { readonly kind: 'planes'; readonly planes: PicturePlanes }
  | { readonly kind: 'outline'; readonly planes: PicturePlanes; readonly marginX: number; readonly marginY: number }
  | {
      readonly kind: 'words';
      readonly pieces: readonly MadePiece[];
      readonly counts: Readonly<Record<'line' | 'word' | 'letter', number>>;
      readonly block: WordsBlock;
      /** How much smaller they are than was asked, so that they fit. */
      readonly scale: number;
    }
  /** Full size, then half size, 16 bits each; strides in values. */
  | {
      readonly kind: 'wipe-map';
      readonly map: number;
      readonly stride: number;
      readonly half: number;
      readonly halfStride: number;
      readonly byteCount: number;
    }
  | { readonly kind: 'nothing' };

export type MadePiece = Omit<DrawnPiece, 'pixels'> & { readonly planes: PicturePlanes };

export interface WordsBlock {
  readonly topPx: number;
  readonly heightPx: number;
  readonly leftPx: number;
  readonly widthPx: number;
}

interface Parts {
  readonly kernels: Kernels;
  readonly reader: PictureReader;
  readonly fonts: FontShelf;
  readonly drawing2d: Drawing2d;
}

/** @throws when a picture cannot be read; the error's message is for a person */
export async function makePlate(parts: Parts, plate: Plate): Promise<Made> {
  const { kernels, reader, drawing2d } = parts;
  const planes = (pixels: Pixels): Made => ({ kind: 'planes', planes: planesFromPixels(kernels, pixels) });
  switch (plate.kind) {
    case 'picture':
      return { kind: 'planes', planes: await litPicture(parts, plate) };
    case 'clip': {
      const read = await readCroppedClip(reader, plate);
      return {
        kind: 'planes',
        planes: 'rgba' in read ? planesFromPixels(kernels, read) : planesFromDecodedFrame(kernels, read),
      };
    }
    case 'words': {
      const drawn = await drawWords(plate.look, parts.fonts, drawing2d, plate.frame);
      if (!drawn) return { kind: 'nothing' };
      const pieces = drawn.pieces.map(({ pixels, ...place }) => ({
        ...place,
        planes: planesFromPixels(kernels, pixels),
      }));
      return {
        kind: 'words',
        pieces,
        counts: drawn.counts,
        scale: drawn.scale,
        block: { topPx: drawn.topPx, heightPx: drawn.heightPx, leftPx: drawn.leftPx, widthPx: drawn.widthPx },
      };
    }
    case 'painted':
      return planes(paintShape(plate.shape, plate.fill, plate.bitmap, drawing2d));
    case 'stencil':
      return planes(paintStencil(plate.look, drawing2d));
    case 'outline': {
      const { pixels, marginX, marginY } = paintOutline(plate.look, drawing2d);
      return { kind: 'outline', planes: planesFromPixels(kernels, pixels), marginX, marginY };
    }
    case 'vignette':
      return planes(paintVignette());
    case 'gradient': {
      const surface = createSurface(kernels, plate.frame.widthPx, plate.frame.heightPx);
      fillWithGradient(kernels, surface, plate.gradient);
      return { kind: 'planes', planes: surface };
    }
    case 'blurred': {
      // Wide enough that the blur spans a few samples.
      const widthPx = Math.min(960, Math.max(BACKING_SOURCE_WIDTH_PX, Math.round(4 / Math.max(0.004, plate.amount))));
      const heightPx = Math.max(2, Math.round(widthPx / plate.aspect));
      const { clipFrame } = plate;
      // A clip's backing is a blurred copy of the frame it begins with.
      const pixels =
        clipFrame !== null
          ? rgbaOf(await readCroppedClip(reader, { ...plate, clipFrame, size: { widthPx, heightPx } }))
          : await readCropped(reader, plate.assetId, plate.crop, { widthPx, heightPx });
      const surface = createSurface(kernels, plate.frame.widthPx, plate.frame.heightPx);
      fillWithBlur(kernels, surface, pixels, plate);
      if (plate.light) lightPicture(kernels, surface, surface, plate.light.values);
      return { kind: 'planes', planes: surface };
    }
    case 'wipe-map': {
      const { look, frame } = plate;
      if (look.kind !== 'own-pattern') return placedMap(kernels, wipeMap(look, frame), frame.widthPx, frame.heightPx);
      const pixels = await reader.readPicture(look.assetId, frame.widthPx, frame.heightPx);
      return placedMap(kernels, mapOfPicture(pixels.rgba, frame, look.inverted), frame.widthPx, frame.heightPx);
    }
  }
}

async function litPicture(
  { kernels, reader }: Parts,
  plate: Extract<Plate, { kind: 'picture' }>,
): Promise<PicturePlanes> {
  const read = await readCropped(reader, plate.assetId, plate.crop, plate.size);
  const { light } = plate;
  if (!light) return planesFromPixels(kernels, read);
  const pixels = applyStillEffects(read, light);
  const planes = planesFromPixels(kernels, pixels);
  if (JSON.stringify(light.values) === JSON.stringify(NEUTRAL)) return planes;
  if (planes.alpha === 0) {
    lightPicture(kernels, planes, planes, light.values);
  } else {
    // Premultiplied colours cannot be changed: the colours are taken without transparency, lit, and weighed by it again.
    const bare = planesFromPixels(kernels, { ...pixels, hasTransparency: false });
    lightPicture(kernels, bare, bare, light.values);
    const [w, h, cw, ch] = [planes.widthPx, planes.heightPx, (planes.widthPx + 1) >> 1, (planes.heightPx + 1) >> 1];
    for (let row = 0; row < h; row += 1)
      kernels.copyBytes(planes.y + row * planes.yStride, bare.y + row * bare.yStride, w);
    for (let row = 0; row < ch; row += 1) {
      kernels.copyBytes(planes.u + row * planes.cStride, bare.u + row * bare.cStride, cw);
      kernels.copyBytes(planes.v + row * planes.cStride, bare.v + row * bare.cStride, cw);
    }
    kernels.scalePlane(planes.y, planes.yStride, planes.alpha, planes.yStride, w, h);
    kernels.scalePlane(planes.u, planes.cStride, planes.halfAlpha, planes.cStride, cw, ch);
    kernels.scalePlane(planes.v, planes.cStride, planes.halfAlpha, planes.cStride, cw, ch);
    releasePlanes(kernels, bare);
  }
  padPlanes(kernels, planes);
  return planes;
}

/** The map in the kernels' memory, with half of it at the places of chroma. */
function placedMap(kernels: Kernels, map: WipeMap, widthPx: number, heightPx: number): Made {
  const stride = (widthPx + 31) & ~15;
  const halfStride = (widthPx / 2 + 31) & ~15;
  const byteCount = 2 * (stride * heightPx + (halfStride * heightPx) / 2);
  const at = kernels.allocate(byteCount);
  const half = at + 2 * stride * heightPx;
  const memory = new Int16Array(bytesOf(kernels).buffer);
  for (let row = 0; row < heightPx; row += 1)
    memory.set(map.subarray(row * widthPx, (row + 1) * widthPx), at / 2 + row * stride);
  for (let row = 0; row < heightPx / 2; row += 1) {
    for (let x = 0; x < widthPx / 2; x += 1)
      memory[half / 2 + row * halfStride + x] =
        (map[2 * row * widthPx + 2 * x]! + map[(2 * row + 1) * widthPx + 2 * x]! + 1) >> 1;
  }
  return { kind: 'wipe-map', map: at, stride, half, halfStride, byteCount };
}
