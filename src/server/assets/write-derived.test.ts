import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { jpegStarts } from './write-derived';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-derived-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

describe('the index of a run of JPEGs', () => {
  it('finds every beginning, also where an end lies across two pieces that are read', async () => {
    const MB = 1024 * 1024;
    const bytes = Buffer.alloc(2 * MB + 100, 1);
    // Ends right before, across and right after the border between the first two pieces, and the last.
    for (const at of [500, MB - 1, 2 * MB, 2 * MB + 98]) bytes.set([0xff, 0xd9], at);
    await writeFile(path.join(folder, 'run'), bytes);
    expect(await jpegStarts(path.join(folder, 'run'))).toEqual([0, 502, MB + 1, 2 * MB + 2, 2 * MB + 100]);
  });
});
