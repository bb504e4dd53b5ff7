import { readFile, stat } from 'node:fs/promises';
import { CutShortError, developRaw } from './develop-raw';
import { UnusableFileError } from './unusable-file-error';

/** Above any camera's. */
const LARGEST_BYTES = 300 * 1024 * 1024;
/** The longer side of a preview that is as good as the picture, in a film of full HD. */
const FULL_SIDE_PX = 1920;
/** A preview with a shorter long side is a thumbnail, which nobody wants in a film. */
const LEAST_SIDE_PX = 1000;

const TAG = {
  description: 0x010e,
  make: 0x010f,
  model: 0x0110,
  orientation: 0x0112,
  photometric: 0x0106,
  compression: 0x0103,
  subIfds: 0x014a,
  exifIfd: 0x8769,
  takenAt: 0x9003,
  focalLength: 0x920a,
  dngVersion: 0xc612,
} as const;
/** Values that only what a sensor saw has (TIFF/EP, DNG 1.6, and makers' own ways of packing). */
const SENSOR_PHOTOMETRIC = new Set([32_803, 34_892]);
const SENSOR_COMPRESSION = new Set([32_767, 32_769, 32_770, 34_713, 65_000, 65_535]);

/** The notes in a RAW file, by the names EXIF gives them. */
export interface RawNotes {
  readonly Make?: string;
  readonly Model?: string;
  readonly ImageDescription?: string;
  readonly DateTimeOriginal?: string;
  readonly FocalLength?: number;
  /** 1…8, as in EXIF. */
  readonly orientation?: number;
}

/** Whether a file is what a camera's sensor saw, by its beginning. TIFF is told from RAW in TIFF's clothes by what its directories say. */
export function isRaw(head: Buffer): boolean {
  const starts = (text: string, at = 0) => head.toString('latin1', at, at + text.length) === text;
  if (starts('FUJIFILMCCD-RAW ') || starts('ftypcrx ', 4) || starts('HEAPCCDR', 6) || starts('\0MRM') || starts('FOVb'))
    return true;
  if (starts('IIRO') || starts('IIRS') || starts('MMOR') || starts('IIU\0')) return true;
  if (!starts('II*\0') && !starts('MM\0*')) return false;
  if (starts('CR', 8) || starts('IIII', 8) || starts('MMMM', 8)) return true;
  return directories(head).some(
    (tags) =>
      tags.has(TAG.dngVersion) ||
      SENSOR_PHOTOMETRIC.has(tags.get(TAG.photometric) as number) ||
      SENSOR_COMPRESSION.has(tags.get(TAG.compression) as number),
  );
}

/**
 * The picture of a RAW file, as a JPEG that says how it is turned: the largest finished one that the camera put into it, or where that is smaller than a film what the
 * sensor saw, developed plainly. Makers keep finished pictures in ways of their own; JPEGs begin and end in one way, so every beginning of one in the file is looked at
 * and the largest that is whole is taken.
 *
 * @throws {UnusableFileError} when there is neither
 */
export async function pictureOfRaw(file: string): Promise<Buffer> {
  const bytes = await bytesOf(file);
  const found = jpegsIn(bytes).sort((a, b) => b.widthPx * b.heightPx - a.widthPx * a.heightPx);
  const largest = found[0];
  const whole = found.find((jpeg) => jpeg.widthPx === largest?.widthPx && endOfJpeg(bytes, jpeg) !== null);
  const sidePx = whole ? Math.max(whole.widthPx, whole.heightPx) : 0;
  if (whole && sidePx >= FULL_SIDE_PX) return finished(bytes, whole);
  try {
    return await developRaw(bytes);
  } catch (cause) {
    if (whole && sidePx >= LEAST_SIDE_PX) return finished(bytes, whole);
    throw new UnusableFileError(whyNot(largest, (largest && !whole) || cause instanceof CutShortError), { cause });
  }
}

function whyNot(largest: FoundJpeg | undefined, isCutShort: boolean): string {
  if (isCutShort) return 'The RAW file is cut short or damaged. Copy it again from the camera or card.';
  const holds = largest ? `only a thumbnail (${largest.widthPx} × ${largest.heightPx})` : 'no finished picture';
  return `This RAW file holds ${holds}, and what its sensor saw cannot be read. Develop it, save it as JPEG or TIFF and bring that.`;
}

function finished(bytes: Buffer, whole: FoundJpeg): Buffer {
  const jpeg = bytes.subarray(whole.at, endOfJpeg(bytes, whole)!);
  const { orientation } = notesIn(bytes);
  return orientation !== undefined && orientation > 1 && !whole.hasNotes ? withOrientation(jpeg, orientation) : jpeg;
}

/** What a RAW file's own directories say. */
export async function notesOfRaw(file: string): Promise<RawNotes> {
  return notesIn(await bytesOf(file));
}

async function bytesOf(file: string): Promise<Buffer> {
  if ((await stat(file)).size > LARGEST_BYTES) throw new UnusableFileError('A RAW file can be 300 MB at most.');
  return readFile(file);
}

function notesIn(bytes: Buffer): RawNotes {
  const all = tiffsIn(bytes).flatMap(directories);
  const values = (tag: number) => all.map((tags) => tags.get(tag));
  const text = (tag: number) => values(tag).find((value) => typeof value === 'string' && value !== '');
  const number = (tag: number) => values(tag).find((value) => typeof value === 'number');
  const notes = {
    Make: text(TAG.make),
    Model: text(TAG.model),
    ImageDescription: text(TAG.description),
    DateTimeOriginal: text(TAG.takenAt),
    FocalLength: number(TAG.focalLength),
    orientation: number(TAG.orientation),
  };
  return Object.fromEntries(Object.entries(notes).filter(([, value]) => value !== undefined));
}

/** Where directories begin: the file itself, or for a file of boxes (CR3) the boxes that hold one each. */
function tiffsIn(bytes: Buffer): Buffer[] {
  if (bytes.toString('latin1', 4, 12) !== 'ftypcrx ') return [bytes];
  return ['CMT1', 'CMT2'].flatMap((name) => {
    const at = bytes.indexOf(name, 0, 'latin1');
    if (at < 4) return [];
    return [bytes.subarray(at + 4, at - 4 + bytes.readUInt32BE(at - 4))];
  });
}

type Tags = ReadonlyMap<number, number | string>;

/** More than any camera writes; rings end here. */
const MOST_DIRECTORIES = 24;
const MOST_ENTRIES = 512;

/** Every directory of a TIFF that lies within the bytes at hand: those that follow one another, those below, and EXIF's. */
function directories(bytes: Buffer): Tags[] {
  const little = bytes.toString('latin1', 0, 2) === 'II';
  const u16 = (at: number) => (little ? bytes.readUInt16LE(at) : bytes.readUInt16BE(at));
  const u32 = (at: number) => (little ? bytes.readUInt32LE(at) : bytes.readUInt32BE(at));
  const found: Tags[] = [];
  if (bytes.length < 8) return found;
  const waiting = [u32(4)];
  const seen = new Set<number>();
  while (waiting.length > 0 && found.length < MOST_DIRECTORIES) {
    const at = waiting.shift()!;
    if (at < 8 || at + 2 > bytes.length || seen.has(at)) continue;
    seen.add(at);
    const count = u16(at);
    const end = at + 2 + 12 * count;
    if (count > MOST_ENTRIES || end > bytes.length) continue;
    const tags = new Map<number, number | string>();
    for (let entry = at + 2; entry < end; entry += 12) {
      const tag = u16(entry);
      if (tag === TAG.subIfds || tag === TAG.exifIfd) waiting.push(...pointers(entry));
      const value = valueAt(entry);
      if (value !== null) tags.set(tag, value);
    }
    found.push(tags);
    if (end + 4 <= bytes.length) waiting.push(u32(end));
  }
  return found;

  function pointers(entry: number): number[] {
    const count = Math.min(u32(entry + 4), MOST_DIRECTORIES);
    if (count === 1) return [u32(entry + 8)];
    const at = u32(entry + 8);
    return Array.from({ length: count }, (_, index) => at + 4 * index)
      .filter((place) => place + 4 <= bytes.length)
      .map(u32);
  }

  function valueAt(entry: number): number | string | null {
    const [type, count] = [u16(entry + 2), u32(entry + 4)];
    if (type === 1) return bytes[entry + 8]!;
    if (type === 3) return u16(entry + 8);
    if (type === 4) return u32(entry + 8);
    if (type === 5) {
      const at = u32(entry + 8);
      return at + 8 <= bytes.length && u32(at + 4) > 0 ? u32(at) / u32(at + 4) : null;
    }
    if (type !== 2 || count > 4096) return null;
    const at = count <= 4 ? entry + 8 : u32(entry + 8);
    return at + count <= bytes.length
      ? bytes
          .toString('utf8', at, at + count)
          .replace(/\0.*$/s, '')
          .trim()
      : null;
  }
}

interface FoundJpeg {
  readonly at: number;
  readonly widthPx: number;
  readonly heightPx: number;
  /** It carries EXIF of its own. */
  readonly hasNotes: boolean;
  /** Where its packed data begins. */
  readonly dataAt: number;
}

const BEGINNING = Buffer.from([0xff, 0xd8, 0xff]);

/** Every JPEG that a usual reader reads (baseline or progressive, not lossless as sensors' data are packed), ITU-T T.81 annex B. */
function jpegsIn(bytes: Buffer): FoundJpeg[] {
  const found: FoundJpeg[] = [];
  for (let at = bytes.indexOf(BEGINNING); at >= 0; at = bytes.indexOf(BEGINNING, at + 1)) {
    const jpeg = jpegAt(bytes, at);
    if (jpeg) found.push(jpeg);
  }
  return found;
}

function jpegAt(bytes: Buffer, at: number): FoundJpeg | null {
  let size: { widthPx: number; heightPx: number } | null = null;
  let hasNotes = false;
  let place = at + 2;
  while (place + 9 < bytes.length && bytes[place] === 0xff) {
    const marker = bytes[place + 1]!;
    if (marker >= 0xc0 && marker <= 0xc2)
      size = { heightPx: bytes.readUInt16BE(place + 5), widthPx: bytes.readUInt16BE(place + 7) };
    else if (marker >= 0xc3 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xcc) return null;
    else if (marker === 0xe1 && bytes.toString('latin1', place + 4, place + 8) === 'Exif') hasNotes = true;
    else if (marker < 0xc0) return null;
    const next = place + 2 + bytes.readUInt16BE(place + 2);
    if (marker === 0xda)
      return size && size.widthPx > 0 && size.heightPx > 0 ? { at, ...size, hasNotes, dataAt: next } : null;
    place = next;
  }
  return null;
}

/** Where a JPEG ends; null when the file does before. In packed data FF is followed by 00 or the number of a restart. */
function endOfJpeg(bytes: Buffer, { dataAt }: FoundJpeg): number | null {
  let at = bytes.indexOf(0xff, dataAt);
  while (at >= 0 && at + 1 < bytes.length) {
    const marker = bytes[at + 1]!;
    if (marker === 0xd9) return at + 2;
    const isData = marker === 0 || marker === 0xff || (marker >= 0xd0 && marker <= 0xd7);
    if (!isData && at + 4 > bytes.length) return null;
    at = bytes.indexOf(0xff, isData ? at + (marker === 0xff ? 1 : 2) : at + 2 + bytes.readUInt16BE(at + 2));
  }
  return null;
}

/** The JPEG with an EXIF block that says nothing but how it is turned. */
function withOrientation(jpeg: Buffer, orientation: number): Buffer {
  const block = Buffer.from(
    'ffe10022457869660000' + '4d4d002a00000008' + '0001' + '0112' + '0003' + '00000001' + '00000000' + '00000000',
    'hex',
  );
  block.writeUInt16BE(orientation, 28);
  return Buffer.concat([jpeg.subarray(0, 2), block, jpeg.subarray(2)]);
}
