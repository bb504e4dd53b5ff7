import exifr from 'exifr';
import { tonePoints } from '../../core/light/histogram';
import type { PictureFacts } from '../../core/show/asset-facts';
import { DRAWING_SIDE_PX, isDrawing, openPicture } from './open-picture';
import { UnusableFileError } from './unusable-file-error';

/** 16,384 × 16,384: above any camera, below what would eat the machine. */
export const MOST_PIXELS = 268_435_456;

/** @throws {UnusableFileError} when it is too large, cut short or cannot be read */
export async function lookAtPicture(file: string): Promise<PictureFacts> {
  const size = await sizeOf(file);
  const small = await smallCopy(file);
  const tags = await exifr.parse(file, { pick: ['DateTimeOriginal', 'CreateDate', 'Make', 'Model'], reviveValues: false }).catch(() => undefined) as
    { DateTimeOriginal?: unknown; CreateDate?: unknown; Make?: unknown; Model?: unknown } | undefined;
  return {
    kind: 'picture',
    ...size,
    hasTransparency: small.hasTransparency,
    takenAt: localTime(tags?.DateTimeOriginal ?? tags?.CreateDate),
    camera: cameraName(tags?.Make, tags?.Model),
    brightness: small.brightness,
    tonePoints: small.tonePoints,
  };
}

async function sizeOf(file: string): Promise<{ widthPx: number; heightPx: number }> {
  try {
    const { width, height, autoOrient } = await (await openPicture(file, 64, { limitInputPixels: false })).metadata();
    if (await isDrawing(file)) {
      const scale = DRAWING_SIDE_PX / Math.max(width, height);
      return { widthPx: Math.max(1, Math.round(width * scale)), heightPx: Math.max(1, Math.round(height * scale)) };
    }
    if (width * height > MOST_PIXELS) throw new UnusableFileError(`The picture is ${width.toLocaleString('en')} × ${height.toLocaleString('en')} pixels; up to 268 million pixels can be read. Save a smaller copy.`);
    return { widthPx: autoOrient.width, heightPx: autoOrient.height };
  } catch (cause) {
    if (cause instanceof UnusableFileError) throw cause;
    throw new UnusableFileError('The picture cannot be read; its file is damaged. Copy it again from the camera or card.', { cause });
  }
}

/** Decodes the whole file once, strictly, at a small size: this notices a file that is cut short. */
async function smallCopy(file: string): Promise<{ hasTransparency: boolean; brightness: number; tonePoints: { black: number; white: number } }> {
  try {
    const picture = await openPicture(file, 64, { limitInputPixels: MOST_PIXELS, failOn: 'truncated' });
    const { data, info } = await picture.resize(64, 64, { fit: 'fill' }).toColourspace('srgb').ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    let alphaSum = 0;
    let brightnessSum = 0;
    let lowestAlpha = 255;
    const histogram = new Array<number>(256).fill(0);
    for (let at = 0; at < data.length; at += info.channels) {
      const alpha = data[at + 3]!;
      alphaSum += alpha;
      lowestAlpha = Math.min(lowestAlpha, alpha);
      const brightness = 0.2126 * data[at]! + 0.7152 * data[at + 1]! + 0.0722 * data[at + 2]!;
      brightnessSum += alpha * brightness;
      histogram[Math.round(brightness)]! += alpha;
    }
    return { hasTransparency: lowestAlpha < 250, brightness: alphaSum > 0 ? brightnessSum / alphaSum / 255 : 0, tonePoints: tonePoints(histogram) };
  } catch (cause) {
    throw new UnusableFileError('The file is cut short or damaged: it ends before the picture does. Copy it again from the camera or card.', { cause });
  }
}

/** EXIF writes 2031:06:14 21:08:33, the camera's own time. */
function localTime(tag: unknown): string | null {
  const match = typeof tag === 'string' ? /^(\d{4}):(\d\d):(\d\d) (\d\d):(\d\d):(\d\d)/.exec(tag) : null;
  return match ? `${match[1]}-${match[2]}-${match[3]}T${match[4]}:${match[5]}:${match[6]}` : null;
}

function cameraName(make: unknown, model: unknown): string | null {
  if (typeof model !== 'string' || model.trim() === '') return null;
  const maker = typeof make === 'string' ? make.trim() : '';
  const name = model.trim();
  return (maker && !name.startsWith(maker) ? `${maker} ${name}` : name).slice(0, 120);
}
