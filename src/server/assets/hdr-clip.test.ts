import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { tonedDown } from '../../core/light/hdr';
import type { Hdr } from '../../core/show/asset-facts';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { openClip } from './clip-frames';
import { lookAtFile } from './look-at-file';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-hdr-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

const SIDE = 64;

/** Half a second of one colour, given by its BT.2020 codes, packed in ten bits and named as phones name it. */
async function clipOf([red, green, blue]: readonly [number, number, number], hdr: Hdr): Promise<string> {
  const luma = 0.2627 * red + 0.678 * green + 0.0593 * blue;
  const codes = [64 + 876 * luma, 512 + (896 * (blue - luma)) / 1.8814, 512 + (896 * (red - luma)) / 1.4746];
  const plane = (code: number, count: number) => Buffer.from(new Uint16Array(count).fill(Math.round(code)).buffer);
  const picture = Buffer.concat([
    plane(codes[0]!, SIDE * SIDE),
    plane(codes[1]!, SIDE ** 2 / 4),
    plane(codes[2]!, SIDE ** 2 / 4),
  ]);
  const name = path.join(folder, `${hdr}-${[red, green, blue].join('-')}`);
  await writeFile(`${name}.yuv`, Buffer.concat(Array.from({ length: 15 }, () => picture)));
  await runFfmpeg(
    `-f rawvideo -pix_fmt yuv420p10le -s ${SIDE}x${SIDE} -r 30 -i ${name}.yuv -c:v libx264 -crf 4 -pix_fmt yuv420p10le -color_primaries bt2020 -colorspace bt2020nc -color_range tv -color_trc ${hdr === 'pq' ? 'smpte2084' : 'arib-std-b67'} -y ${name}.mp4`.split(
      ' ',
    ),
  );
  return `${name}.mp4`;
}

async function middleOf(file: string, hdr: Hdr | undefined): Promise<number[]> {
  const clip = openClip(file, SIDE, SIDE, hdr);
  try {
    const { i420 } = await clip.frame(3);
    const middle = (SIDE * SIDE) / 2 + SIDE / 2;
    return [i420[middle]!, i420[SIDE * SIDE + 512 + 16]!, i420[SIDE * SIDE + 1024 + 512 + 16]!];
  } finally {
    clip.close();
  }
}

describe('HDR clips', () => {
  it.each<[Hdr, string, number, number]>([
    ['pq', 'reference white', 0.5806, 213],
    ['pq', 'mid-grey', 0.3776, 109],
    ['hlg', 'reference white', 0.75, 213],
    ['hlg', 'mid-grey', 0.3806, 109],
  ])('by %s: %s is drawn with the code that is stated', async (hdr, _name, code, stated) => {
    const file = await clipOf([code, code, code], hdr);
    expect((await lookAtFile(file)).facts).toMatchObject({ kind: 'clip', hdr });
    const [luma, blue, red] = await middleOf(file, hdr);
    expect(Math.abs((luma! - 16) / (stated - 16) - 1)).toBeLessThan(0.03);
    expect([Math.abs(blue! - 128), Math.abs(red! - 128)].every((off) => off <= 1)).toBe(true);
  });
  it.each<[Hdr, readonly [number, number, number]]>([
    ['pq', [0.52, 0.44, 0.38]],
    ['pq', [0.4, 0.5, 0.62]],
    ['hlg', [0.7, 0.5, 0.3]],
    ['hlg', [0.25, 0.4, 0.35]],
  ])('by %s: the colour %j comes out of ffmpeg as the core works it out', async (hdr, codes) => {
    const drawn = await middleOf(await clipOf(codes, hdr), hdr);
    const [red, green, blue] = tonedDown(codes, hdr);
    const luma = 0.2126 * red + 0.7152 * green + 0.0722 * blue;
    const wanted = [16 + 219 * luma, 128 + (224 * (blue - luma)) / 1.8556, 128 + (224 * (red - luma)) / 1.5748];
    // Between the points of the table colours are mixed.
    wanted.forEach((value, index) => expect(Math.abs(drawn[index]! - value)).toBeLessThanOrEqual(3));
  });
  it('are left as they are when they do not say that they are', async () => {
    expect((await lookAtFile(path.resolve('demo/files/PE_0412.jpg'))).facts).not.toHaveProperty('hdr');
    const [luma] = await middleOf(await clipOf([0.5, 0.5, 0.5], 'pq'), undefined);
    expect(Math.abs(luma! - (16 + 219 * 0.5))).toBeLessThanOrEqual(2);
  });
});
