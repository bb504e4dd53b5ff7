import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import { rgbaOf } from '../../drawing/plates/read-cropped-clip';
import type { ClipFacts } from '../../core/show/asset-facts';
import { assetId, showId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import { openServer, type RunningServer } from '../running-server';
import { openClip } from './clip-frames';
import { lookAtFile } from './look-at-file';
import { takeStill, writeStill } from './take-still';

const CLIP = path.resolve('demo/files/PE_0489-boats.mp4');
const SHOW = showId('evening');
let folder: string;
let facts: ClipFacts;
let server: RunningServer;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-still-'));
  facts = (await lookAtFile(CLIP)).facts as ClipFacts;
  process.env.TANAGER_DATA = path.join(folder, 'data');
  server = await openServer();
  server.runner.start(['look']);
  await server.shows.put(emptyShow(SHOW, 'An evening'));
  await server.sheet.takeIn(SHOW, CLIP, 'The boats.mp4', 'copy');
  await server.runner.idle('look');
});
afterAll(async () => {
  await server.close();
  delete process.env.TANAGER_DATA;
  await rm(folder, { recursive: true, force: true });
});

/** Decibels over the colours of a still and of a frame as it is drawn. */
async function likeness(still: string | Buffer, frame: number): Promise<number> {
  const clip = openClip(CLIP, facts.widthPx, facts.heightPx);
  const drawn = rgbaOf(await clip.frame(frame));
  clip.close();
  const { data, info } = await sharp(still).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  expect([info.width, info.height]).toEqual([facts.widthPx, facts.heightPx]);
  let sum = 0;
  for (let at = 0; at < data.length / 3; at += 1)
    for (let channel = 0; channel < 3; channel += 1)
      sum += (data[3 * at + channel]! - drawn.rgba[4 * at + channel]!) ** 2;
  return 10 * Math.log10((255 * 255) / (sum / data.length));
}
const theClip = async () => (await server.sheet.entries(SHOW)).find(({ facts: of }) => of?.kind === 'clip')!.assetId;

describe('a still of a clip', () => {
  it.each([0, 31, 97, 239])('of frame %d is that very frame, as large as it was filmed', async (frame) => {
    const out = path.join(folder, `${frame}.jpg`);
    expect(await writeStill(CLIP, facts, (frame * 1000) / 30 + 5, out)).toBe(frame);
    expect(await likeness(out, frame)).toBeGreaterThan(33);
    // Its neighbours are told apart from it.
    if (frame > 0) expect(await likeness(out, frame - 1)).toBeLessThan(await likeness(out, frame));
  });
  it('past the end is the last frame', async () => {
    const out = path.join(folder, 'late.jpg');
    const last = Math.floor((facts.lengthMs * 30) / 1000 + 1e-4) - 1;
    expect(await writeStill(CLIP, facts, facts.lengthMs, out)).toBe(last);
  });
  it('lies on the contact sheet, named by its clip and its moment, and nothing is left of the making', async () => {
    const { entry } = await takeStill(server, SHOW, await theClip(), 2500);
    expect(entry).toMatchObject({
      fileName: 'The boats, 2.50 s.jpg',
      state: 'ready',
      facts: { kind: 'picture', widthPx: facts.widthPx, heightPx: facts.heightPx },
    });
    expect(await likeness(await server.blobs.localFile(assetId(entry.assetId)), 75)).toBeGreaterThan(33);
    expect((await readdir(path.join(folder, 'data/uploads'))).filter((name) => name.endsWith('.jpg'))).toEqual([]);
  });
  it('is refused of what is no clip of the show, and of a moment behind its end', async () => {
    await expect(takeStill(server, SHOW, assetId('f'.repeat(64)), 0)).rejects.toThrow(/no such clip/);
    await expect(takeStill(server, SHOW, await theClip(), facts.lengthMs + 1)).rejects.toThrow(/over before/);
  });
});
