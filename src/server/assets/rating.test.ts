import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { xmpOf } from '../../core/interchange/xmp';
import { lookAtPicture } from './look-at-picture';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-rating-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

/** A JPEG with an XMP packet put in, as cameras and programs write them. */
async function ratedJpeg(name: string, xmp: string): Promise<string> {
  const jpeg = await readFile('demo/files/PE_0412.jpg');
  const packet = Buffer.concat([Buffer.from('http://ns.adobe.com/xap/1.0/\0'), Buffer.from(xmp)]);
  const head = Buffer.from([0xff, 0xe1, (packet.length + 2) >> 8, (packet.length + 2) & 255]);
  const file = path.join(folder, name);
  await writeFile(file, Buffer.concat([jpeg.subarray(0, 2), head, packet, jpeg.subarray(2)]));
  return file;
}

describe('how a picture was rated elsewhere', () => {
  it.each([
    ['lingers', xmpOf('linger'), 5],
    ['was refused', xmpOf('leave-out'), -1],
    ['says nothing', xmpOf('keep').replace('"4"', '"0"'), undefined],
    ['is out of range', xmpOf('keep').replace('"4"', '"77"'), undefined],
  ])('that %s is known from its file', async (name, xmp, rating) => {
    const { facts } = await lookAtPicture(await ratedJpeg(`${name}.jpg`, xmp));
    expect(facts.rating).toBe(rating);
  });
  it('is nothing for a file that does not say', async () => {
    expect((await lookAtPicture('demo/files/PE_0412.jpg')).facts).not.toHaveProperty('rating');
  });
});
