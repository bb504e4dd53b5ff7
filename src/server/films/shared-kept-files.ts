import path from 'node:path';
import { nanoid } from 'nanoid';
import { rm } from 'node:fs/promises';
import type { ObjectStore } from '../blobs/object-store';
import { LONGEST_UNUSED_MS, type KeptFiles } from './kept-files';

const FOLDER = 'kept/';
/** There may be very many. */
const PRUNE_EVERY_MS = 3600_000;

/** Segments and mixes in a store that several machines reach, so that what one has drawn another joins; what is used here lies here as well. @param folder for what is being fetched */
export function sharedKeptFiles(
  here: KeptFiles,
  objects: ObjectStore,
  folder: string,
  now: () => number = Date.now,
): KeptFiles {
  let prunedMs = -Infinity;
  return {
    async put(name, file) {
      await objects.put(FOLDER + name, file);
      await here.put(name, file);
    },
    async lend(name, file) {
      if (await here.lend(name, file)) return true;
      const fetched = path.join(folder, `fetched-${nanoid(8)}.part`);
      try {
        if (!(await objects.fetch(FOLDER + name, fetched))) return false;
        await here.put(name, fetched);
        return await here.lend(name, file);
      } finally {
        await rm(fetched, { force: true });
      }
    },
    async prune() {
      await here.prune();
      if (now() - prunedMs < PRUNE_EVERY_MS) return;
      prunedMs = now();
      const old: string[] = [];
      // Nothing there tells when it was used last; what came long ago is made anew where it is still wanted.
      for await (const { key, at } of objects.list(FOLDER)) if (now() - at > LONGEST_UNUSED_MS) old.push(key);
      await objects.remove(old);
    },
    async clear() {
      await here.clear();
      const all: string[] = [];
      for await (const { key } of objects.list(FOLDER)) all.push(key);
      await objects.remove(all);
    },
  };
}
