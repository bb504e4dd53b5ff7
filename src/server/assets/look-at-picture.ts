import { stat } from 'node:fs/promises';
import exifr from 'exifr';
import sharp, { type Sharp } from 'sharp';
import { tonePoints } from '../../core/light/histogram';
import { isRating } from '../../core/interchange/xmp';
import { darkBars } from '../../core/light/dark-bars';
import { likenessOf } from '../../core/light/likeness';
import { hexOf, MAIN_COLOURS, mainColours } from '../../core/light/main-colours';
import type { PictureFacts } from '../../core/show/asset-facts';
import { decodedCopy } from '../blobs/decoded-copy';
import { DRAWING_SIDE_PX, openPicture, pictureKind } from './open-picture';
import { notesOfRaw } from './raw-preview';
import { UnusableFileError } from './unusable-file-error';

/** 16,384 × 16,384: above any camera, below what would eat the machine. */
export const MOST_PIXELS = 268_435_456;
/** Width of the copy everything is measured on; it is the contact sheet's print as well, so that a picture is decoded once. */
export const SMALL_WIDTH_PX = 320;
const LIKENESS_SIDE = 64;
const CUT_SHORT =
  'The file is cut short or damaged: it ends before the picture does. Copy it again from the camera or card.';
const LONGEST_CAPTION = 2000;

export interface LookedAtPicture {
  readonly facts: PictureFacts;
  /** The whole picture, upright and in sRGB, `SMALL_WIDTH_PX` wide or as wide as it is. */
  readonly small: Sharp;
}

/** @throws {UnusableFileError} when it is too large, cut short or cannot be read */
export async function lookAtPicture(file: string): Promise<LookedAtPicture> {
  const size = await sizeOf(file);
  const small = await smallCopy(file);
  const tags = await tagsOf(file);
  const likeness = likenessOf(await greyOf(small), LIKENESS_SIDE);
  const bars = await barsOf(small);
  const caption = captionOf(tags);
  const place = placeOf(tags);
  const colours = mainColours(new Uint8ClampedArray(small.data), MAIN_COLOURS);
  return {
    facts: {
      kind: 'picture',
      ...size,
      ...measured(small),
      takenAt: localTime(tags.DateTimeOriginal ?? tags.CreateDate),
      camera: cameraName(tags),
      ...((await pictureKind(file)) === 'raw' && { raw: true as const }),
      ...(bars !== null && { bars }),
      ...(caption !== null && { caption }),
      ...(place !== null && { place }),
      ...ratingOf(tags),
      ...(colours.length > 0 && { colours }),
      ...(likeness !== null && { likeness }),
    },
    small: sharp(small.data, { raw: { width: small.widthPx, height: small.heightPx, channels: 4 } }),
  };
}

/** No way of packing pictures makes more than so many pixels of a byte: a file with less is a header and little else. */
const MOST_PIXELS_A_BYTE = 6000;

async function assertNotEmpty(file: string, pixels: number): Promise<void> {
  if ((await pictureKind(file)) !== 'other') return;
  const { size } = await stat(file);
  if (pixels > 1e6 && pixels > size * MOST_PIXELS_A_BYTE) throw new UnusableFileError(CUT_SHORT);
}

async function sizeOf(file: string): Promise<{ widthPx: number; heightPx: number }> {
  try {
    const { width, height, autoOrient } = await (await openPicture(file, 64, { limitInputPixels: false })).metadata();
    if ((await pictureKind(file)) === 'drawing') {
      const scale = DRAWING_SIDE_PX / Math.max(width, height);
      return { widthPx: Math.max(1, Math.round(width * scale)), heightPx: Math.max(1, Math.round(height * scale)) };
    }
    if (width * height > MOST_PIXELS)
      throw new UnusableFileError(
        `The picture is ${width.toLocaleString('en')} × ${height.toLocaleString('en')} pixels; up to 268 million pixels can be read. Save a smaller copy.`,
      );
    await assertNotEmpty(file, width * height);
    return { widthPx: autoOrient.width, heightPx: autoOrient.height };
  } catch (cause) {
    if (cause instanceof UnusableFileError) throw cause;
    throw new UnusableFileError(
      'The picture cannot be read; its file is damaged. Copy it again from the camera or card.',
      { cause },
    );
  }
}

interface SmallCopy {
  readonly data: Buffer;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Decodes the whole file once, strictly, at a small size: this notices a file that is cut short. */
async function smallCopy(file: string): Promise<SmallCopy> {
  try {
    const picture = await openPicture(file, SMALL_WIDTH_PX, { limitInputPixels: MOST_PIXELS, failOn: 'truncated' });
    const { data, info } = await picture
      .resize({ width: SMALL_WIDTH_PX, withoutEnlargement: true })
      .toColourspace('srgb')
      .ensureAlpha()
      .raw({ depth: 'uchar' })
      .toBuffer({ resolveWithObject: true });
    return { data, widthPx: info.width, heightPx: info.height };
  } catch (cause) {
    throw new UnusableFileError(CUT_SHORT, { cause });
  }
}

function measured({
  data,
}: SmallCopy): Pick<PictureFacts, 'hasTransparency' | 'brightness' | 'tonePoints' | 'meanColour'> {
  let alphaSum = 0;
  let brightnessSum = 0;
  let lowestAlpha = 255;
  const sums = [0, 0, 0];
  const histogram = new Array<number>(256).fill(0);
  for (let at = 0; at < data.length; at += 4) {
    const alpha = data[at + 3]!;
    alphaSum += alpha;
    lowestAlpha = Math.min(lowestAlpha, alpha);
    for (let channel = 0; channel < 3; channel += 1) sums[channel]! += alpha * data[at + channel]!;
    const brightness = 0.2126 * data[at]! + 0.7152 * data[at + 1]! + 0.0722 * data[at + 2]!;
    brightnessSum += alpha * brightness;
    histogram[Math.round(brightness)]! += alpha;
  }
  return {
    hasTransparency: lowestAlpha < 250,
    brightness: alphaSum > 0 ? brightnessSum / alphaSum / 255 : 0,
    tonePoints: tonePoints(histogram),
    ...(alphaSum > 0 && { meanColour: hexOf(sums.map((sum) => sum / alphaSum)) }),
  };
}

/** Pictures with transparency have no bars. */
async function barsOf({ data, widthPx, heightPx }: SmallCopy): Promise<PictureFacts['bars'] | null> {
  const { data: grey } = await sharp(data, { raw: { width: widthPx, height: heightPx, channels: 4 } })
    .flatten({ background: '#ffffff' })
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return darkBars(grey, widthPx, heightPx);
}

function greyOf({ data, widthPx, heightPx }: SmallCopy): Promise<Buffer> {
  return sharp(data, { raw: { width: widthPx, height: heightPx, channels: 4 } })
    .flatten()
    .resize(LIKENESS_SIDE, LIKENESS_SIDE, { fit: 'fill' })
    .greyscale()
    .raw()
    .toBuffer();
}

type Tags = Readonly<Record<string, unknown>>;

const SAID_BY_NAME = ['Rating', 'Sublocation', 'Location', 'City', 'Country'] as const;

async function tagsOf(file: string): Promise<Tags> {
  const wanted = [
    'DateTimeOriginal',
    'CreateDate',
    'Make',
    'Model',
    'FocalLength',
    'ImageDescription',
    'Caption',
    'description',
  ];
  const kind = await pictureKind(file);
  // Damaged notes about a picture are no reason to refuse the picture.
  const from = kind === 'raw' ? decodedCopy(file) : kind === 'heic' ? await notesOfHeic(file) : file;
  const tags = (await exifr
    .parse(from, { pick: wanted, iptc: true, xmp: true, reviveValues: false })
    .catch(() => undefined)) as Tags | undefined;
  // By these names the reader would look among the camera's own notes only.
  const said = (await exifr.parse(from, { tiff: false, iptc: true, xmp: true }).catch(() => undefined)) as
    Tags | undefined;
  const noted = SAID_BY_NAME.flatMap((name) => (said?.[name] === undefined ? [] : [[name, said[name]] as const]));
  return { ...tags, ...Object.fromEntries(noted), ...(kind === 'raw' && (await notesOfRaw(file))) };
}

/** Notes of HEIC are read from what libvips finds in it, since writers differ in how they wrap it. */
async function notesOfHeic(file: string): Promise<string | Buffer> {
  const { exif } = await sharp(file).metadata();
  return exif ? exif.subarray(exif.toString('latin1', 0, 4) === 'Exif' ? 6 : 0) : file;
}

/** EXIF writes 2031:06:14 21:08:33, the camera's own time. */
function localTime(tag: unknown): string | null {
  const match = typeof tag === 'string' ? /^(\d{4}):(\d\d):(\d\d) (\d\d):(\d\d):(\d\d)/.exec(tag) : null;
  return match ? `${match[1]}-${match[2]}-${match[3]}T${match[4]}:${match[5]}:${match[6]}` : null;
}

function cameraName({ Make: make, Model: model, FocalLength: focal }: Tags): string | null {
  if (typeof model !== 'string' || model.trim() === '') return null;
  const maker = typeof make === 'string' ? make.trim() : '';
  const name = model.trim();
  const lens = typeof focal === 'number' && focal > 0 && focal < 10_000 ? `, ${Math.round(focal)} mm` : '';
  return `${(maker && !name.startsWith(maker) ? `${maker} ${name}` : name).slice(0, 120)}${lens}`;
}

/** −1 is one that was refused; 0 says nothing. */
function ratingOf({ Rating: tag }: Tags): { rating?: number } {
  const rating = typeof tag === 'string' ? Number(tag) : tag;
  return typeof rating === 'number' && isRating(rating) ? { rating } : {};
}

/** The nearest two that somebody wrote of place, city and country, by IPTC or XMP. */
function placeOf({ Sublocation, Location, City, Country }: Tags): string | null {
  const written = [Sublocation ?? Location, City, Country].flatMap((tag) => {
    const text = typeof tag === 'string' ? tag.replaceAll('\0', '').trim() : '';
    return text === '' ? [] : [text];
  });
  return written.length === 0 ? null : written.slice(0, 2).join(', ').slice(0, LONGEST_CAPTION);
}

/** What somebody wrote, by any of the three standards; cameras fill the field with their own name or blanks, which is no caption. */
function captionOf({ description, Caption: iptc, ImageDescription: exif }: Tags): string | null {
  const xmp =
    typeof description === 'object' && description !== null ? (description as { value?: unknown }).value : description;
  for (const text of [xmp, iptc, exif]) {
    const written = typeof text === 'string' ? text.replaceAll('\0', '').trim() : '';
    if (written !== '' && !/^(\w+ )?digital camera$|^dav$|^default$/i.test(written))
      return written.slice(0, LONGEST_CAPTION);
  }
  return null;
}
