import { crc32 } from 'node:zlib';

/**
 * A picture without what was noted in it – where it was taken, with which camera and lens, by whom, small copies of it –, its pixels as they were, byte for byte. How
 * it is to be turned and its colour profile stay. JPEG (ISO 10918-1), PNG (W3C) and WebP (RFC 9649); other files are given back as they are.
 *
 * @returns the same bytes when there is nothing to leave out, or when they cannot be read
 */
export function withoutNotes(bytes: Uint8Array): Uint8Array {
  const file = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  try {
    if (file.readUInt16BE(0) === JPEG_START) return jpegWithout(file) ?? bytes;
    if (file.subarray(0, 8).equals(PNG_START)) return pngWithout(file) ?? bytes;
    if (file.toString('latin1', 0, 4) === 'RIFF' && file.toString('latin1', 8, 12) === 'WEBP')
      return webpWithout(file) ?? bytes;
  } catch (error) {
    // A file that ends where it says there is more.
    if ((error as Error).name !== 'RangeError') throw error;
  }
  return bytes;
}

const JPEG_START = 0xffd8;
const PNG_START = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
const UPRIGHT = 1;

function jpegWithout(file: Buffer): Buffer | null {
  const kept: Buffer[] = [];
  let turn = UPRIGHT;
  let left = 0;
  let at = 2;
  for (;;) {
    if (file[at] !== 0xff) return null;
    const marker = file[at + 1]!;
    if (marker === 0xd9) break;
    const end = at + 2 + file.readUInt16BE(at + 2);
    const segment = file.subarray(at, end);
    if (marker === 0xe1 && segment.toString('latin1', 4, 10) === 'Exif\0\0')
      turn = turnIn(segment.subarray(10)) ?? turn;
    if (isNote(marker, segment)) left += segment.length;
    else kept.push(segment);
    at = end;
    if (marker !== 0xda) continue;
    // What was scanned runs on to the next marker that is neither a byte that was kept from being one nor a restart.
    const from = at;
    while (!(file[at] === 0xff && file[at + 1] !== 0 && !(file[at + 1]! >= 0xd0 && file[at + 1]! <= 0xd7))) {
      at += 1;
      if (at >= file.length) return null;
    }
    kept.push(file.subarray(from, at));
  }
  // Whatever comes after the picture’s end is another picture, a film, or what a maker left there.
  left += file.length - at - 2;
  const note = turn === UPRIGHT ? [] : [exifSegment(turn)];
  // With nothing left out but a note that would be written again as it was, it is the same file.
  if (left === 0 || (note.length > 0 && left === note[0]!.length)) return null;
  const [first, ...rest] = kept;
  const isJfif = first?.[1] === 0xe0;
  const body = isJfif ? [first!, ...note, ...rest] : [...note, ...kept];
  return Buffer.concat([Buffer.from([0xff, 0xd8]), ...body, Buffer.from([0xff, 0xd9])]);
}

/** Segments of makers and comments, but for those that say how its colours are meant. */
function isNote(marker: number, segment: Buffer): boolean {
  if (marker === 0xfe) return true;
  if (marker < 0xe1 || marker > 0xef || marker === 0xee) return false;
  return !(marker === 0xe2 && segment.toString('latin1', 4, 15) === 'ICC_PROFILE');
}

/** How a picture is to be turned by its notes (TIFF 6.0, tag 274). @returns null when they do not say */
function turnIn(tiff: Buffer): number | null {
  const little = tiff.toString('latin1', 0, 2) === 'II';
  const short = (at: number) => (little ? tiff.readUInt16LE(at) : tiff.readUInt16BE(at));
  const long = (at: number) => (little ? tiff.readUInt32LE(at) : tiff.readUInt32BE(at));
  try {
    const directory = long(4);
    for (let entry = 0; entry < short(directory); entry += 1) {
      const at = directory + 2 + entry * 12;
      if (short(at) !== 0x0112) continue;
      const turn = short(at + 8);
      return turn >= 1 && turn <= 8 ? turn : null;
    }
  } catch (error) {
    if ((error as Error).name !== 'RangeError') throw error;
  }
  return null;
}

/** Some programs write the head of JPEG’s segment before the notes of other files. */
const tiffIn = (exif: Buffer): Buffer => (exif.toString('latin1', 0, 6) === 'Exif\0\0' ? exif.subarray(6) : exif);

/** Notes that say nothing but how the picture is to be turned. */
function tiffOf(turn: number): Buffer {
  const tiff = Buffer.alloc(26);
  tiff.write('MM\0*', 0, 'latin1');
  tiff.writeUInt32BE(8, 4);
  tiff.writeUInt16BE(1, 8);
  tiff.writeUInt16BE(0x0112, 10);
  tiff.writeUInt16BE(3, 12);
  tiff.writeUInt32BE(1, 14);
  tiff.writeUInt16BE(turn, 18);
  return tiff;
}

function exifSegment(turn: number): Buffer {
  const body = Buffer.concat([Buffer.from('Exif\0\0', 'latin1'), tiffOf(turn)]);
  const head = Buffer.from([0xff, 0xe1, 0, 0]);
  head.writeUInt16BE(body.length + 2, 2);
  return Buffer.concat([head, body]);
}

const PNG_NOTES = new Set(['tEXt', 'zTXt', 'iTXt', 'eXIf', 'tIME']);

function pngWithout(file: Buffer): Buffer | null {
  const kept: Buffer[] = [PNG_START];
  let turn = UPRIGHT;
  let left = 0;
  for (let at = PNG_START.length; at < file.length;) {
    const end = at + 12 + file.readUInt32BE(at);
    const name = file.toString('latin1', at + 4, at + 8);
    if (end > file.length) return null;
    if (name === 'eXIf') turn = turnIn(file.subarray(at + 8, end - 4)) ?? turn;
    if (PNG_NOTES.has(name)) left += end - at;
    else kept.push(file.subarray(at, end));
    at = name === 'IEND' ? file.length : end;
    // After its end there is nothing of the picture.
    if (name === 'IEND') left += file.length - end;
  }
  if (turn !== UPRIGHT) {
    const note = pngChunk('eXIf', tiffOf(turn));
    left -= note.length;
    // Before what is drawn: behind the head.
    kept.splice(2, 0, note);
  }
  return left === 0 ? null : Buffer.concat(kept);
}

function pngChunk(name: string, data: Buffer): Buffer {
  const chunk = Buffer.alloc(data.length + 12);
  chunk.writeUInt32BE(data.length, 0);
  chunk.write(name, 4, 'latin1');
  data.copy(chunk, 8);
  chunk.writeUInt32BE(crc32(chunk.subarray(4, data.length + 8)), data.length + 8);
  return chunk;
}

const WEBP_NOTES = new Set(['EXIF', 'XMP ']);
/** Bits of the extended head that say that there are such notes: EXIF, XMP. */
const WEBP_EXIF = 0x08;
const WEBP_NOTED = 0x0c;

function webpWithout(file: Buffer): Buffer | null {
  const kept: Buffer[] = [];
  let turn = UPRIGHT;
  let left = 0;
  for (let at = 12; at < file.length;) {
    const name = file.toString('latin1', at, at + 4);
    const size = file.readUInt32LE(at + 4);
    const end = at + 8 + size + (size % 2);
    if (name === 'EXIF') turn = turnIn(tiffIn(file.subarray(at + 8, at + 8 + size))) ?? turn;
    if (WEBP_NOTES.has(name)) left += end - at;
    else {
      const chunk = Buffer.from(file.subarray(at, end));
      if (name === 'VP8X') chunk[8] = chunk[8]! & ~WEBP_NOTED;
      kept.push(chunk);
    }
    at = end;
  }
  if (turn !== UPRIGHT) {
    const head = Buffer.from('EXIF\0\0\0\0', 'latin1');
    const tiff = tiffOf(turn);
    head.writeUInt32LE(tiff.length, 4);
    left -= head.length + tiff.length;
    kept.push(head, tiff);
    const extended = kept.find((chunk) => chunk.toString('latin1', 0, 4) === 'VP8X');
    if (extended) extended[8] = extended[8]! | WEBP_EXIF;
  }
  if (left === 0) return null;
  const body = Buffer.concat(kept);
  const head = Buffer.from('RIFF\0\0\0\0WEBP', 'latin1');
  head.writeUInt32LE(body.length + 4, 4);
  return Buffer.concat([head, body]);
}
