import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { ClipFacts } from '../../core/show/asset-facts';
import { ownClipRate } from '../../core/timing/clip-rate';
import { ownFrame } from '../../core/timing/clip-time';
import type { EvenedWay } from '../../core/timing/evened-clip';
import { FRAME_RATES, type FrameRate } from '../../core/timing/frame-rate';
import { probe, runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { openClip } from './clip-frames';
import { writeEvened } from './even-clip';
import { lookAtFile } from './look-at-file';

const [WIDTH, HEIGHT] = [320, 160];
/** A soft bright bar goes to the right by so many pixels a second, from 40 on. */
const PX_A_SECOND = 60;
const BAR = `geq=lum='40+180*exp(-pow((X-40-${PX_A_SECOND}*T)/12,2))':cb=128:cr=128`;
const THIRTY = FRAME_RATES['30']!;

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-evened-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** Three seconds of the bar, as so many frames a second of which some are left out. */
async function filmed(
  name: string,
  rate: number,
  keeping = '1',
  sound = 'aac',
): Promise<{ file: string; facts: ClipFacts }> {
  const file = path.join(folder, name);
  await runFfmpeg([
    ...[
      '-f',
      'lavfi',
      '-i',
      `color=black:s=${WIDTH}x${HEIGHT}:r=${rate}:d=3,format=yuv420p,${BAR},select='${keeping}'`,
    ],
    ...['-f', 'lavfi', '-i', 'sine=440:r=48000:d=3', '-fps_mode', 'passthrough', '-c:v', 'libx264', '-crf', '8'],
    ...['-metadata', 'creation_time=2026-06-20T17:04:00', '-c:a', sound, '-y', file],
  ]);
  return { file, facts: (await lookAtFile(file)).facts as ClipFacts };
}

async function evened(from: { file: string; facts: ClipFacts }, way: EvenedWay, rate: FrameRate = THIRTY) {
  const out = path.join(folder, `${way} ${rate.frames} of ${path.basename(from.file)}.mp4`);
  await writeEvened({ ...from, out }, { rate, way });
  return { file: out, facts: (await lookAtFile(out)).facts as ClipFacts };
}

/** Where the bar is in each of a clip's frames at its own rate: the middle of what is bright, along the middle line. */
async function places({ file, facts }: { file: string; facts: ClipFacts }, count: number): Promise<number[]> {
  const rate = ownClipRate(facts);
  const clip = openClip(file, WIDTH, HEIGHT, undefined, rate);
  const found: number[] = [];
  for (let frame = 0; frame < count; frame += 1) {
    const { i420 } = await clip.frame(rate ? ownFrame(frame, rate) : frame);
    let [sum, weight] = [0, 0];
    for (let x = 0; x < WIDTH; x += 1) {
      const bright = Math.max(0, i420[(HEIGHT / 2) * WIDTH + x]! - 60);
      sum += x * bright;
      weight += bright;
    }
    found.push(sum / weight);
  }
  clip.close();
  return found;
}
/** By how much the bar goes on from each frame to the next. */
const steps = (at: readonly number[]) => at.slice(1).map((x, index) => x - at[index]!);
const where = (second: number) => 40 + PX_A_SECOND * second;

describe('an evened copy of a clip', () => {
  it.each([
    ['mixed', 0.8],
    ['drawn', 1.5],
  ] as const)('of twelve frames a second moves from frame to frame, %s', async (way, jitter) => {
    const slow = await filmed(`slow ${way}.mp4`, 12);
    expect(steps(await places(slow, 60)).filter((by) => Math.abs(by) < 0.1).length).toBeGreaterThan(20);
    const copy = await evened(slow, way);
    expect(copy.facts).toMatchObject({ framesPerSecond: 30, widthPx: WIDTH, heightPx: HEIGHT });
    expect(copy.facts.uneven).toBeUndefined();
    const at = await places(copy, 84);
    for (const [frame, x] of at.entries()) expect(Math.abs(x - where(frame / 30))).toBeLessThan(1);
    // As it was filmed it stands and then jumps, two or three pixels away from that.
    for (const by of steps(at)) expect(Math.abs(by - PX_A_SECOND / 30)).toBeLessThan(jitter);
  });
  it('of frames that come unevenly goes on evenly, and is where the clip was at each moment', async () => {
    const uneven = await filmed('uneven.mp4', 30, 'not(eq(mod(n,7),2)+eq(mod(n,7),3)+eq(mod(n,11),5))');
    expect(uneven.facts.uneven).toBe(true);
    const copy = await evened(uneven, 'mixed');
    expect(copy.facts.uneven).toBeUndefined();
    for (const [frame, x] of (await places(copy, 84)).entries())
      expect(Math.abs(x - where(frame / 30))).toBeLessThan(1);
  });
  it.each([
    ['30 into 25', 30, FRAME_RATES['25']!, 25],
    ['25 into 29.97', 25, FRAME_RATES['29.97']!, 29.97],
    ['15 into 60', 15, FRAME_RATES['60']!, 60],
  ])('has the wanted rate: %s', async (name, filmedAt, rate, each) => {
    const copy = await evened(await filmed(`${name}.mp4`, filmedAt), 'mixed', rate);
    expect([copy.facts.framesPerSecond, copy.facts.uneven]).toEqual([each, undefined]);
  });
  it.each([
    ['sound.mp4', 'aac', 'aac'],
    ['sound.mov', 'pcm_s16le', 'alac'],
  ])('is as long, was taken when the clip was, and keeps its sound: %s', async (name, sound, kept) => {
    const clip = await filmed(name, 12, '1', sound);
    const copy = await evened(clip, 'mixed');
    expect(copy.facts).toMatchObject({ hasSound: true, takenAt: '2026-06-20T17:04:00' });
    expect(Math.abs(copy.facts.lengthMs - clip.facts.lengthMs)).toBeLessThan(40);
    const { streams } = await probe(copy.file);
    expect(streams.find((stream) => stream.codec_type === 'audio')?.codec_name).toBe(kept);
  });
  it('ends when it is not wanted any more', async () => {
    const clip = await filmed('left.mp4', 12);
    const left = new AbortController();
    const making = writeEvened(
      { ...clip, out: path.join(folder, 'left out.mp4') },
      { rate: THIRTY, way: 'drawn' },
      { signal: left.signal },
    );
    left.abort(new Error('left'));
    await expect(making).rejects.toThrow('left');
  });
});
