import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createClient } from '@libsql/client';
import { isDecodedCopy } from '../blobs/decoded-copy';
import { hashOfFile } from '../blobs/content-hash';
import { PART, whole } from '../blobs/whole';
import { lockFolder } from '../lock-folder';

/** What is told while it is under way. */
export interface BackupProgress {
  readonly filesDone: number;
  readonly fileCount: number;
  readonly bytesDone: number;
}

export interface BackupReport {
  readonly fileCount: number;
  /** Of them, those that were not in the backup yet. */
  readonly copiedCount: number;
  readonly byteCount: number;
  /** Files that are not what they were, or could not be read; everything else is there all the same. */
  readonly problems: readonly string[];
}

interface Note {
  readonly format: 'tanager-backup';
  readonly version: 1;
  readonly madeAt: string;
  readonly fileCount: number;
}

/** The folder given is no backup, or one this version cannot read; the message is a sentence for the person. */
export class NoBackupError extends Error {
  override readonly name = 'NoBackupError';
}

const NOTE = 'backup.json';
const DATABASE = 'tanager.db';
const ORIGINALS = path.join('blobs', 'originals');
/** Everything a studio has beside its database. What is being uploaded, and room kept back, is not part of it. */
const FOLDERS = [ORIGINALS, path.join('blobs', 'derived'), 'films'];

/**
 * Backs up a data folder into another one: the database as it is at one moment, also while a server works on it, and every file that is not there yet. Done
 * again into the same folder it copies what is new. The note that makes it a backup is written last.
 */
export async function backUp(
  data: string,
  to: string,
  onProgress: (progress: BackupProgress) => void = () => {},
): Promise<BackupReport> {
  await assertFile(path.join(data, DATABASE), `There is nothing to back up in ${data}.`);
  await mkdir(to, { recursive: true });
  // While it is being changed it is no backup.
  await rm(path.join(to, NOTE), { force: true });
  await whole(path.join(to, DATABASE), async (part) => {
    const client = createClient({ url: `file:${path.join(data, DATABASE)}` });
    try {
      await client.execute('PRAGMA busy_timeout = 10000');
      await client.execute({ sql: 'VACUUM INTO ?', args: [part] });
    } finally {
      client.close();
    }
  });
  const report = await copied(data, to, onProgress, false);
  const note: Note = {
    format: 'tanager-backup',
    version: 1,
    madeAt: new Date().toISOString(),
    fileCount: report.fileCount,
  };
  await whole(path.join(to, NOTE), (part) => writeFile(part, `${JSON.stringify(note, null, 2)}\n`));
  return report;
}

/**
 * Brings a backup back into a data folder. What lies there already is put aside, not overwritten: `movedTo` says where. Every original is checked to be what
 * its name says.
 *
 * @throws {NoBackupError}
 * @throws {FolderInUseError} while a server works on the data folder
 */
export async function bringBack(
  from: string,
  data: string,
  onProgress: (progress: BackupProgress) => void = () => {},
): Promise<BackupReport & { readonly movedTo: string | null }> {
  await assertBackup(from);
  await mkdir(data, { recursive: true });
  // No server may begin with what is about to be put aside.
  const lock = await lockFolder(data);
  const fresh = `${data}.coming`;
  const report = await (async () => {
    try {
      await rm(fresh, { recursive: true, force: true });
      await mkdir(fresh, { recursive: true });
      await copyFileWhole(path.join(from, DATABASE), path.join(fresh, DATABASE));
      return await copied(from, fresh, onProgress, true);
    } finally {
      await lock.release();
    }
  })();
  const there = (await readdir(data)).length > 0;
  const movedTo = there ? await freeName(`${data}.before`) : null;
  if (movedTo) await rename(data, movedTo);
  else await rm(data, { recursive: true });
  await rename(fresh, data);
  return { ...report, movedTo };
}

async function copied(
  from: string,
  to: string,
  onProgress: (progress: BackupProgress) => void,
  checks: boolean,
): Promise<BackupReport> {
  const files = (await Promise.all(FOLDERS.map((folder) => filesIn(from, folder)))).flat();
  const problems: string[] = [];
  let copiedCount = 0;
  let bytesDone = 0;
  for (const [index, file] of files.entries()) {
    try {
      const { size } = await stat(path.join(from, file));
      const known = await stat(path.join(to, file)).catch(() => null);
      // What is kept by content never changes, and films do not either: one of the same size is the same.
      if (known?.size !== size) {
        await copyFileWhole(path.join(from, file), path.join(to, file));
        copiedCount += 1;
      }
      if (checks && isOriginal(file) && (await hashOfFile(path.join(to, file))) !== path.basename(file))
        problems.push(`${file} is damaged: its content is not what it was.`);
      bytesDone += size;
    } catch (error) {
      problems.push(`${file} could not be copied: ${(error as Error).message}`);
    }
    onProgress({ filesDone: index + 1, fileCount: files.length, bytesDone });
  }
  return { fileCount: files.length, copiedCount, byteCount: bytesDone, problems };
}

const isOriginal = (file: string) => file.startsWith(ORIGINALS) && !isDecodedCopy(file);

async function copyFileWhole(from: string, to: string): Promise<void> {
  await mkdir(path.dirname(to), { recursive: true });
  await whole(to, (part) => pipeline(createReadStream(from), createWriteStream(part)));
}

/** Relative to `root`; what is being written, and films in the making, are left out. */
async function filesIn(root: string, folder: string): Promise<string[]> {
  const inside = await readdir(path.join(root, folder), { withFileTypes: true }).catch(() => []);
  const found: string[] = [];
  for (const entry of inside.sort((a, b) => a.name.localeCompare(b.name))) {
    const name = path.join(folder, entry.name);
    if (entry.isDirectory() && !entry.name.endsWith('.work')) found.push(...(await filesIn(root, name)));
    else if (entry.isFile() && !entry.name.endsWith(PART)) found.push(name);
  }
  return found;
}

async function assertBackup(folder: string): Promise<void> {
  const written = await readFile(path.join(folder, NOTE), 'utf8').catch(() => null);
  if (written === null)
    throw new NoBackupError(
      `${folder} is no backup, or one that was not finished. Name the folder that “backup” made.`,
    );
  let note: Partial<Note>;
  try {
    note = JSON.parse(written) as Partial<Note>;
  } catch {
    throw new NoBackupError(`The note of the backup in ${folder} cannot be read.`);
  }
  if (note?.format !== 'tanager-backup') throw new NoBackupError(`${folder} is not a backup of Tanager.`);
  if (note.version !== 1)
    throw new NoBackupError('This backup was made with a newer version of Tanager. Bring this one up to date first.');
  await assertFile(path.join(folder, DATABASE), `The backup in ${folder} lacks its database.`);
}

async function assertFile(file: string, sentence: string): Promise<void> {
  if (!(await stat(file).catch(() => null))?.isFile()) throw new NoBackupError(sentence);
}

async function freeName(name: string): Promise<string> {
  for (let count = 1; ; count += 1) {
    const tried = `${name}-${count}`;
    if (!(await stat(tried).catch(() => null))) return tried;
  }
}
