import { mkdir, readdir, rename, rm, stat, statfs } from 'node:fs/promises';
import path from 'node:path';
import { and, asc, desc, eq, isNull } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import type { BadFile, BundledFile, BundleIntake } from '../../core/bundles/bundle';
import { assetId, showId, type ShowId } from '../../core/show/ids';
import type { ContactSheet } from '../assets/contact-sheet';
import { openStrangeArchive, StrangeArchiveError, type StrangeArchive } from '../archive/strange-archive';
import type { BlobStore } from '../blobs/blob-store';
import { hashOfFile } from '../blobs/content-hash';
import type { OpenDatabase, Writing } from '../database/open-database';
import { bundleIntakes, sheetEntries, shows as showTable, versions as versionTable } from '../database/schema';
import { isDiskFull, DISK_FULL } from '../http/refusal';
import type { JobAtWork, JobKindOfWork } from '../jobs/job-runner';
import type { JobStore, TakenJob } from '../jobs/job';
import type { ShowService } from '../shows/show-service';
import { keepVersion } from '../shows/versions';
import { BUNDLE_LIMITS, readBundle, writeBundle, type ReadBundle, type WrittenBundle } from './bundle-file';

/** Whole shows as one file each, out and in. */
export interface BundleService {
  /** @returns null when there is no such show, or it cannot be read; `missing`: files of its sheet that are not here any more */
  write(
    show: ShowId,
  ): Promise<(WrittenBundle & { readonly title: string; readonly missing: readonly string[] }) | null>;
  /** Those of a studio that are on their way in or came not long ago, newest first. */
  list(studioId: string): Promise<BundleIntake[]>;
  /** Takes over a file that has arrived whole. @returns the intake’s id; the show has the same */
  order(studioId: string, file: string, fileName: string): Promise<string>;
  /** Stops one that is on its way, or takes its line off the list. What it became stays. */
  dismiss(studioId: string, id: string): Promise<boolean>;
  /** Clears away what an earlier server left of those that ended. */
  tidy(): Promise<void>;
}

interface BundleServiceParts {
  readonly database: OpenDatabase;
  readonly blobs: BlobStore;
  readonly shows: ShowService;
  readonly sheet: ContactSheet;
  readonly jobs: JobStore;
  /** Where files wait to be unpacked. */
  readonly folder: string;
  readonly wake: () => void;
  readonly stop: (id: string) => Promise<void>;
  readonly now?: () => number;
}

interface Progress {
  readonly filesDone: number;
  readonly fileCount: number;
}

/** An update of the disk’s room is left to what is made of the show. */
const KEPT_FREE_BYTES = 64 * 1024 * 1024;
const MOST_LISTED = 20;
const WRONG = 'It is not what it was: its content does not fit its name.';
const GONE = 'It is not in there.';

export function createBundleService(parts: BundleServiceParts): BundleService & { readonly taking: JobKindOfWork } {
  const { database, blobs, shows, sheet, jobs, folder, wake, stop, now = Date.now } = parts;
  const { db, write } = database;
  const fileOf = (id: string) => path.join(folder, `${id}.zip`);
  const unpackedOf = (id: string) => path.join(folder, id);
  const clear = async (id: string) => {
    for (const place of [fileOf(id), unpackedOf(id)]) await rm(place, { recursive: true, force: true });
  };

  return {
    async write(show) {
      const opened = await shows.load(show);
      if (!opened || opened.damage !== null) return null;
      const rows = await db
        .select()
        .from(sheetEntries)
        .where(eq(sheetEntries.showId, show))
        .orderBy(asc(sheetEntries.addedAt), asc(sheetEntries.fileName), asc(sheetEntries.id));
      const files: BundledFile[] = [];
      const gone = new Map<string, string>();
      for (const { assetId: hash, fileName: name, byteCount, made } of rows) {
        const there = await stat(await blobs.localFile(assetId(hash))).catch(() => null);
        files.push({ hash, name, byteCount: there?.size ?? byteCount, made });
        if (!there) gone.set(hash, name);
      }
      const kept = await db
        .select()
        .from(versionTable)
        .where(and(eq(versionTable.showId, show), isNull(versionTable.removedAt)))
        .orderBy(asc(versionTable.createdAt), asc(versionTable.id));
      const written = await writeBundle({
        show: opened.show,
        sheet: files,
        gone: new Set(gone.keys()),
        versions: kept.map(({ name, why, createdAt, formatVersion, content }) => ({
          name,
          why,
          createdAt,
          formatVersion,
          content,
        })),
        place: (hash) => blobs.localFile(assetId(hash)),
      });
      return { ...written, title: opened.show.title, missing: [...gone.values()] };
    },
    async list(studioId) {
      const rows = await db
        .select({ intake: bundleIntakes, title: showTable.title })
        .from(bundleIntakes)
        .leftJoin(showTable, eq(showTable.id, bundleIntakes.showId))
        .where(eq(bundleIntakes.studioId, studioId))
        .orderBy(desc(bundleIntakes.createdAt))
        .limit(MOST_LISTED);
      const progress = await jobs.progressOf(
        'bundle',
        rows.map(({ intake }) => intake.id),
      );
      return rows.map(({ intake, title }): BundleIntake => {
        const far = progress.get(intake.id) as Progress | undefined;
        const { id, fileName, state, problem, showId: show, fileCount, bad } = intake;
        return {
          ...{ id, fileName, state, problem, bad, title },
          showId: show,
          filesDone: far?.filesDone ?? fileCount ?? 0,
          fileCount: far?.fileCount ?? fileCount,
        };
      });
    },
    async order(studioId, file, fileName) {
      const id = nanoid(12);
      await mkdir(folder, { recursive: true });
      await rename(file, fileOf(id));
      await write((one) =>
        one.transaction(async (transaction) => {
          await transaction.insert(bundleIntakes).values({
            ...{ id, studioId, fileName: fileName.slice(0, 255), state: 'taking', bad: [], createdAt: now() },
          });
          await jobs.addWithin(transaction, { kind: 'bundle', studioId, key: id, data: { id } });
        }),
      );
      wake();
      return id;
    },
    async dismiss(studioId, id) {
      const own = and(eq(bundleIntakes.id, id), eq(bundleIntakes.studioId, studioId));
      const [there] = await db.select().from(bundleIntakes).where(own);
      if (!there) return false;
      await jobs.cancel('bundle', id);
      await stop(id);
      await write((one) => one.delete(bundleIntakes).where(own));
      await clear(id);
      return true;
    },
    async tidy() {
      const left = await readdir(folder).catch(() => []);
      const taking = await db
        .select({ id: bundleIntakes.id })
        .from(bundleIntakes)
        .where(eq(bundleIntakes.state, 'taking'));
      const needed = new Set(taking.map(({ id }) => id));
      for (const name of left) {
        const id = name.replace(/\.zip$/, '');
        if (!needed.has(id)) await clear(id);
      }
    },
    taking: {
      kind: 'bundle',
      atOnce: 1,
      mostTries: 3,
      async work(at) {
        const id = idOf(at.job);
        const archive = await openStrangeArchive(fileOf(id), BUNDLE_LIMITS);
        try {
          return await takeIn(id, archive, at);
        } finally {
          archive.close();
        }
      },
      failed(job, error) {
        const problem =
          error instanceof StrangeArchiveError
            ? error.message
            : error !== null && isDiskFull(error)
              ? DISK_FULL
              : error === null
                ? 'Taking it in ended the server again and again, so it was set aside.'
                : 'Something went wrong on the server. Give it again.';
        return {
          problem,
          commit: async (transaction) =>
            void (await transaction
              .update(bundleIntakes)
              .set({ state: 'failed', problem })
              .where(eq(bundleIntakes.id, idOf(job)))),
        };
      },
      ended: (job) => void clear(idOf(job)).catch(() => {}),
    },
  };

  async function takeIn(id: string, archive: StrangeArchive, { job, signal, progress }: JobAtWork) {
    const bundle = await readBundle(archive);
    const { sheet: files } = bundle.note;
    const needed = files.reduce((sum, { byteCount }) => sum + byteCount, 0);
    await mkdir(unpackedOf(id), { recursive: true });
    const { bavail, bsize } = await statfs(folder);
    if (needed > bavail * bsize - KEPT_FREE_BYTES)
      throw new StrangeArchiveError(
        `It needs ${Math.ceil(needed / 1e6)} MB, and there is no room for that on the server’s disk.`,
      );
    const bad: (BadFile & { readonly hash: string })[] = [];
    const whole: BundledFile[] = [];
    const tell = (done: number, finished = false) =>
      progress({ filesDone: done, fileCount: files.length } satisfies Progress, finished);
    // What an earlier try had unpacked and found right lies there under its hash.
    const there = new Set(await readdir(unpackedOf(id)));
    for (const [index, file] of files.entries()) {
      signal.throwIfAborted();
      const problem = there.has(file.hash) ? null : await unpacked(id, archive, bundle, file);
      if (problem === null) whole.push(file);
      else bad.push({ hash: file.hash, name: file.name, problem });
      tell(index + 1, problem === null);
    }
    signal.throwIfAborted();
    // From here on it is one show with one name, however often it is tried.
    const show = { ...bundle.show, id: showId(id) };
    if (!(await shows.load(show.id))) await shows.put(show, job.studioId);
    for (const file of whole) {
      const at = path.join(unpackedOf(id), file.hash);
      if (await stat(at).catch(() => null))
        await sheet.takeIn(show.id, at, file.name, 'move', assetId(file.hash), file.made);
    }
    const sentences = bundle.bad.map((problem) => ({ name: 'A version', problem }));
    return async (transaction: Writing) => {
      for (const version of bundle.versions)
        await keepVersion(transaction, { ...show, ...version.content }, version.name, version.why, version.createdAt);
      // What is not right stands on the sheet, so that it is seen; the right file, given again, takes its place.
      for (const { hash, name, problem } of bad)
        await transaction
          .insert(sheetEntries)
          .values({
            ...{ id: nanoid(12), showId: show.id, assetId: hash, fileName: name, byteCount: 0 },
            ...{ state: 'refused' as const, problem, addedAt: now() },
          })
          .onConflictDoNothing();
      await transaction
        .update(bundleIntakes)
        .set({
          ...{ state: 'done', problem: null, showId: show.id, fileCount: files.length },
          bad: [...bad.map(({ name, problem }) => ({ name, problem })), ...sentences],
        })
        .where(eq(bundleIntakes.id, id));
    };
  }

  /** Unpacks a file and looks whether it is what it says. @returns what is wrong with it; null when nothing is */
  async function unpacked(
    id: string,
    archive: StrangeArchive,
    { names }: ReadBundle,
    file: BundledFile,
  ): Promise<string | null> {
    const name = names.get(file.hash);
    if (name === undefined) return GONE;
    const part = `${file.hash}.part`;
    await rm(path.join(unpackedOf(id), part), { force: true });
    try {
      const at = await archive.unpack(name, unpackedOf(id), part);
      const right = (await hashOfFile(at)) === file.hash;
      if (right) await rename(at, path.join(unpackedOf(id), file.hash));
      else await rm(at, { force: true });
      return right ? null : WRONG;
    } catch (error) {
      // One file that cannot be read stays one file; a full disk does not.
      if (error instanceof StrangeArchiveError && !isDiskFull(error)) return WRONG;
      throw error;
    }
  }
}

const idOf = (job: TakenJob): string => (job.data as { readonly id: string }).id;
