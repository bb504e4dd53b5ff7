import { CLIP_FRAMES_PER_SECOND } from '../../core/frame/frame-plan';
import type { AssetId } from '../../core/show/ids';
import type { PicturePart, PictureReader } from '../../drawing/picture-reader';
import type { Pixels } from '../../drawing/planes/picture-planes';
import { patientFetch } from './patient-fetch';
import type { Drawing2d } from '../../drawing/words/outline';

/** Seconds of clips kept as JPEG frames; a second takes about 1 MB. */
const MOST_SECONDS = 12;

/** Reads pictures and clips from the server's plates, decoded by the browser. For a worker. */
/**
 * @param show whose files they are
 * @param get how they are fetched
 */
export function createBrowserReader(
  show: string,
  get: (url: string) => Promise<Response> = patientFetch,
): PictureReader {
  const seconds = new Map<string, Promise<Blob[]>>();
  return {
    async readPicture(assetId, widthPx, heightPx, part) {
      const wholePx = part ? Math.min(16_384, Math.ceil((widthPx * part.ofWidthPx) / part.widthPx)) : widthPx;
      const response = await get(`/api/v1/shows/${show}/pictures/${assetId}?width=${wholePx}`);
      if (!response.ok) throw new Error('The picture could not be fetched from the server.');
      const blob = await response.blob();
      return part
        ? partOfBlob(blob, widthPx, heightPx, part)
        : pixelsOfBlob(blob, widthPx, heightPx, isTransparent(blob));
    },
    async readClipFrame(assetId, clipFrame, widthPx, heightPx) {
      const second = Math.floor(clipFrame / CLIP_FRAMES_PER_SECOND);
      const frames = await secondOf(assetId, second);
      const blob = frames[Math.min(frames.length - 1, clipFrame % CLIP_FRAMES_PER_SECOND)];
      if (!blob) throw new Error('The clip could not be fetched from the server.');
      return clipPixels(blob, widthPx, heightPx);
    },
  };

  function secondOf(assetId: AssetId, second: number): Promise<Blob[]> {
    const key = `${assetId} ${second}`;
    const kept = seconds.get(key);
    if (kept) return kept;
    const fetched = fetchSecond(assetId, second);
    seconds.set(key, fetched);
    fetched.catch(() => seconds.delete(key));
    if (seconds.size > MOST_SECONDS) seconds.delete(seconds.keys().next().value!);
    return fetched;
  }

  async function fetchSecond(assetId: AssetId, second: number): Promise<Blob[]> {
    const response = await get(`/api/v1/shows/${show}/clips/${assetId}/${second}`);
    // The header may promise a little more than the frames hold: the last one is held.
    if (response.status === 404 && second > 0) return secondOf(assetId, second - 1).then((frames) => frames.slice(-1));
    if (!response.ok) throw new Error('The clip could not be fetched from the server.');
    const bytes = await response.arrayBuffer();
    let from = 0;
    return (response.headers.get('x-frame-lengths') ?? '').split(',').map((length) => {
      const blob = new Blob([bytes.slice(from, from + Number(length))], { type: 'image/jpeg' });
      from += Number(length);
      return blob;
    });
  }
}

/** Plates with transparency, and only they, are handed out as WebP. */
function isTransparent(blob: Blob): boolean {
  return blob.type === 'image/webp';
}

/** A part in the file's own pixels lies between those of a smaller plate. */
async function partOfBlob(blob: Blob, widthPx: number, heightPx: number, part: PicturePart): Promise<Pixels> {
  let bitmap = await createImageBitmap(blob);
  const [resizeWidth, resizeHeight] = [
    Math.round((widthPx * part.ofWidthPx) / part.widthPx),
    Math.round((heightPx * part.ofHeightPx) / part.heightPx),
  ];
  // A canvas makes pictures smaller by halves, and moves what does not halve evenly by up to a sixth of a pixel.
  if (bitmap.width > resizeWidth) {
    bitmap.close();
    bitmap = await createImageBitmap(blob, { resizeWidth, resizeHeight, resizeQuality: 'high' });
  }
  const [scaleX, scaleY] = [bitmap.width / part.ofWidthPx, bitmap.height / part.ofHeightPx];
  const context = new OffscreenCanvas(widthPx, heightPx).getContext('2d', { willReadFrequently: true })!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(
    bitmap,
    part.left * scaleX,
    part.top * scaleY,
    part.widthPx * scaleX,
    part.heightPx * scaleY,
    0,
    0,
    widthPx,
    heightPx,
  );
  bitmap.close();
  return {
    widthPx,
    heightPx,
    rgba: context.getImageData(0, 0, widthPx, heightPx).data,
    hasTransparency: isTransparent(blob),
  };
}

async function pixelsOfBlob(blob: Blob, widthPx: number, heightPx: number, hasTransparency: boolean): Promise<Pixels> {
  const bitmap = await createImageBitmap(blob, {
    resizeWidth: widthPx,
    resizeHeight: heightPx,
    resizeQuality: 'high',
    premultiplyAlpha: hasTransparency ? 'premultiply' : 'none',
  });
  const context = new OffscreenCanvas(widthPx, heightPx).getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  return { widthPx, heightPx, rgba: context.getImageData(0, 0, widthPx, heightPx).data, hasTransparency };
}

/** Clip frames of one size follow each other: they share a canvas. */
let clipCanvas: OffscreenCanvasRenderingContext2D | null = null;

/** A frame larger than wanted is made smaller; a smaller one is handed out as it is, since the drawing scales it anyway and time is short between frames. */
async function clipPixels(blob: Blob, mostWidthPx: number, mostHeightPx: number): Promise<Pixels> {
  const bitmap = await createImageBitmap(blob);
  const widthPx = Math.min(mostWidthPx, bitmap.width);
  const heightPx = Math.min(mostHeightPx, bitmap.height);
  if (clipCanvas?.canvas.width !== widthPx || clipCanvas.canvas.height !== heightPx)
    clipCanvas = new OffscreenCanvas(widthPx, heightPx).getContext('2d', { willReadFrequently: true, alpha: false })!;
  const context = clipCanvas;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, widthPx, heightPx);
  bitmap.close();
  return { widthPx, heightPx, rgba: context.getImageData(0, 0, widthPx, heightPx).data, hasTransparency: false };
}

export const drawing2d: Drawing2d = {
  open(widthPx, heightPx) {
    const canvas = new OffscreenCanvas(widthPx, heightPx);
    const context = canvas.getContext('2d', { willReadFrequently: true })!;
    return { context, image: canvas, pixels: () => context.getImageData(0, 0, widthPx, heightPx).data };
  },
  path: (svg) => new Path2D(svg),
};
