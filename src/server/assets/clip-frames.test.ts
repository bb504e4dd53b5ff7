import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { ClipFacts } from '../../core/show/asset-facts';
import { EACH_FRAME, ownClipRate } from '../../core/timing/clip-rate';
import { CLIP_FRAME_MS, clipFrameAt, ownFrame } from '../../core/timing/clip-time';
import { FRAME_RATES, framesPerSecond } from '../../core/timing/frame-rate';
import { momentOfFrame } from '../../core/timing/frames';
import { exactReader } from '../ffmpeg/read-exactly';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { openClip, type ClipFrames } from './clip-frames';
import { frameTimes } from './frame-times';
import { lookAtFile } from './look-at-file';

const FILE = 'demo/files/PE_0489-boats.mp4';
const [WIDTH, HEIGHT] = [160, 90];
let inOrder: Uint8Array[];

async function frameOf(clip: ClipFrames, index: number): Promise<Uint8Array> {
  return Uint8Array.from((await clip.frame(index)).i420);
}

beforeAll(async () => {
  const clip = openClip(FILE, WIDTH, HEIGHT);
  inOrder = [];
  for (let index = 0; index < 240; index += 1) inOrder.push(await frameOf(clip, index));
  clip.close();
});

describe('a clip’s frames', () => {
  let clip: ClipFrames;
  beforeAll(() => {
    clip = openClip(FILE, WIDTH, HEIGHT);
  });
  afterAll(() => clip.close());

  it('are all there and differ, for the clip moves', () => {
    expect(inOrder.every((frame) => frame.length === (WIDTH * HEIGHT * 3) / 2)).toBe(true);
    expect(new Set(inOrder.map((frame) => Buffer.from(frame).toString('base64'))).size).toBeGreaterThan(200);
  });
  it.each([[0], [100], [101], [190], [35], [30], [239]])(
    'are the same however one comes to frame %d',
    async (index) => {
      expect(await frameOf(clip, index)).toEqual(inOrder[index]);
    },
  );
  it('are the same backwards, and then onwards again', async () => {
    const wanted = [...Array.from({ length: 75 }, (_, at) => 130 - at), 57, 58, 90, 89, 91];
    const found: number[] = [];
    for (const index of wanted) {
      const frame = await frameOf(clip, index);
      found.push(inOrder.findIndex((other) => Buffer.compare(frame, other) === 0));
    }
    expect(found).toEqual(wanted);
  });
  it('hold the last one past the end, also when entered there', async () => {
    const held: Record<number, Uint8Array> = {};
    for (const index of [240, 500]) held[index] = await frameOf(clip, index);
    for (const index of [240, 500])
      expect([index, inOrder.findIndex((frame) => Buffer.compare(frame, held[index]!) === 0)]).toEqual([index, 239]);
    const late = openClip(FILE, WIDTH, HEIGHT);
    expect(await frameOf(late, 241)).toEqual(inOrder[239]);
    late.close();
  });
});

describe('a clip with a rate of its own', () => {
  const RATES = {
    '23.976': '24000/1001',
    '24': '24',
    '25': '25',
    '29.97': '30000/1001',
    '50': '50',
    '59.94': '60000/1001',
    '60': '60',
  };
  const FRAMES = 130;
  const CODE = 37;
  let folder: string;
  /** A clip whose frames say by how light they are which they are; a hundred and one of them in a row differ. */
  const made = async (rate: string): Promise<string> => {
    const file = path.join(folder, `${rate.replace('/', '-')}.mp4`);
    const light = `geq=lum='20+mod(N*${CODE},101)*2':cb=128:cr=128`;
    const source = `color=c=gray:s=64x36:r=${rate},format=yuv420p,${light}`;
    await runFfmpeg([
      ...'-f lavfi -i'.split(' '),
      source,
      '-frames:v',
      String(FRAMES),
      ...'-c:v libx264 -qp 0 -y'.split(' '),
      file,
    ]);
    return file;
  };
  const lightOf = (frame: number) => 20 + ((frame * CODE) % 101) * 2;
  beforeAll(async () => {
    folder = await mkdtemp(path.join(tmpdir(), 'tanager-rates-'));
  });
  afterAll(() => rm(folder, { recursive: true, force: true }));

  it.each(Object.entries(RATES))(
    'of %s a second shows each of its frames once in a film of that rate, from the first that was chosen to the last',
    async (perSecond, text) => {
      const file = await made(text);
      const rate = FRAME_RATES[perSecond]!;
      const facts = (await lookAtFile(file)).facts as ClipFacts;
      const own = ownClipRate(facts)!;
      expect(own).toEqual(rate);
      const clip = openClip(file, 64, 36, undefined, own);
      const seen = async (clipFrame: number) => {
        const { i420 } = await clip.frame(ownFrame(clipFrame, own));
        return i420.subarray(0, 64 * 36).reduce((sum, value) => sum + value, 0) / (64 * 36);
      };
      const [first, last] = [31, 97];
      const times = { trimStartMs: momentOfFrame(first, rate), trimEndMs: momentOfFrame(last + 1, rate) };
      const slideMs = momentOfFrame(last - first + 20, rate);
      const at = (k: number) => clipFrameAt(times, facts.lengthMs, slideMs, momentOfFrame(k, rate), own);
      const wrong: number[][] = [];
      for (let k = 0; k <= last - first + 5; k += 1) {
        const wanted = Math.min(last, first + k);
        const light = await seen(at(k));
        if (Math.abs(light - lightOf(wanted)) > 1.5) wrong.push([k, light, lightOf(wanted)]);
      }
      expect(wrong).toEqual([]);
      // Backwards it is the same from behind.
      const from = (k: number) =>
        clipFrameAt({ ...times, backwards: true }, facts.lengthMs, slideMs, momentOfFrame(k, rate), own);
      for (const k of [0, 1, 2, 30, last - first, last - first + 3])
        expect([k, ownFrame(from(k), own)]).toEqual([k, Math.max(first, last - k)]);
      // However one comes to them.
      for (const k of [3, 60, 40, 0]) expect(Math.abs((await seen(at(k))) - lightOf(first + k))).toBeLessThan(1.5);
      clip.close();
    },
    60_000,
  );
  it('shows in a viewer, which counts thirty a second, the very frames of the film at those moments', async () => {
    for (const [perSecond, text] of Object.entries(RATES)) {
      const rate = FRAME_RATES[perSecond]!;
      const file = await made(text);
      const [usual, own] = [openClip(file, 64, 36), openClip(file, 64, 36, undefined, rate)];
      const lengthMs = momentOfFrame(FRAMES, rate);
      for (let slot = 0; slot < 60; slot += 1) {
        const at = (by: typeof rate | null) =>
          clipFrameAt({ trimStartMs: 0 }, lengthMs, lengthMs, (slot * 1000) / 30, by);
        const shown = (await usual.frame(at(null))).i420[0]!;
        const drawn = (await own.frame(ownFrame(at(rate), rate))).i420[0]!;
        expect([perSecond, slot, shown]).toEqual([perSecond, slot, drawn]);
      }
      usual.close();
      own.close();
    }
  }, 60_000);
  it.each(['mp4', 'avi', 'mkv'])(
    'of twelve a second as %s, frames packed in another order, says when each is shown',
    async (kind) => {
      const file = path.join(folder, `twelve.${kind}`);
      const source = 'testsrc2=s=64x36:r=12,format=yuv420p';
      const coded = '-c:v mpeg4 -bf 2 -q:v 3 -y'.split(' ');
      await runFfmpeg(['-f', 'lavfi', '-i', source, '-frames:v', '40', ...coded, file]);
      expect(ownClipRate((await lookAtFile(file)).facts as ClipFacts)).toBe(EACH_FRAME);
      const times = await frameTimes(file);
      expect(times).toHaveLength(40);
      times.forEach((at, frame) => expect(Math.abs(at - times[0]! - frame / 12)).toBeLessThan(0.002));
    },
  );
  it.each(['24', '29.97', '60'])(
    'and one whose frames come unevenly shows each in a film of %s a second when it stands in the clip',
    async (perSecond) => {
      const file = path.join(folder, 'uneven.mp4');
      // As a phone films in the dark: some stand for 17 ms, some for 90.
      const gaps = 'lt(mod(N,7),4)*N/30+gte(mod(N,7),4)*(N/30+0.016)+0.05*floor(N/7)';
      const light = `geq=lum='20+mod(N*${CODE},101)*2':cb=128:cr=128`;
      const source = `color=c=gray:s=64x36:r=30,format=yuv420p,${light},settb=1/15360,setpts='(${gaps})/TB'`;
      const coded = '-fps_mode passthrough -enc_time_base 1/15360 -c:v libx264 -qp 0 -y'.split(' ');
      await runFfmpeg(['-f', 'lavfi', '-i', source, '-frames:v', String(FRAMES), ...coded, file]);
      const begins = Array.from({ length: FRAMES }, (_, n) => {
        const late = n % 7 < 4 ? 0 : 0.016;
        return 1000 * (n / 30 + late + 0.05 * Math.floor(n / 7));
      });
      const facts = (await lookAtFile(file)).facts as ClipFacts;
      expect(ownClipRate(facts)).toBe(EACH_FRAME);
      expect([...(await frameTimes(file))].map((at) => Math.round(1000 * at))).toEqual(begins.map(Math.round));
      const clip = openClip(file, 64, 36, undefined, EACH_FRAME);
      const rate = FRAME_RATES[perSecond]!;
      const [first, last] = [31, 97];
      const times = { trimStartMs: begins[first]!, trimEndMs: begins[last + 1]! };
      const usedMs = times.trimEndMs - times.trimStartMs;
      const frames = Math.floor((usedMs * framesPerSecond(rate)) / 1000);
      const seen: number[] = [];
      const wrong: unknown[] = [];
      for (let k = 0; k < frames + 5; k += 1) {
        const atMs = momentOfFrame(k, rate);
        const counted = clipFrameAt(times, facts.lengthMs, usedMs + 1000, atMs, EACH_FRAME);
        const { i420 } = await clip.frame(ownFrame(counted, EACH_FRAME));
        // Half a usual frame early, as all clips are shown; moments are counted to a thousandth of a second.
        const moment = times.trimStartMs + atMs + CLIP_FRAME_MS / 2;
        const standing = [moment - 1.3, moment + 0.1].map((ms) => {
          const stands = begins.findLastIndex((begin) => begin < ms);
          return Math.min(last, Math.max(first, stands));
        });
        const shown = standing.find((frame) => Math.abs(i420[0]! - lightOf(frame)) <= 1.5);
        seen.push(shown ?? -1);
        if (shown === undefined) wrong.push([k, i420[0], standing.map(lightOf)]);
      }
      expect(wrong).toEqual([]);
      expect([seen[0], seen.at(-1)]).toEqual([first, last]);
      if (perSecond === '60') expect(new Set(seen).size).toBe(last - first + 1);
      // However one comes to them.
      for (const k of [60, 3, 40]) {
        const { i420 } = await clip.frame(
          ownFrame(clipFrameAt(times, facts.lengthMs, usedMs, momentOfFrame(k, rate), EACH_FRAME), EACH_FRAME),
        );
        expect(Math.abs(i420[0]! - lightOf(seen[k]!))).toBeLessThan(1.5);
      }
      clip.close();
    },
    60_000,
  );
});

describe('exactReader', () => {
  it('hands out a stream in the pieces asked for, whatever pieces it comes in', async () => {
    const reader = exactReader(
      Readable.from([Buffer.from('ab'), Buffer.from('c'), Buffer.from('defgh'), Buffer.from('i')]),
    );
    const pieces: string[] = [];
    for (const size of [1, 4, 0, 3, 9, 5]) pieces.push((await reader.read(size)).toString());
    expect(pieces).toEqual(['a', 'bcde', '', 'fgh', 'i', '']);
  });
});
