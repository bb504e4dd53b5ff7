import type { LayerId } from '../show/ids';
import { everyLayer } from '../show/layer';
import type { PictureSize } from './frame-plan';
import { layerPoses } from './layer-poses';
import { mapped, projected, type Matrix3 } from './matrix';
import { usualEye, type SlideSurroundings } from './slide-moment';

/** Largest side of a bitmap that is drawn once and scaled. */
const LARGEST_BITMAP_PX = 4096;
/** Moments of a slide at which its layers are looked at for how large they get. */
const LOOKS = 24;

/** The same box seen from behind: left and right change places. */
export function mirrored(m: Matrix3): Matrix3 {
  return [-m[0]!, m[1]!, m[0]! + m[2]!, -m[3]!, m[4]!, m[3]! + m[5]!, -m[6]!, m[7]!, m[6]! + m[8]!];
}

export function flipped(m: Matrix3, down: boolean): Matrix3 {
  return down ? [m[0]!, -m[1]!, m[1]! + m[2]!, m[3]!, -m[4]!, m[4]! + m[5]!, m[6]!, -m[7]!, m[7]! + m[8]!] : m;
}

export function frameToScreen({ widthPx, heightPx }: PictureSize): Matrix3 {
  return [widthPx, 0, 0, 0, heightPx, 0, 0, 0, 1];
}

/** A box that lies straight, in pixels. */
export function boxToScreen(leftPx: number, topPx: number, widthPx: number, heightPx: number): Matrix3 {
  return [widthPx, 0, leftPx, 0, heightPx, topPx, 0, 0, 1];
}

/** Whether a box is the frame itself. */
export function isFrame(toScreen: Matrix3, frame: PictureSize): boolean {
  const wanted = frameToScreen(frame);
  return toScreen.every((value, index) => Math.abs(value - wanted[index]!) <= 1e-6);
}

/** Lengths of a box's two axes on the screen, at its middle. */
function shownSize(toScreen: Matrix3): [widthPx: number, heightPx: number] {
  const { x, y, w } = mapped(toScreen, 0.5, 0.5);
  if (!(w > 0)) return [0, 0];
  const slope = (row: number, column: number, value: number) =>
    (toScreen[3 * row + column]! - value * toScreen[6 + column]!) / w;
  return [Math.hypot(slope(0, 0, x), slope(1, 0, y)), Math.hypot(slope(0, 1, x), slope(1, 1, y))];
}

export function shownWidthPx(toScreen: Matrix3): number {
  return Math.max(1, shownSize(toScreen)[0]);
}

/** How large a bitmap of a layer has to be, whatever the slide does with it. */
export function bitmapFor(around: SlideSurroundings, key: string, toScreen: Matrix3): PictureSize {
  const { widthPx, heightPx } = largestOnScreen(around, key, toScreen);
  const scale = Math.min(1, LARGEST_BITMAP_PX / Math.max(widthPx, heightPx, 1));
  const up = (value: number) => Math.max(4, Math.min(LARGEST_BITMAP_PX, Math.ceil(value * scale)));
  return { widthPx: up(widthPx), heightPx: up(heightPx) };
}

/**
 * How large the box gets on the screen during the slide, by looking at it at its keys and between.
 *
 * @param key the layer's id, perhaps followed by a space and which of its sides is meant
 */
export function largestOnScreen(around: SlideSurroundings, key: string, toScreen: Matrix3): PictureSize {
  const known = around.largest.get(key);
  const [w, h] = shownSize(toScreen);
  if (known && known.widthPx >= w * 0.999 && known.heightPx >= h * 0.999) return known;
  const id = key.split(' ')[0] as LayerId;
  const layer = [...everyLayer(around.slide.layers)].find((candidate) => candidate.id === id);
  let [widest, highest] = [Math.max(w, known?.widthPx ?? 0), Math.max(h, known?.heightPx ?? 0)];
  if (!known && layer) {
    const eye = usualEye(around.frame);
    for (let step = 0; step <= LOOKS; step += 1) {
      const poses = layerPoses(around, (around.seenMs * step) / LOOKS);
      const [sw, sh] = shownSize(projected(poses.box(layer), eye));
      if (Number.isFinite(sw) && Number.isFinite(sh)) [widest, highest] = [Math.max(widest, sw), Math.max(highest, sh)];
    }
  }
  const found = {
    widthPx: Math.min(widest, LARGEST_BITMAP_PX * 2),
    heightPx: Math.min(highest, LARGEST_BITMAP_PX * 2),
  };
  around.largest.set(key, found);
  return found;
}
