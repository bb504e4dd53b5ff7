import { readFile } from 'node:fs/promises';
import { Worker } from 'node:worker_threads';
import sharp from 'sharp';
import { heicWorkerFile } from '../paths';

/** What the thread answers: straight RGBA, upright. */
export type HeicPixels =
  { readonly width: number; readonly height: number; readonly data: Uint8Array } | { readonly problem: string };

/** Largest a camera makes; libheif would otherwise try to get memory for whatever the header says. */
const LARGEST_BYTES = 200 * 1024 * 1024;

/**
 * A HEIC picture as a JPEG of the highest quality with the file's own colour profile, upright. In a thread of its own: it takes half a second for each million pixels.
 *
 * @throws {Error} with libheif's own words when it cannot be read
 */
export async function decodeHeic(file: string): Promise<Buffer> {
  const bytes = await readFile(file);
  if (bytes.length > LARGEST_BYTES) throw new RangeError('a HEIC picture can be 200 MB at most');
  const { icc } = await sharp(bytes)
    .metadata()
    .catch(() => ({ icc: undefined }));
  const decoded = await decodedInThread(bytes);
  const jpeg = await sharp(decoded.data, { raw: { width: decoded.width, height: decoded.height, channels: 4 } })
    .flatten()
    .jpeg({ quality: 97, chromaSubsampling: '4:4:4' })
    .toBuffer();
  return icc ? withProfile(jpeg, icc) : jpeg;
}

function decodedInThread(bytes: Buffer): Promise<Extract<HeicPixels, { data: Uint8Array }>> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(heicWorkerFile(), { workerData: bytes });
    worker.once('message', (answer: HeicPixels) => {
      void worker.terminate();
      if ('problem' in answer) reject(new Error(answer.problem));
      else resolve(answer);
    });
    worker.once('error', reject);
    worker.once('exit', (code) => reject(new Error(`decoding ended with ${code}`)));
  });
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
