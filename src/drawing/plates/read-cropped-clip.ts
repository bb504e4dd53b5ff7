import type { CropPlan, PictureSize } from '../../core/frame/frame-plan';
import { partsOfTurn } from '../../core/motion/crop';
import type { AssetId } from '../../core/show/ids';
import type { PictureReader } from '../picture-reader';
import type { DecodedFrame, Pixels } from '../planes/picture-planes';
import { readCropped } from './read-cropped';

type ClipFrameRead = Awaited<ReturnType<PictureReader['readClipFrame']>>;

interface WantedClipFrame {
  readonly assetId: AssetId;
  readonly crop: CropPlan | null;
  readonly size: PictureSize;
  readonly clipFrame: number;
}

/** What a crop leaves of a frame of a clip; the whole frame without one. The frame is read whole, always at one size. */
export async function readCroppedClip(reader: PictureReader, wanted: WantedClipFrame): Promise<ClipFrameRead> {
  const { assetId, crop, size, clipFrame } = wanted;
  if (!crop) return reader.readClipFrame(assetId, clipFrame, size.widthPx, size.heightPx);
  const whole = wholeSize(crop, size);
  const frame: PictureReader = {
    ...reader,
    async readPicture(_id, widthPx, heightPx, part) {
      const read = rgbaOf(await reader.readClipFrame(assetId, clipFrame, whole.widthPx, whole.heightPx));
      if (!part) return read;
      const [scaleX, scaleY] = [read.widthPx / part.ofWidthPx, read.heightPx / part.ofHeightPx];
      // A straightened crop is taken between the pixels of what is read; any other is cut out as it is.
      const isStraight = Math.abs(partsOfTurn(crop.framing.turnDegrees).straighten) < 1e-6;
      const size = isStraight
        ? { widthPx, heightPx }
        : { widthPx: Math.round(part.widthPx * scaleX), heightPx: Math.round(part.heightPx * scaleY) };
      return cutOut(read, Math.round(part.left * scaleX), Math.round(part.top * scaleY), size);
    },
  };
  return readCropped(frame, assetId, crop, size);
}

/** How large a whole frame is where its crop has the wanted size; even both ways. */
function wholeSize(crop: CropPlan, size: PictureSize): PictureSize {
  const onItsSide = Math.abs(partsOfTurn(crop.framing.turnDegrees).quarter) === 90;
  const [across, down] = [crop.framing.width * crop.ofWidthPx, crop.framing.height * crop.ofHeightPx];
  const scale = Math.max(size.widthPx / across, size.heightPx / down);
  const least = onItsSide
    ? { widthPx: size.heightPx, heightPx: size.widthPx }
    : { widthPx: size.widthPx, heightPx: size.heightPx };
  const even = (side: number) => 2 * Math.ceil(side / 2 - 1e-6);
  return {
    widthPx: even(Math.max(least.widthPx, crop.ofWidthPx * scale)),
    heightPx: even(Math.max(least.heightPx, crop.ofHeightPx * scale)),
  };
}

function cutOut(from: Pixels, left: number, top: number, wanted: PictureSize): Pixels {
  const widthPx = Math.min(wanted.widthPx, from.widthPx);
  const heightPx = Math.min(wanted.heightPx, from.heightPx);
  const x = Math.max(0, Math.min(from.widthPx - widthPx, left));
  const y = Math.max(0, Math.min(from.heightPx - heightPx, top));
  const rgba = new Uint8Array(4 * widthPx * heightPx);
  for (let row = 0; row < heightPx; row += 1) {
    const at = 4 * ((y + row) * from.widthPx + x);
    rgba.set(from.rgba.subarray(at, at + 4 * widthPx), 4 * row * widthPx);
  }
  return { widthPx, heightPx, rgba, hasTransparency: from.hasTransparency };
}

/** A decoded frame (BT.709, limited range) as pixels, each with the chroma of its own square of four. */
export function rgbaOf(read: Pixels | DecodedFrame): Pixels {
  if ('rgba' in read) return read;
  const { widthPx, heightPx, i420 } = read;
  const rgba = new Uint8ClampedArray(widthPx * heightPx * 4);
  const chromaWidth = (widthPx + 1) >> 1;
  const uAt = widthPx * heightPx;
  const vAt = uAt + chromaWidth * ((heightPx + 1) >> 1);
  for (let y = 0; y < heightPx; y += 1) {
    const row = (y >> 1) * chromaWidth;
    for (let x = 0; x < widthPx; x += 1) {
      const luma = 1.16438 * (i420[y * widthPx + x]! - 16);
      const u = i420[uAt + row + (x >> 1)]! - 128;
      const v = i420[vAt + row + (x >> 1)]! - 128;
      const to = 4 * (y * widthPx + x);
      rgba[to] = luma + 1.79274 * v;
      rgba[to + 1] = luma - 0.21325 * u - 0.53291 * v;
      rgba[to + 2] = luma + 2.1124 * u;
      rgba[to + 3] = 255;
    }
  }
  return { widthPx, heightPx, rgba, hasTransparency: false };
}
