import { createWriteStream } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import path from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import yauzl, { type Entry, type ZipFile } from 'yauzl';

/** What a file that came from elsewhere may be at most. */
export interface ArchiveLimits {
  readonly mostEntries: number;
  /** Of all of it together, unpacked. */
  readonly mostBytes: number;
}

/** A ZIP that is not taken; the message is a sentence for the person. */
export class StrangeArchiveError extends Error {
  override readonly name = 'StrangeArchiveError';
}

/** Whether an error says that a ZIP is not taken, whichever bundle it comes from. */
export function isStrangeArchive(error: unknown): error is StrangeArchiveError {
  return error instanceof Error && error.name === 'StrangeArchiveError';
}

/** A ZIP of unknown origin, looked at whole before anything of it is unpacked. */
export interface StrangeArchive {
  /** Names as they stand in it, folders left out. */
  readonly names: readonly string[];
  /** @throws {StrangeArchiveError} when it is not there or larger than that */
  text(name: string, mostBytes: number): Promise<string>;
  /** Unpacks one into a folder under a name of the caller’s. @returns its path */
  unpack(name: string, folder: string, as: string): Promise<string>;
  close(): void;
}

/** How much a ZIP may promise for each of its own bytes; pictures, music and text stay far below. */
const MOST_TIMES_LARGER = 200;
const SYMLINK = 0o120000;
const KIND = 0o170000;

/**
 * Opens a ZIP without trusting anything it says: names that lead out of it, that differ only in capitals or come twice, links, encryption, more entries or
 * bytes than allowed, and sizes that are not true are refused; what is unpacked is counted as it comes.
 *
 * @throws {StrangeArchiveError}
 */
export async function openStrangeArchive(file: string, limits: ArchiveLimits): Promise<StrangeArchive> {
  const zip = await opened(file);
  try {
    const entries = await entriesOf(zip, limits);
    let leftBytes = limits.mostBytes;
    const stream = async (name: string, mostBytes: number): Promise<Readable> => {
      const entry = entries.get(name);
      if (!entry) throw new StrangeArchiveError(`“${shown(name)}” is missing in it.`);
      if (entry.uncompressedSize > mostBytes) throw new StrangeArchiveError(`“${shown(name)}” in it is too large.`);
      const source = await readStream(zip, entry);
      const through = counted(mostBytes, name, (bytes) => {
        leftBytes -= bytes;
        return leftBytes >= 0;
      });
      source.on('error', (error) => through.destroy(error));
      return source.pipe(through);
    };
    return {
      names: [...entries.keys()],
      async text(name, mostBytes) {
        const chunks: Buffer[] = [];
        try {
          for await (const chunk of await stream(name, mostBytes)) chunks.push(chunk as Buffer);
        } catch (error) {
          throw asStrange(error);
        }
        return new TextDecoder().decode(Buffer.concat(chunks));
      },
      async unpack(name, folder, as) {
        await mkdir(folder, { recursive: true });
        const to = path.join(folder, path.basename(as));
        try {
          await pipeline(await stream(name, leftBytes), createWriteStream(to, { flags: 'wx' }));
        } catch (error) {
          throw asStrange(error);
        }
        return to;
      },
      close: () => zip.close(),
    };
  } catch (error) {
    zip.close();
    throw asStrange(error);
  }
}

function opened(file: string): Promise<ZipFile> {
  return new Promise((resolve, reject) => {
    yauzl.open(
      file,
      { lazyEntries: true, autoClose: false, strictFileNames: true, validateEntrySizes: true },
      (error, zip) => {
        if (error) reject(new StrangeArchiveError('It is no ZIP file, or not all of it is there.', { cause: error }));
        else resolve(zip);
      },
    );
  });
}

function entriesOf(zip: ZipFile, { mostEntries, mostBytes }: ArchiveLimits): Promise<Map<string, Entry>> {
  return new Promise((resolve, reject) => {
    const entries = new Map<string, Entry>();
    const seen = new Set<string>();
    let bytes = 0;
    const refuse = (sentence: string) => reject(new StrangeArchiveError(sentence));
    if (zip.entryCount > mostEntries) return refuse('It holds far too many files.');
    zip.on('error', (error: unknown) => reject(asStrange(error)));
    zip.on('end', () => resolve(entries));
    zip.on('entry', (entry: Entry) => {
      const name = entry.fileName;
      const fault = faultOfEntry(entry);
      if (fault) return refuse(fault);
      if (!name.endsWith('/')) {
        const same = name.normalize('NFC').toLowerCase();
        if (seen.has(same)) return refuse(`“${shown(name)}” is in it twice.`);
        seen.add(same);
        bytes += entry.uncompressedSize;
        if (bytes > mostBytes) return refuse('It would be too large unpacked.');
        if (entry.uncompressedSize > MOST_TIMES_LARGER * Math.max(1000, entry.compressedSize))
          return refuse('It would grow beyond measure when it is unpacked.');
        entries.set(name, entry);
      }
      zip.readEntry();
    });
    zip.readEntry();
  });
}

function faultOfEntry(entry: Entry): string | null {
  const name = entry.fileName;
  if (entry.isEncrypted()) return 'It is locked with a password.';
  if (yauzl.validateFileName(name) !== null || name.includes('\0') || name.length > 500)
    return `A file in it is called “${shown(name)}”, which would lead out of it.`;
  if (((entry.externalFileAttributes >>> 16) & KIND) === SYMLINK)
    return `“${shown(name)}” in it is a link, not a file.`;
  return null;
}

function readStream(zip: ZipFile, entry: Entry): Promise<Readable> {
  return new Promise((resolve, reject) => {
    zip.openReadStream(entry, (error, stream) => {
      if (error) reject(asStrange(error));
      else resolve(stream);
    });
  });
}

/** Passes on what comes as long as it is no more than allowed. */
function counted(mostBytes: number, name: string, take: (bytes: number) => boolean): Transform {
  let bytes = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      if (bytes > mostBytes || !take(chunk.length))
        done(new StrangeArchiveError(`“${shown(name)}” in it is larger than it says.`));
      else done(null, chunk);
    },
  });
}

function asStrange(error: unknown): Error {
  if (error instanceof StrangeArchiveError) return error;
  const { code } = error as NodeJS.ErrnoException;
  // A full disk is not the file's fault.
  if (code === 'ENOSPC' || code === 'EACCES') return error as Error;
  return new StrangeArchiveError('Part of it is damaged.', { cause: error });
}

/** A name from outside, short and without signs that cannot be seen. */
function shown(name: string): string {
  return name.replace(/[\p{C}]/gu, '?').slice(0, 60);
}
