import { mkdir } from 'node:fs/promises';
import path from 'node:path';
import { openFilmFiles, type FilmFiles } from './films/film-files';
import { createKeptFiles, type KeptFiles } from './films/kept-files';
import { sharedKeptFiles } from './films/shared-kept-files';
import { logger } from './logger';
import { openBlobStore, type BlobStore } from './blobs/blob-store';
import { keepRoom, mostCachedBytes } from './blobs/keep-room';
import { objectSettings, openObjectStore, type ObjectStore } from './blobs/object-store';
import { sharedBlobs } from './blobs/shared-blobs';

/** Where files are kept: originals and what was made of them, parts of films, films. */
export interface Storage {
  readonly blobs: BlobStore;
  readonly kept: KeptFiles;
  readonly films: FilmFiles;
  /** The store that other machines reach too; null when everything lies in the data folder. */
  readonly objects: ObjectStore | null;
  close(): void;
}

const ROOM_EVERY_MS = 10 * 60_000;

/** @param folder the data folder; where a store is configured, its files are copies that may go */
export async function openStorage(folder: string): Promise<Storage> {
  const [blobFolder, filmFolder, keptFolder] = ['blobs', 'films', 'kept'].map((name) => path.join(folder, name)) as [
    string,
    string,
    string,
  ];
  for (const needed of [blobFolder, filmFolder, keptFolder]) await mkdir(needed, { recursive: true });
  const [blobs, kept] = [openBlobStore(blobFolder), createKeptFiles(keptFolder)];
  const settings = objectSettings();
  if (!settings) return { blobs, kept, films: openFilmFiles(filmFolder, null), objects: null, close: () => {} };
  const objects = await openObjectStore(settings);
  // Films are not let go here: they are what people fetch, and a film just made may not be there yet.
  const room = setInterval(
    () =>
      void keepRoom(blobFolder, mostCachedBytes()).catch((error: unknown) =>
        logger().warn({ err: error }, 'room for copies could not be made'),
      ),
    ROOM_EVERY_MS,
  );
  room.unref();
  return {
    blobs: sharedBlobs(blobs, objects),
    kept: sharedKeptFiles(kept, objects, keptFolder),
    films: openFilmFiles(filmFolder, objects),
    objects,
    close: () => {
      clearInterval(room);
      objects.close();
    },
  };
}
