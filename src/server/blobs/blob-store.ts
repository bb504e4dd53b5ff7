import { copyFile, mkdir, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import type { AssetId } from '../../core/show/ids';
import { isHash } from '../schema/hash';
import { hashOfFile } from './content-hash';

/** Files kept once by content. A hash is the only thing from outside that becomes part of a path, and it is checked to be one. */
export interface BlobStore {
  /** Where a blob lies. @throws {RangeError} when the id is not a hash */
  fileOf(id: AssetId): string;
  /** Where what was made from a blob lies: prints, frames, waveforms. */
  derivedFile(id: AssetId, name: string): string;
  /** Moves (or copies) a file in; its hash is worked out unless it is given. @returns its id and size */
  take(file: string, how: 'move' | 'copy', hash?: AssetId): Promise<{ id: AssetId; byteCount: number }>;
  remove(id: AssetId): Promise<void>;
}

export function openBlobStore(folder: string): BlobStore {
  const place = (id: AssetId, part: string) => {
    if (!isHash(id))
      throw new RangeError(`an asset id must be a hash of 64 hexadecimal digits, got ${JSON.stringify(id)}`);
    return path.join(folder, part, id.slice(0, 2), id);
  };
  return {
    fileOf: (id) => place(id, 'originals'),
    derivedFile: (id, name) => path.join(place(id, 'derived'), name),
    async take(file, how, hash) {
      const id = hash ?? (await hashOfFile(file));
      const { size } = await stat(file);
      const to = place(id, 'originals');
      await mkdir(path.dirname(to), { recursive: true });
      if (how === 'move') await rename(file, to);
      else {
        await copyFile(file, `${to}.part`);
        await rename(`${to}.part`, to);
      }
      return { id, byteCount: size };
    },
    async remove(id) {
      await rm(place(id, 'originals'), { force: true });
      await rm(place(id, 'derived'), { recursive: true, force: true });
    },
  };
}
