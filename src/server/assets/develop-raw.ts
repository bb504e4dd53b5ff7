import { readFile } from 'node:fs/promises';
import path from 'node:path';
import type { DevelopedRaw, RawMetadata } from 'libraw-wasm/dist/libraw.js';
import sharp from 'sharp';
import { projectFolder } from '../paths';

/** Pictures whose half is still so wide are developed at half their size: four of the sensor's points make one of the picture's, with nothing guessed between them. */
const WIDE_ENOUGH_PX = 2880;
/** More points than any camera's sensor has; what a file claims beyond that is not believed. */
const MOST_POINTS = 200_000_000;
/** No camera packs a point of its sensor into less, in bits. */
const LEAST_BITS = 0.25;
/** What is not there is developed as a band at an edge in which nothing at all was seen, of so much of the picture at least; in what is only dark there is noise. */
const BAND = 1 / 16;
/** As the camera saw white; sRGB, 8 bits; what is too bright keeps what colour it has. */
const SETTINGS = { useCameraWb: true, outputColor: 1, outputBps: 8, highlight: 2 };

/**
 * What a camera's sensor saw, developed plainly into a JPEG, upright, with when and with what it was taken. By LibRaw, within the walls of WebAssembly. It takes some seconds
 * and blocks meanwhile: for decoder processes.
 *
 * @throws {CutShortError} when a part of what the sensor saw is not there
 * @throws {Error} when it cannot be read
 */
export async function developRaw(bytes: Uint8Array): Promise<Buffer> {
  const { default: makeLibRaw } = await import('libraw-wasm/dist/libraw.js');
  const said: string[] = [];
  const say = (line: string) => void said.push(line);
  // Made anew each time: its memory only grows, and goes with it.
  const { LibRaw } = await makeLibRaw({
    wasmBinary: await readFile(path.join(projectFolder(), 'node_modules/libraw-wasm/dist/libraw.wasm')),
    print: say,
    printErr: say,
  });
  try {
    const raw = new LibRaw();
    raw.open(bytes, SETTINGS);
    const sensor = raw.metadata(false);
    const points = sensor.raw_width * sensor.raw_height;
    if (points > MOST_POINTS) throw new RangeError(`a sensor can have ${MOST_POINTS} points at most, got ${points}`);
    if (8 * bytes.length < LEAST_BITS * points) throw new CutShortError();
    if (Math.max(sensor.width, sensor.height) / 2 >= WIDE_ENOUGH_PX) raw.open(bytes, { ...SETTINGS, halfSize: true });
    const developed = raw.imageData();
    if (!developed || said.some(saysDamaged) || hasEmptyBand(developed)) throw new CutShortError();
    const { width, height, colors, data } = developed;
    return await sharp(data.slice(0, width * height * colors), { raw: { width, height, channels: colors } })
      .jpeg({ quality: 97, chromaSubsampling: '4:4:4' })
      .withExif(notesOf(sensor))
      .toBuffer();
  } catch (cause) {
    // LibRaw throws what only it can read.
    if (cause instanceof Error) throw cause;
    throw said.some(saysDamaged) ? new CutShortError() : new Error('LibRaw cannot read it', { cause });
  }
}

/** What the sensor saw is not all there. */
export class CutShortError extends Error {
  override name = 'CutShortError';
}

const saysDamaged = (line: string) => /unexpected end|corrupted/i.test(line);

/** Whether in a band at one of the edges everything is 0. */
function hasEmptyBand({ width, height, colors, data }: DevelopedRaw): boolean {
  const isEmpty = (left: number, top: number, right: number, bottom: number) => {
    for (let y = top; y < bottom; y += 1)
      if (data.subarray(colors * (y * width + left), colors * (y * width + right)).some((value) => value !== 0))
        return false;
    return true;
  };
  const [wide, high] = [Math.max(1, Math.floor(width * BAND)), Math.max(1, Math.floor(height * BAND))];
  return (
    isEmpty(0, height - high, width, height) ||
    isEmpty(0, 0, width, high) ||
    isEmpty(0, 0, wide, height) ||
    isEmpty(width - wide, 0, width, height)
  );
}

/** As EXIF has them: when, with what, how long the lens. */
function notesOf({ camera_make: make, camera_model: model, focal_len: focal, timestamp }: RawMetadata): {
  readonly IFD0: Record<string, string>;
  readonly IFD2: Record<string, string>;
} {
  const at = timestamp > 0 ? new Date(1000 * timestamp).toISOString() : null;
  return {
    IFD0: { ...(make && { Make: make }), ...(model && { Model: model }) },
    IFD2: {
      ...(at && { DateTimeOriginal: `${at.slice(0, 10).replaceAll('-', ':')} ${at.slice(11, 19)}` }),
      ...(focal > 0 && { FocalLength: `${Math.round(focal * 10)}/10` }),
    },
  };
}
