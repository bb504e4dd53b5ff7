import { Readable } from 'node:stream';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { exactReader } from '../ffmpeg/read-exactly';
import { openClip, type ClipFrames } from './clip-frames';

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
