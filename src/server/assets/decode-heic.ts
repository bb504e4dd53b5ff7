import { readFile } from 'node:fs/promises';
import decode from 'heic-decode';
import sharp from 'sharp';

/** Largest a camera makes; libheif would otherwise try to get memory for whatever the header says. */
const LARGEST_BYTES = 200 * 1024 * 1024;

/**
 * A HEIC picture as a JPEG of the highest quality with the file's own colour profile, upright. It takes half a second for each million pixels, and blocks meanwhile: for decoder processes.
 *
 * @throws {Error} with libheif's own words when it cannot be read
 */
export async function decodeHeic(file: string): Promise<Buffer> {
  const bytes = await readFile(file);
  if (bytes.length > LARGEST_BYTES) throw new RangeError('a HEIC picture can be 200 MB at most');
  const { icc } = await sharp(bytes)
    .metadata()
    .catch(() => ({ icc: undefined }));
  const decoded = await decode({ buffer: bytes });
  const jpeg = await sharp(decoded.data, { raw: { width: decoded.width, height: decoded.height, channels: 4 } })
    .flatten()
    .jpeg({ quality: 97, chromaSubsampling: '4:4:4' })
    .toBuffer();
  return icc ? withProfile(jpeg, icc) : jpeg;
}

/** A JPEG with a colour profile put in after its first marker, in pieces as ICC.1:2022 annex B.4 says. */
function withProfile(jpeg: Buffer, icc: Buffer): Buffer {
  const most = 65_519;
  const count = Math.ceil(icc.length / most);
  const pieces = Array.from({ length: count }, (_, index) => {
    const part = icc.subarray(index * most, (index + 1) * most);
    const head = Buffer.concat([
      Buffer.from([0xff, 0xe2, 0, 0]),
      Buffer.from('ICC_PROFILE\0', 'latin1'),
      Buffer.from([index + 1, count]),
    ]);
    head.writeUInt16BE(head.length - 2 + part.length, 2);
    return Buffer.concat([head, part]);
  });
  return Buffer.concat([jpeg.subarray(0, 2), ...pieces, jpeg.subarray(2)]);
}
