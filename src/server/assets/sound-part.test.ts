import { mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { AssetFacts } from '../../core/show/asset-facts';
import { assetId } from '../../core/show/ids';
import { PIECE_MS } from '../../core/sound/sound-pieces';
import { openBlobStore } from '../blobs/blob-store';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { Refusal } from '../http/refusal';
import type { Asking } from '../http/route';
import { soundPart } from './sound-part';

const ID = assetId('c'.repeat(64));
const SECONDS = 130;
let folder: string;
let whole: Int16Array;

/** What a file sounds like: 48,000 pairs a second. */
async function unpacked(file: string): Promise<Int16Array> {
  const raw = `${file}.raw`;
  await runFfmpeg(['-i', file, '-f', 's16le', '-ac', '2', '-ar', '48000', '-y', raw]);
  const bytes = await readFile(raw);
  return new Int16Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length));
}

function asked(query: string): Promise<Response> {
  const facts: AssetFacts = {
    ...{ kind: 'clip', widthPx: 64, heightPx: 36, takenAt: null },
    lengthMs: SECONDS * 1000,
    hasSound: true,
  };
  return soundPart(
    'listening.opus',
    'audio/ogg',
  )({
    request: new Request(`http://localhost/sounds/x${query}`),
    params: { asset: ID },
    server: { sheet: { factsOf: async () => new Map([[ID, facts]]) }, blobs: openBlobStore(folder) },
  } as unknown as Asking<undefined>);
}

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-pieces-'));
  const own = path.join(folder, 'derived', 'cc', ID);
  await mkdir(own, { recursive: true });
  const opus = path.join(own, 'listening.opus');
  // Nothing in it is like anything a little earlier or later.
  await runFfmpeg([
    ...['-f', 'lavfi', '-i', `aevalsrc='0.3*sin(2*PI*(200+3*t)*t)|0.3*sin(2*PI*(900-2*t)*t)':s=48000:d=${SECONDS}`],
    ...['-c:a', 'libopus', '-b:a', '160k', '-f', 'ogg', '-y', opus],
  ]);
  whole = await unpacked(opus);
});
afterAll(() => rm(folder, { recursive: true, force: true }));

describe('a long sound in pieces', () => {
  it('is the very sound it is as a whole, sample by sample and without a gap', async () => {
    const pieces: Int16Array[] = [];
    for (const piece of [0, 1, 2]) {
      const answer = await asked(`?piece=${piece}`);
      expect(answer.headers.get('content-type')).toBe('audio/flac');
      const file = path.join(folder, `${piece}.flac`);
      await writeFile(file, new Uint8Array(await answer.arrayBuffer()));
      pieces.push(await unpacked(file));
    }
    expect(pieces.slice(0, 2).map(({ length }) => length / 2 / 48)).toEqual([PIECE_MS, PIECE_MS]);
    expect(pieces.reduce((sum, { length }) => sum + length, 0)).toBe(whole.length);
    let [at, most] = [0, 0];
    for (const piece of pieces) for (const sample of piece) most = Math.max(most, Math.abs(sample - whole[at++]!));
    expect(most).toBeLessThanOrEqual(2);
  });
  it('has no piece after its end, and none that is no number', async () => {
    for (const wrong of ['3', '-1', '1.5', 'all', '']) {
      const answer = asked(`?piece=${wrong}`);
      await expect(answer).rejects.toThrow(Refusal);
      await expect(answer).rejects.toThrow('The sound has no such piece.');
    }
  });
  it('is handed out whole where no piece is asked for', async () => {
    const answer = await asked('');
    expect(answer.headers.get('content-type')).toBe('audio/ogg');
    expect((await answer.arrayBuffer()).byteLength).toBeGreaterThan(1_000_000);
  });
});
