import { readdir, readFile, realpath, stat } from 'node:fs/promises';
import path from 'node:path';
import { eq } from 'drizzle-orm';
import { ratingInXmp } from '../../core/interchange/xmp';
import { showId, type ShowId } from '../../core/show/ids';
import type { OpenDatabase } from '../database/open-database';
import { folderIntakes } from '../database/schema';
import type { Events } from '../events';
import type { ContactSheet } from './contact-sheet';

/** What lies in a folder of the server's own disk, below the one that was opened for this. */
export interface FolderListing {
  /** Below the opened folder, with slashes; empty for itself. */
  readonly folder: string;
  readonly folders: readonly string[];
  readonly fileCount: number;
}

export interface FolderProgress {
  readonly folder: string;
  readonly filesDone: number;
  readonly fileCount: number;
  /** Files that were on the sheet before. */
  readonly already: number;
}

export interface FolderIntake {
  /** Whether a folder was opened for this. */
  readonly opened: boolean;
  /** Null when the folder is not there or not below the opened one. */
  list(folder: string): Promise<FolderListing | null>;
  /** Begins to take in every file of a folder and the folders in it, one folder at a time; it goes on when the server is started again. */
  start(show: ShowId, folder: string): Promise<'begun' | 'not-there' | 'another-is-coming'>;
  progress(show: ShowId): FolderProgress | null;
  /** What has arrived stays. */
  stop(show: ShowId): Promise<void>;
  resume(): Promise<void>;
}

/** More than a wedding and its rehearsal. */
const MOST_FILES = 20_000;

/** @param root the opened folder; with null nothing can be listed or taken in */
export function createFolderIntake(
  root: string | null,
  { db, write }: OpenDatabase,
  sheet: ContactSheet,
  events: Events,
): FolderIntake {
  const running = new Map<ShowId, { progress: FolderProgress; stopped: boolean }>();

  const intake: FolderIntake = {
    opened: root !== null,
    async list(folder) {
      const place = await placeBelow(root, folder);
      if (place === null) return null;
      const inside = (await readdir(place, { withFileTypes: true })).filter((entry) => !entry.name.startsWith('.'));
      return {
        folder: relativeName(await realpath(root!), place),
        folders: inside
          .filter((entry) => entry.isDirectory())
          .map((entry) => entry.name)
          .sort((a, b) => a.localeCompare(b, 'en', { numeric: true })),
        fileCount: inside.filter((entry) => entry.isFile()).length,
      };
    },
    async start(show, folder) {
      const place = await placeBelow(root, folder);
      if (place === null) return 'not-there';
      if (running.has(show)) return 'another-is-coming';
      await write((database) =>
        database
          .insert(folderIntakes)
          .values({ showId: show, folder })
          .onConflictDoUpdate({ target: folderIntakes.showId, set: { folder } }),
      );
      const all = await filesBelow(place);
      const files = all.filter((file) => !isXmp(file));
      const work = { progress: { folder, filesDone: 0, fileCount: files.length, already: 0 }, stopped: false };
      running.set(show, work);
      events.tell(show, { kind: 'folder', folder: work.progress });
      void takeAll(show, files, all.filter(isXmp), work);
      return 'begun';
    },
    progress: (show) => running.get(show)?.progress ?? null,
    async stop(show) {
      const work = running.get(show);
      if (work) work.stopped = true;
      await forget(show);
    },
    async resume() {
      for (const row of await db.select().from(folderIntakes))
        if ((await intake.start(showId(row.showId), row.folder)) === 'not-there') await forget(showId(row.showId));
    },
  };
  return intake;

  async function takeAll(
    show: ShowId,
    files: readonly string[],
    beside: readonly string[],
    work: { progress: FolderProgress; stopped: boolean },
  ): Promise<void> {
    for (const file of files) {
      if (work.stopped) break;
      // A file that went away or cannot be read since it was listed is passed over; the others are still wanted.
      const outcome = await sheet.takeIn(show, file, path.basename(file), 'copy').catch(() => null);
      work.progress = {
        ...work.progress,
        filesDone: work.progress.filesDone + 1,
        already: work.progress.already + (outcome === 'already-there' ? 1 : 0),
      };
      events.tell(show, { kind: 'folder', folder: work.progress });
    }
    if (beside.length > 0) await sheet.rate(show, await ratingsIn(beside)).catch(() => 0);
    running.delete(show);
    await forget(show);
    events.tell(show, { kind: 'folder', folder: null });
  }

  async function forget(show: ShowId): Promise<void> {
    await write((database) => database.delete(folderIntakes).where(eq(folderIntakes.showId, show)));
  }
}

/** Files with ratings lie beside pictures; they are no files of a show. */
const isXmp = (file: string): boolean => /\.xmp$/i.test(file);
/** Larger ones hold more than a rating. */
const LARGEST_XMP_BYTES = 4_000_000;

/** Ratings by the names of the files they are in; one that cannot be read has none. */
async function ratingsIn(files: readonly string[]): Promise<Map<string, number>> {
  const found = new Map<string, number>();
  for (const file of files) {
    const known = await stat(file).catch(() => null);
    if (!known || known.size > LARGEST_XMP_BYTES) continue;
    const rating = ratingInXmp(await readFile(file, 'utf8').catch(() => ''));
    if (rating !== null) found.set(path.basename(file), rating);
  }
  return found;
}

/** The real place of a folder, after every link was followed; null when it is not the root or below it. */
export async function placeBelow(root: string | null, folder: string): Promise<string | null> {
  if (root === null || folder.includes('\0')) return null;
  try {
    const top = await realpath(root);
    const place = await realpath(path.join(top, folder));
    return isBelow(top, place) ? place : null;
  } catch {
    // It is not there, or may not be read: to the person the same.
    return null;
  }
}

/** Every file of a folder and the folders in it, by name; links that lead out of it are left out. */
export async function filesBelow(top: string): Promise<string[]> {
  const found: string[] = [];
  const walk = async (folder: string): Promise<void> => {
    // A folder that may not be read is passed over; the others are still wanted.
    const inside = await readdir(folder, { withFileTypes: true }).catch(() => []);
    for (const entry of inside.sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }))) {
      if (entry.name.startsWith('.') || found.length >= MOST_FILES) continue;
      const place = path.join(folder, entry.name);
      if (entry.isDirectory()) await walk(place);
      else if (entry.isFile()) found.push(place);
    }
  };
  await walk(top);
  return found;
}

function isBelow(top: string, place: string): boolean {
  return place === top || place.startsWith(top.endsWith(path.sep) ? top : top + path.sep);
}

function relativeName(top: string, place: string): string {
  return path.relative(top, place).split(path.sep).join('/');
}
