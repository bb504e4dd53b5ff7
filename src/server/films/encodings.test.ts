import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { FilmSpec } from '../../core/film/film-spec';
import { FRAME_RATES } from '../../core/timing/frame-rate';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { startSegment } from './encode-segment';
import { probeFilm } from './probe-film';
import { AS_DRAWN, evenedArgs, framesBefore, segmentEncoding, type SegmentEncoding } from './encodings';

const spec: FilmSpec = {
  purpose: 'hand',
  format: 'mp4',
  shape: '16:9',
  widthPx: 640,
  heightPx: 360,
  rate: FRAME_RATES['30']!,
  quality: 'good',
} as FilmSpec;

const OF_SIX_SECONDS = { frameCount: 180, framesBefore: 0, framesAfter: 0 };

/** Values of an option, in order. */
const said = (args: readonly string[], option: string) =>
  args.flatMap((arg, at) => (args[at - 1] === option ? [arg] : []));

describe('the ends of a segment', () => {
  const encoding = segmentEncoding(spec);
  it('are told to the encoder: a first frame that gets what whole pictures get, and where what it only looks at begins', () => {
    const args = evenedArgs(encoding, { ...OF_SIX_SECONDS, framesAfter: 5 });
    expect(said(args, '-x264-params')[0]).toMatch(/:zones=0,0,b=1\.4$/);
    expect(said(args, '-force_key_frames')).toEqual(['expr:eq(n,180)']);
    expect(said(args, '-bsf:v')[0]).toContain('gte(n,180)');
  });
  it('end the stream where nothing follows', () => {
    const args = evenedArgs(encoding, OF_SIX_SECONDS);
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
      expect(evenedArgs(other, OF_SIX_SECONDS)).toBe(other.args);
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
  interface Stretch {
    readonly from: number;
    readonly to: number;
    readonly framesBefore?: number;
    readonly framesAfter?: number;
    /** Where a whole picture is asked for. */
    readonly whole?: number;
  }
  const encoded = async (encoding: SegmentEncoding, name: string, stretch: Stretch) => {
    const { from, to, framesBefore = 0, framesAfter = 0, whole } = stretch;
    const file = path.join(folder, name);
    const asked = whole === undefined ? [] : ['-force_key_frames', `expr:eq(n,${whole})`];
    const encoder = startSegment(
      file,
      SIZE,
      spec.rate,
      { ...encoding, args: [...encoding.args, ...asked] },
      { frameCount: to - from, framesBefore, framesAfter },
    );
    for (const frame of frames.slice(from, to + framesAfter)) await encoder.write(frame);
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

  /** By how much the frames about the border differ in likeness from those of a film in one go, at most, in dB. */
  const apart = async (encoding: SegmentEncoding, framesBefore: number, framesAfter: number) => {
    const inOne = await likeness(await encoded(encoding, 'one.mp4', { from: 0, to: FRAMES, whole: BORDER }));
    const inTwo = await likeness(
      await encoded(encoding, 'first.mp4', { from: 0, to: BORDER, framesAfter }),
      await encoded(encoding, 'second.mp4', { from: BORDER, to: FRAMES, framesBefore }),
    );
    const differences = inTwo.map((value, at) => Math.abs(value - inOne[at]!));
    return Math.max(...differences.slice(BORDER - 8, BORDER + 8));
  };

  it('are about their border as like what was drawn as if encoded in one go, within 0.3 dB, and hold no more frames than they should', async () => {
    const encoding = segmentEncoding({ ...spec, ...SIZE });
    expect(await apart(encoding, 0, encoding.looksAhead!)).toBeLessThan(0.3);
    // As it was when nothing was seen to come after it.
    expect(await apart(encoding, 0, 0)).toBeGreaterThan(0.5);
  });
  it('are so in HEVC too, where a segment begins as in the middle of a film', async () => {
    const encoding = segmentEncoding({ ...spec, ...SIZE, format: 'hevc' });
    expect(await apart(encoding, encoding.runIn!, 0)).toBeLessThan(0.3);
    // As it was when its first frames were shown once.
    expect(await apart(encoding, 0, 0)).toBeGreaterThan(0.5);
  });
  it('are the very frames of a film in one go in AV1, whose encoder goes by whether what came before was a complete group', async () => {
    const encoding = segmentEncoding({ ...spec, ...SIZE, format: 'av1' });
    expect(await apart(encoding, encoding.runIn!, encoding.looksAhead!)).toBe(0);
    // As it was when it saw neither what was before nor what comes after.
    expect(await apart(encoding, 0, 0)).toBeGreaterThan(0.1);
  });
  it('keep the moments of their frames, from the start of their clock, when they are run in', async () => {
    const encoding = segmentEncoding({ ...spec, ...SIZE, format: 'hevc' });
    const file = await encoded(encoding, 'run-in.mp4', { from: 0, to: BORDER, framesBefore: encoding.runIn! });
    const { times } = await probeFilm(file);
    expect(times).toHaveLength(BORDER);
    times.forEach((time, frame) => expect(Math.abs(time - frame / 30)).toBeLessThan(1e-4));
  });
  it('of a film that begins with them are not run in; short ones by no more than they have', () => {
    const segment = { index: 3, firstFrame: 90, endFrame: 270, followedBy: 5, follows: 90 };
    const encoding = { runIn: 3 } as SegmentEncoding;
    expect(framesBefore(segment, encoding)).toBe(3);
    expect(framesBefore({ ...segment, index: 0, follows: 0 }, encoding)).toBe(0);
    expect(framesBefore({ ...segment, endFrame: 92 }, encoding)).toBe(2);
    expect(framesBefore(segment, {} as SegmentEncoding)).toBe(0);
  });
  it('that follow a complete group are not run in where the encoder goes by that', () => {
    const encoding = { runIn: 2, groups: { ofFrames: 16, wholePictureEvery: 60 } } as SegmentEncoding;
    const after = (follows: number) =>
      framesBefore({ index: 1, firstFrame: 90, endFrame: 270, followedBy: 5, follows }, encoding);
    expect([61, 77, 93, 137, 153].map(after)).toEqual([0, 0, 0, 0, 0]);
    expect([60, 62, 90, 120, 180].map(after)).toEqual([2, 2, 2, 2, 2]);
  });
});
