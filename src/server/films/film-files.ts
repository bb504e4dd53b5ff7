import { readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import type { Readable } from 'node:stream';
import type { ByteRange, ObjectStore } from '../blobs/object-store';

/** Finished films and their posters, by name. */
export interface FilmFiles {
  /** Where one is written; kept once it is whole. */
  place(name: string): string;
  keep(name: string): Promise<void>;
  /** For programs that need a path: it is there unless the film is gone. */
  local(name: string): Promise<string>;
  /** One that lies elsewhere only: how long it is, and any part of it. */
  elsewhere(name: string): Promise<{ byteCount: number; read(range: ByteRange): Promise<Readable | null> } | null>;
  /** Everything whose name begins so, but for what ends so. */
  remove(beginning: string, butNot: string): Promise<void>;
}

/** @param objects where they are kept beside the folder; then what lies in the folder is a copy */
export function openFilmFiles(folder: string, objects: ObjectStore | null): FilmFiles {
  const place = (name: string) => path.join(folder, name);
  const key = (name: string) => `films/${name}`;
  const isHere = (name: string) =>
    stat(place(name)).then(
      () => true,
      () => false,
    );
  return {
    place,
    keep: async (name) => objects?.put(key(name), place(name)),
    async local(name) {
      if (objects && !(await isHere(name))) await objects.fetch(key(name), place(name));
      return place(name);
    },
    async elsewhere(name) {
      if (!objects || (await isHere(name))) return null;
      const found = await objects.find(key(name));
      return found && { byteCount: found.byteCount, read: (range) => objects.read(key(name), range) };
    },
    async remove(beginning, butNot) {
      for (const name of await readdir(folder))
        if (name.startsWith(beginning) && !name.endsWith(butNot)) await rm(place(name), { force: true });
      if (!objects) return;
      const keys: string[] = [];
      for await (const { key: there } of objects.list(key(beginning))) keys.push(there);
      await objects.remove(keys);
    },
  };
}
