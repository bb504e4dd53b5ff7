import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { assetId } from '../../core/show/ids';
import { MIX_SAMPLE_RATE, type MixPart } from '../../core/sound/mix-plan';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { writeMix } from './write-mix';

const TONE = assetId('1'.repeat(64));
let folder: string;
const tone = () => path.join(folder, 'tone.wav');
const outFile = () => path.join(folder, 'mix.f32');

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-mix-'));
  // Three seconds that rise from 0 to 0.6: the value says where in the file a sample comes from.
  await runFfmpeg(['-f', 'lavfi', '-i', 'aevalsrc=0.2*t|0.2*t:s=48000:d=3', '-c:a', 'pcm_f32le', '-y', tone()]);
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

const part = (startMs: number, lengthMs: number, fromMs: number, gain = 1): MixPart => ({
  kind: 'music',
  assetId: TONE,
  startMs,
  lengthMs,
  fromMs,
  gains: [{ atMs: startMs, gain }],
});

async function mixed(parts: MixPart[], seconds: number): Promise<(atS: number) => number> {
  await writeMix(
    { lengthMs: seconds * 1000, parts, masterGain: 1 },
    { fileOf: tone, outFile: outFile(), sampleCount: seconds * MIX_SAMPLE_RATE },
  );
  const bytes = await readFile(outFile());
  expect(bytes.length).toBe(seconds * MIX_SAMPLE_RATE * 8);
  const samples = new Float32Array(Uint8Array.from(bytes).buffer);
  return (atS) => samples[2 * Math.round(atS * MIX_SAMPLE_RATE)]!;
}

describe('writeMix', () => {
  it('puts each part where it belongs, from where it should, and silence elsewhere', async () => {
    const at = await mixed([part(1500, 1000, 500)], 4);
    expect([at(0.5), at(1.49), at(2.51), at(3.9)]).toEqual([0, 0, 0, 0]);
    expect(at(1.5)).toBeCloseTo(0.2 * 0.5, 3);
    expect(at(2.2)).toBeCloseTo(0.2 * 1.2, 3);
  });
  it('adds what sounds at once, each at its gain, across the seams of its blocks', async () => {
    const at = await mixed([part(0, 3000, 0, 0.5), part(1000, 2000, 0, 0.25)], 3);
    for (const moment of [1.2, 1.99999, 2, 2.00002, 2.8])
      expect(at(moment)).toBeCloseTo(0.1 * moment + 0.05 * (moment - 1), 3);
  });
  it('is as long as it must be when a file ends early, and stays silent there', async () => {
    const at = await mixed([part(0, 10_000, 0)], 5);
    expect(at(2.9)).toBeCloseTo(0.58, 2);
    expect(at(3.5)).toBe(0);
  });
  it('stops when it is told to', async () => {
    const controller = new AbortController();
    controller.abort(new Error('enough'));
    await expect(
      writeMix(
        { lengthMs: 1000, parts: [], masterGain: 1 },
        { fileOf: tone, outFile: outFile(), sampleCount: 48_000, signal: controller.signal },
      ),
    ).rejects.toThrow('enough');
  });
});
