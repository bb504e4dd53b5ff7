import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { FilmSpec } from '../../core/film/film-spec';
import { FRAME_RATES } from '../../core/timing/frame-rate';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { startSegment } from './encode-segment';
import { AS_DRAWN, evenedArgs, segmentEncoding } from './encodings';

const spec: FilmSpec = {
  purpose: 'hand',
  format: 'mp4',
  shape: '16:9',
  widthPx: 640,
  heightPx: 360,
  rate: FRAME_RATES['30']!,
  quality: 'good',
} as FilmSpec;

/** Values of an option, in order. */
const said = (args: readonly string[], option: string) =>
  args.flatMap((arg, at) => (args[at - 1] === option ? [arg] : []));

describe('the ends of a segment', () => {
  const encoding = segmentEncoding(spec);
  it('are told to the encoder: a first frame that gets what whole pictures get, and where what it only looks at begins', () => {
    const args = evenedArgs(encoding, 180, 5);
    expect(said(args, '-x264-params')[0]).toMatch(/:zones=0,0,b=1\.4$/);
    expect(said(args, '-force_key_frames')).toEqual(['expr:eq(n,180)']);
    expect(said(args, '-bsf:v')[0]).toContain('gte(n,180)');
  });
  it('end the stream where nothing follows', () => {
    const args = evenedArgs(encoding, 180, 0);
    expect(said(args, '-force_key_frames')).toEqual([]);
    expect(said(args, '-bsf:v')).toEqual([]);
  });
  it('are let be by other encoders', () => {
    for (const other of [
      AS_DRAWN,
      segmentEncoding({ ...spec, format: 'hevc' }),
      segmentEncoding({ ...spec, format: 'vp9' }),
    ]) {
      expect(other.looksAhead ?? 0).toBe(0);
      expect(evenedArgs(other, 180, 0)).toBe(other.args);
    }
  });
});

describe('two segments joined', () => {
  const [FRAMES, BORDER] = [48, 24];
  const SIZE = { widthPx: 320, heightPx: 180 };
  const BYTES = (SIZE.widthPx * SIZE.heightPx * 3) / 2;
  let folder: string;
  beforeAll(async () => {
    folder = await mkdtemp(path.join(tmpdir(), 'tanager-borders-'));
  });
  afterAll(() => rm(folder, { recursive: true, force: true }));

  /** A slow pan over something busy. */
  const frames = Array.from({ length: FRAMES }, (_, frame) => {
    const bytes = new Uint8Array(BYTES).fill(128);
    for (let y = 0; y < SIZE.heightPx; y += 1)
      for (let x = 0; x < SIZE.widthPx; x += 1) {
        const at = x + 0.6 * frame;
        bytes[y * SIZE.widthPx + x] = 120 + 50 * Math.sin(at / 3 + y / 7) + 40 * Math.sin(at * 0.9 - y * 0.8);
      }
    return bytes;
  });
  const encoding = segmentEncoding({ ...spec, ...SIZE });
  const encoded = async (name: string, first: number, end: number, after: number, keys?: string) => {
    const file = path.join(folder, name);
    const own = keys ? { ...encoding, args: [...encoding.args, '-force_key_frames', keys] } : encoding;
    const encoder = startSegment(file, SIZE, spec.rate, own, { frameCount: end - first, framesAfter: after });
    for (const frame of frames.slice(first, end + after)) await encoder.write(frame);
    await encoder.finish();
    return file;
  };
  /** PSNR of each frame of some files in a row with what was drawn, in dB. */
  const likeness = async (...files: string[]) => {
    const decoded: Buffer[] = [];
    for (const [at, file] of files.entries()) {
      const raw = path.join(folder, `raw${at}.yuv`);
      await runFfmpeg(['-i', file, '-fps_mode', 'passthrough', '-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-y', raw]);
      decoded.push(await readFile(raw));
    }
    const all = Buffer.concat(decoded);
    expect(all.length).toBe(FRAMES * BYTES);
    return frames.map((frame, at) => {
      let sum = 0;
      frame.forEach((value, byte) => (sum += (value - all[at * BYTES + byte]!) ** 2));
      return 10 * Math.log10(255 ** 2 / (sum / BYTES));
    });
  };

  it('are about their border as like what was drawn as if encoded in one go, within 0.3 dB, and hold no more frames than they should', async () => {
    const inOne = await likeness(await encoded('one.mp4', 0, FRAMES, 0, `expr:eq(n,${BORDER})`));
    const second = await encoded('second.mp4', BORDER, FRAMES, 0);
    const apart = async (after: number) => {
      const inTwo = await likeness(await encoded(`first-${after}.mp4`, 0, BORDER, after), second);
      const differences = inTwo.map((value, at) => Math.abs(value - inOne[at]!));
      return Math.max(...differences.slice(BORDER - 8, BORDER + 8));
    };
    expect(await apart(encoding.looksAhead!)).toBeLessThan(0.3);
    // As it was when nothing was seen to come after it.
    expect(await apart(0)).toBeGreaterThan(0.5);
  });
});
