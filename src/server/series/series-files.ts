import { mkdir, readdir, realpath, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import { LONGEST_PATH } from '../../core/series/series';
import { filesBelow, placeBelow } from '../assets/folder-intake';

/** Files of series: those that came from browsers lie in a folder for each, others where they are on the server's disk. */
export interface SeriesFiles {
  /** Every file's path below the series' folder, with slashes; null when there is no such folder. */
  paths(id: string, folder: string | null): Promise<string[] | null>;
  /** Where one of those is. @returns null when it is not there, or not below the folder */
  place(id: string, folder: string | null, file: string): Promise<string | null>;
  /** Takes over a file that has arrived whole. */
  take(id: string, from: string, file: string): Promise<void>;
  remove(id: string): Promise<void>;
}

/** @param own where files from browsers lie @param opened the folder of the server's disk that was opened; null: none */
export function createSeriesFiles(own: string, opened: string | null): SeriesFiles {
  const rootOf = (id: string, folder: string | null) =>
    folder === null ? placeBelow(own, id) : placeBelow(opened, folder);

  return {
    async paths(id, folder) {
      const root = await rootOf(id, folder);
      if (root === null) return folder === null ? [] : null;
      return (await filesBelow(root)).map((file) => path.relative(root, file).split(path.sep).join('/'));
    },
    async place(id, folder, file) {
      const root = await rootOf(id, folder);
      return root === null ? null : placeBelow(root, file);
    },
    async take(id, from, file) {
      const to = path.join(own, id, ...file.split('/'));
      await mkdir(path.dirname(to), { recursive: true });
      await rename(from, to);
    },
    remove: (id) => rm(path.join(own, id), { recursive: true, force: true }),
  };
}

const DEEPEST = 12;
const LONGEST_PART = 200;

/** A file's path as a browser tells it, without the folder that was chosen; null when it is none that may be kept. */
export function keptPath(told: string): string | null {
  const parts = told.normalize('NFC').split('/');
  const right = parts.every(
    (part) =>
      part !== '' &&
      part.trim() === part &&
      !part.startsWith('.') &&
      part.length <= LONGEST_PART &&
      !FORBIDDEN.test(part),
  );
  return right && parts.length <= DEEPEST && told.length <= LONGEST_PATH ? parts.join('/') : null;
}

const FORBIDDEN = /[\u0000-\u001f\\:*?"<>|]/;

/** Makes sure the folder for files from browsers is there. */
export async function openSeriesFiles(own: string, opened: string | null): Promise<SeriesFiles> {
  await mkdir(own, { recursive: true });
  await readdir(await realpath(own));
  return createSeriesFiles(own, opened);
}
