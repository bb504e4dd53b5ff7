import { createReadStream } from 'node:fs';
import { copyFile, mkdir, open, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import type { Readable } from 'node:stream';
import type { AssetId } from '../../core/show/ids';
import { decodedCopy } from './decoded-copy';
import { isHash } from '../schema/hash';
import { hashOfFile } from './content-hash';
import { renameSafely, whole } from './whole';

/**
 * Files kept once by content, and what was made from them. A hash is the only thing from outside that becomes part of a path, and it is checked to be one.
 * They lie in a folder here; where they lie elsewhere, what needs a path gets one of a copy that was fetched first.
 *
 * @throws {RangeError} from every method when the id is not a hash
 */
export interface BlobStore {
  read(id: AssetId): Readable;
  /** For programs that need a path. Not to be written to. */
  localFile(id: AssetId): Promise<string>;
  /** Moves (or copies) a file in; its hash is worked out unless it is given. @returns its id and size */
  take(file: string, how: 'move' | 'copy', hash?: AssetId): Promise<{ id: AssetId; byteCount: number }>;
  hasDerived(id: AssetId, name: string): Promise<boolean>;
  /** What was made from a blob: prints, frames, waveforms. @param range bytes from, up to and not including to */
  readDerived(id: AssetId, name: string, range?: { readonly from: number; readonly to: number }): Promise<Uint8Array>;
  localDerived(id: AssetId, name: string): Promise<string>;
  /** Keeps what was made from a blob: it appears under its name only when it is whole. @param make writes it to the path it is given */
  putDerived(id: AssetId, name: string, make: (part: string) => Promise<unknown>): Promise<void>;
  /** Keeps several files that are made from a blob at once. @param make writes them into the folder it is given */
  deriveInto<Result>(id: AssetId, make: (folder: string) => Promise<Result>): Promise<Result>;
  /** When it came here last, in milliseconds since 1970; null when it is not here. */
  cameAt(id: AssetId): Promise<number | null>;
  remove(id: AssetId): Promise<void>;
}

export function openBlobStore(folder: string): BlobStore {
  const place = (id: AssetId, part: string) => {
    if (!isHash(id))
      throw new RangeError(`an asset id must be a hash of 64 hexadecimal digits, got ${JSON.stringify(id)}`);
    return path.join(folder, part, id.slice(0, 2), id);
  };
  const derived = (id: AssetId, name: string) => path.join(place(id, 'derived'), name);
  return {
    read: (id) => createReadStream(place(id, 'originals')),
    localFile: async (id) => place(id, 'originals'),
    async take(file, how, hash) {
      const id = hash ?? (await hashOfFile(file));
      const { size } = await stat(file);
      const to = place(id, 'originals');
      await mkdir(path.dirname(to), { recursive: true });
      if (how === 'move') await renameSafely(file, to);
      else {
        await copyFile(file, `${to}.part`);
        await renameSafely(`${to}.part`, to);
      }
      return { id, byteCount: size };
    },
    hasDerived: (id, name) =>
      stat(derived(id, name)).then(
        () => true,
        () => false,
      ),
    async readDerived(id, name, range) {
      const file = await open(derived(id, name));
      try {
        if (!range) return new Uint8Array(await file.readFile());
        const bytes = new Uint8Array(range.to - range.from);
        const { bytesRead } = await file.read(bytes, 0, bytes.length, range.from);
        return bytes.subarray(0, bytesRead);
      } finally {
        await file.close();
      }
    },
    localDerived: async (id, name) => derived(id, name),
    async putDerived(id, name, make) {
      const file = derived(id, name);
      await mkdir(path.dirname(file), { recursive: true });
      // Prints, which are made again when they are missing, are all that is put in this way.
      await whole(file, make, false);
    },
    async deriveInto(id, make) {
      const into = place(id, 'derived');
      await mkdir(into, { recursive: true });
      return make(into);
    },
    cameAt: (id) =>
      stat(place(id, 'originals')).then(
        ({ ctimeMs }) => ctimeMs,
        () => null,
      ),
    async remove(id) {
      for (const file of [place(id, 'originals'), decodedCopy(place(id, 'originals'))]) await rm(file, { force: true });
      await rm(place(id, 'derived'), { recursive: true, force: true });
    },
  };
}
