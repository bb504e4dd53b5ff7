import { createReadStream } from 'node:fs';
import { readdir, stat, utimes } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import type { AssetId } from '../../core/show/ids';
import type { BlobStore } from './blob-store';
import { hashOfFile } from './content-hash';
import type { ObjectStore } from './object-store';

const originalKey = (id: AssetId) => `originals/${id}`;
const derivedKey = (id: AssetId, name: string) => `derived/${id}/${name}`;

/**
 * Files by content in a store that several machines reach; what is used here lies in a folder as well, as a copy that may go at any time.
 *
 * @param here the folder's own store
 */
export function sharedBlobs(here: BlobStore, objects: ObjectStore): BlobStore {
  const fetching = new Map<string, Promise<boolean>>();
  /** Asked for by several at once, it comes once. */
  const fetched = (key: string, file: string) => {
    const running = fetching.get(key) ?? objects.fetch(key, file).finally(() => fetching.delete(key));
    fetching.set(key, running);
    return running;
  };
  const isHere = (file: string) =>
    stat(file).then(
      () => true,
      () => false,
    );
  async function local(key: string, file: string): Promise<string> {
    if (await isHere(file)) await usedNow(file);
    else await fetched(key, file);
    return file;
  }
  const localFile = async (id: AssetId) => local(originalKey(id), await here.localFile(id));

  return {
    read: (id) =>
      Readable.from(
        (async function* () {
          yield* createReadStream(await localFile(id)) as AsyncIterable<Buffer>;
        })(),
      ),
    localFile,
    async take(file, how, hash) {
      const id = hash ?? (await hashOfFile(file));
      // First where it is safe: until then it stays where it came from.
      await objects.put(originalKey(id), file);
      return here.take(file, how, id);
    },
    hasDerived: async (id, name) =>
      (await here.hasDerived(id, name)) || (await objects.find(derivedKey(id, name))) !== null,
    async readDerived(id, name, range) {
      const file = await here.localDerived(id, name);
      if (range && !(await isHere(file))) {
        // A part of something long: the rest of it is not wanted here.
        const stream = await objects.read(derivedKey(id, name), range);
        if (!stream) throw notThere(file);
        return new Uint8Array(Buffer.concat(await stream.toArray()));
      }
      await local(derivedKey(id, name), file);
      return here.readDerived(id, name, range);
    },
    localDerived: async (id, name) => local(derivedKey(id, name), await here.localDerived(id, name)),
    async putDerived(id, name, make) {
      await here.putDerived(id, name, make);
      await objects.put(derivedKey(id, name), await here.localDerived(id, name));
    },
    deriveInto: (id, make) =>
      here.deriveInto(id, async (folder) => {
        const before = new Set(await readdir(folder));
        const result = await make(folder);
        for (const name of await readdir(folder))
          if (!before.has(name)) await objects.put(derivedKey(id, name), path.join(folder, name));
        return result;
      }),
    cameAt: async (id) => (await here.cameAt(id)) ?? (await objects.find(originalKey(id)))?.at ?? null,
    async remove(id) {
      await here.remove(id);
      const keys = [originalKey(id)];
      for await (const { key } of objects.list(derivedKey(id, ''))) keys.push(key);
      await objects.remove(keys);
    },
  };
}

async function usedNow(file: string): Promise<void> {
  const { mtime } = await stat(file);
  await utimes(file, new Date(), mtime).catch(() => {});
}

function notThere(file: string): NodeJS.ErrnoException {
  return Object.assign(new Error(`there is no ${path.basename(file)}`), { code: 'ENOENT' });
}
