import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { hashOfFile } from '../../server/blobs/content-hash';
import { hashOf } from './hash-of';

describe('what a file is known by', () => {
  it.each([0, 5, 1024 * 1024, 2_500_000])(
    'is the same in the browser as on the server, for %i bytes',
    async (count) => {
      const bytes = Uint8Array.from({ length: count }, (_, index) => (index * 31 + (index >> 8)) & 255);
      const folder = await mkdtemp(path.join(tmpdir(), 'tanager-hash-'));
      const file = path.join(folder, 'x');
      await writeFile(file, bytes);
      expect(await hashOf(new Blob([bytes]))).toBe(await hashOfFile(file));
      await rm(folder, { recursive: true });
    },
  );
});
