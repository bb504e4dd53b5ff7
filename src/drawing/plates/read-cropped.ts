import type { CropPlan, PictureSize } from '../../core/frame/frame-plan';
import { partsOfTurn } from '../../core/motion/crop';
import type { AssetId } from '../../core/show/ids';
import type { PicturePart, PictureReader } from '../picture-reader';
import type { Pixels } from '../planes/picture-planes';

/** A straightened picture is read so much larger than it is wanted: taken between its pixels it then stays sharp. */
const OVERSAMPLE = 1.3;
/** What is read beyond a straightened crop, so that its border has neighbours. */
const MARGIN_PX = 2;

/** What a crop leaves of a picture, upright and at a size; the whole picture without one. */
export async function readCropped(
  reader: PictureReader,
  assetId: AssetId,
  crop: CropPlan | null,
  size: PictureSize,
): Promise<Pixels> {
  if (!crop) return reader.readPicture(assetId, size.widthPx, size.heightPx);
  const { quarter, straighten } = partsOfTurn(crop.framing.turnDegrees);
  const onItsSide = Math.abs(quarter) === 90;
  if (Math.abs(straighten) < 1e-6) {
    const part = partAround(crop, 0);
    const read = await reader.readPicture(
      assetId,
      onItsSide ? size.heightPx : size.widthPx,
      onItsSide ? size.widthPx : size.heightPx,
      part,
    );
    return quarterTurnedPixels(read, quarter);
  }
  const part = partAround(crop, MARGIN_PX);
  const wanted = Math.min(1, (OVERSAMPLE * size.widthPx) / (crop.framing.width * crop.ofWidthPx));
  const scale = Math.max(wanted, 4 / Math.min(part.widthPx, part.heightPx));
  const read = await reader.readPicture(
    assetId,
    Math.max(2, Math.round(part.widthPx * scale)),
    Math.max(2, Math.round(part.heightPx * scale)),
    part,
  );
  return turnedPixels(read, crop, part, size);
}

/** The upright part of the picture, in whole pixels, in which the crop lies. */
function partAround({ framing, ofWidthPx, ofHeightPx }: CropPlan, marginPx: number): PicturePart {
  const radians = (framing.turnDegrees * Math.PI) / 180;
  const [cos, sin] = [Math.abs(Math.cos(radians)), Math.abs(Math.sin(radians))];
  const [w, h] = [framing.width * ofWidthPx, framing.height * ofHeightPx];
  const across = (cos * w + sin * h) / 2;
  const down = (sin * w + cos * h) / 2;
  const from = (centre: number, half: number, of: number) =>
    Math.min(of - 1, Math.max(0, Math.floor(centre - half + 1e-3 - marginPx)));
  const to = (centre: number, half: number, of: number, least: number) =>
    Math.max(least + 1, Math.min(of, Math.ceil(centre + half - 1e-3 + marginPx)));
  const [x, y] = [framing.x * ofWidthPx, framing.y * ofHeightPx];
  const [left, top] = [from(x, across, ofWidthPx), from(y, down, ofHeightPx)];
  return {
    left,
    top,
    widthPx: to(x, across, ofWidthPx, left) - left,
    heightPx: to(y, down, ofHeightPx, top) - top,
    ofWidthPx,
    ofHeightPx,
  };
}

/** @param quarter the crop's turn on the picture; the picture then turns the other way */
function quarterTurnedPixels(pixels: Pixels, quarter: number): Pixels {
  const turn = ((quarter % 360) + 360) % 360;
  if (turn === 0) return pixels;
  const { widthPx: w, heightPx: h } = pixels;
  const [widthPx, heightPx] = turn === 180 ? [w, h] : [h, w];
  const aligned = pixels.rgba.byteOffset % 4 === 0 ? pixels.rgba : pixels.rgba.slice();
  const from = new Uint32Array(aligned.buffer, aligned.byteOffset, w * h);
  const to = new Uint32Array(w * h);
  // Column and row of the result to the place it is taken from.
  const [start, right, down] = turn === 180 ? [w * h - 1, -1, -w] : turn === 90 ? [w - 1, w, -1] : [(h - 1) * w, -w, 1];
  for (let y = 0; y < heightPx; y += 1) {
    let at = start + y * down;
    for (let x = 0; x < widthPx; x += 1, at += right) to[y * widthPx + x] = from[at]!;
  }
  return { widthPx, heightPx, rgba: new Uint8Array(to.buffer), hasTransparency: pixels.hasTransparency };
}

/** The crop taken out of a part of the picture, between its pixels; colours are weighed by their transparency. */
function turnedPixels(
  read: Pixels,
  { framing, ofWidthPx, ofHeightPx }: CropPlan,
  part: PicturePart,
  size: PictureSize,
): Pixels {
  const { widthPx: w, heightPx: h, rgba, hasTransparency } = read;
  const radians = (framing.turnDegrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
  const [scaleX, scaleY] = [w / part.widthPx, h / part.heightPx];
  const [stepX, stepY] = [(framing.width * ofWidthPx) / size.widthPx, (framing.height * ofHeightPx) / size.heightPx];
  const [centreX, centreY] = [framing.x * ofWidthPx - part.left, framing.y * ofHeightPx - part.top];
  const out = new Uint8Array(size.widthPx * size.heightPx * 4);
  for (let y = 0; y < size.heightPx; y += 1) {
    const v = (y + 0.5 - size.heightPx / 2) * stepY;
    for (let x = 0; x < size.widthPx; x += 1) {
      const u = (x + 0.5 - size.widthPx / 2) * stepX;
      const px = Math.min(w - 1, Math.max(0, (centreX + cos * u - sin * v) * scaleX - 0.5));
      const py = Math.min(h - 1, Math.max(0, (centreY + sin * u + cos * v) * scaleY - 0.5));
      const left = Math.min(w - 2, Math.floor(px));
      const top = Math.min(h - 2, Math.floor(py));
      const [fx, fy] = [px - left, py - top];
      const a = 4 * (top * w + left);
      const b = a + 4 * w;
      const to = 4 * (y * size.widthPx + x);
      if (!hasTransparency) {
        for (let channel = 0; channel < 3; channel += 1) {
          const upper = rgba[a + channel]! + (rgba[a + 4 + channel]! - rgba[a + channel]!) * fx;
          const under = rgba[b + channel]! + (rgba[b + 4 + channel]! - rgba[b + channel]!) * fx;
          out[to + channel] = upper + (under - upper) * fy + 0.5;
        }
        out[to + 3] = 255;
        continue;
      }
      const weights = [
        rgba[a + 3]! * (1 - fx) * (1 - fy),
        rgba[a + 7]! * fx * (1 - fy),
        rgba[b + 3]! * (1 - fx) * fy,
        rgba[b + 7]! * fx * fy,
      ] as const;
      const alpha = weights[0] + weights[1] + weights[2] + weights[3];
      out[to + 3] = alpha + 0.5;
      if (alpha === 0) continue;
      for (let channel = 0; channel < 3; channel += 1) {
        out[to + channel] =
          (rgba[a + channel]! * weights[0] +
            rgba[a + 4 + channel]! * weights[1] +
            rgba[b + channel]! * weights[2] +
            rgba[b + 4 + channel]! * weights[3]) /
            alpha +
          0.5;
      }
    }
  }
  return { widthPx: size.widthPx, heightPx: size.heightPx, rgba: out, hasTransparency };
}
