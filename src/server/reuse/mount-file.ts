import { windowId, windowNumber } from '../../core/show/window-id';
import { createWriteStream } from 'node:fs';
import { mkdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import {
  MOUNT_DOCUMENT,
  MOUNT_VERSION,
  faultOfMount,
  filesOfMount,
  type MountDocument,
} from '../../core/mounts/mount-document';

import { withFilesChanged } from '../../core/show/swap-file';
import { FORMAT_VERSION } from '../../core/show/format/version';
import { raiseContent } from '../../core/show/format/raise';
import { assetId, type AssetId } from '../../core/show/ids';
import { FONT_NAMES } from '../../core/show/words';
import { UnusableFileError } from '../assets/unusable-file-error';
import { openStrangeArchive, StrangeArchiveError, type StrangeArchive } from '../archive/strange-archive';
import { hashOfFile } from '../blobs/content-hash';
import { isHash } from '../schema/hash';
import { parse } from '../schema/parse';

/** A mount file: `mount.json`, and its files under `files/` by their hashes. See docs/mount-format.md. */
const NOTE = 'mount.json';
const FILES = 'files/';
export const MOUNT_LIMITS = { mostEntries: 2000, mostBytes: 2 * 1024 ** 3 };
const DEEPEST_READ = 200;
const MOST_NOTE_BYTES = 32 * 1024 * 1024;

/** Where a file lies that a mount needs, and how it is written without what is noted in it: `bareCopy`, somewhere where it can hold nothing up. */
export interface MountFiles {
  lies(id: AssetId): Promise<string>;
  bare(file: string, out: string): Promise<string | null>;
}

/**
 * Writes a mount as one file. Its files say neither where they were taken nor with what.
 *
 * @throws {UnusableFileError} with a sentence that names the file whose notes cannot be left out
 */
export async function writeMountFile(outFile: string, kept: MountDocument, files: MountFiles): Promise<void> {
  const bare = await withoutNotesIn(`${outFile}.files`, kept, files);
  try {
    await write(outFile, bare.document, bare.place);
  } finally {
    await rm(`${outFile}.files`, { recursive: true, force: true });
  }
}

/** The mount with files that had notes replaced by the same without them, which are other files by their content, some of another kind. */
async function withoutNotesIn(
  folder: string,
  document: MountDocument,
  { lies, bare }: MountFiles,
): Promise<{ document: MountDocument; place: (id: AssetId) => Promise<string> }> {
  const others = new Map<AssetId, AssetId>();
  const names = new Map<string, string>();
  const places = new Map<AssetId, string>();
  await mkdir(folder, { recursive: true });
  for (const id of filesOfMount(document)) {
    const file = await lies(id);
    if (!(await stat(file).catch(() => null))) continue;
    const at = path.join(folder, id);
    const name = document.files[id] ?? '';
    const extension = await bare(file, at).catch((error: unknown) => {
      if (error instanceof UnusableFileError)
        throw new UnusableFileError(`${name}: ${error.message}`, { cause: error });
      throw error;
    });
    if (extension === null) continue;
    const other = assetId(await hashOfFile(at));
    others.set(id, other);
    names.set(id, extension === '' ? name : `${path.basename(name, path.extname(name))}${extension}`);
    places.set(other, at);
  }
  const change = (id: AssetId) => others.get(id) ?? id;
  return {
    document:
      others.size === 0
        ? document
        : {
            ...document,
            files: Object.fromEntries(
              Object.entries(document.files).map(([id, name]) => [
                isHash(id) ? change(assetId(id)) : id,
                names.get(id) ?? name,
              ]),
            ),
            fits: document.fits.map((fit) => ({
              ...fit,
              slides: fit.slides.map((slide) => withFilesChanged(slide, change)),
            })),
          },
    place: async (id) => places.get(id) ?? lies(id),
  };
}

async function write(outFile: string, document: MountDocument, place: (id: AssetId) => Promise<string>): Promise<void> {
  const zip = new ZipFile();
  // Always the same for the same mount.
  const mtime = new Date('2000-01-01T00:00:00Z');
  zip.addBuffer(Buffer.from(`${JSON.stringify(document, null, 2)}\n`), NOTE, { mtime });
  for (const id of filesOfMount(document).toSorted())
    zip.addFile(await place(id), `${FILES}${id}${path.extname(document.files[id] ?? '').toLowerCase()}`, {
      mtime,
      compress: false,
    });
  zip.end();
  await pipeline(zip.outputStream, createWriteStream(outFile));
}

/** A mount as it came from elsewhere, its files unpacked. */
export interface ReadMount {
  readonly document: MountDocument;
  readonly files: ReadonlyMap<AssetId, { readonly file: string; readonly fileName: string }>;
  /** What it needs that is neither in it nor here, each as a sentence: fonts, files. */
  readonly missing: readonly string[];
}

/**
 * Reads a mount file of unknown origin; its files are unpacked into a folder of the caller's.
 *
 * @throws {StrangeArchiveError} with a sentence that can follow the file's name
 */
export async function readMountFile(file: string, folder: string): Promise<ReadMount> {
  const archive = await openStrangeArchive(file, MOUNT_LIMITS);
  try {
    return await read(archive, folder);
  } finally {
    archive.close();
  }
}

async function read(archive: StrangeArchive, folder: string): Promise<ReadMount> {
  if (!archive.names.includes(NOTE)) throw new StrangeArchiveError('It is no mount: there is no mount.json in it.');
  const missing: string[] = [];
  const raw = knownFonts(readable(await archive.text(NOTE, MOST_NOTE_BYTES)), missing);
  const parsed = parse<MountDocument>(MOUNT_DOCUMENT, raised(raw), faultOfMount);
  if (!parsed.ok) throw new StrangeArchiveError(`It is no mount that can be used: ${parsed.problem}`);
  const byHash = new Map(
    archive.names
      .filter((name) => name.startsWith(FILES))
      .map((name) => [path.basename(name, path.extname(name)), name]),
  );
  const files = new Map<AssetId, { file: string; fileName: string }>();
  const gone: AssetId[] = [];
  for (const id of filesOfMount(parsed.value)) {
    const name = byHash.get(id);
    const fileName = parsed.value.files[id]!;
    if (!name) {
      gone.push(id);
      missing.push(`The file “${fileName}” is not in it; a window stands in its place.`);
      continue;
    }
    const unpacked = await archive.unpack(name, folder, `${id}${path.extname(name).slice(0, 10)}`);
    if ((await hashOfFile(unpacked)) !== id)
      throw new StrangeArchiveError(`The file “${fileName}” in it is not what it was.`);
    files.set(id, { file: unpacked, fileName });
  }
  return { document: withWindowsFor(parsed.value, gone), files, missing };
}

function readable(text: string): Record<string, unknown> {
  try {
    const value: unknown = JSON.parse(text);
    if (typeof value === 'object' && value !== null && !Array.isArray(value)) return value as Record<string, unknown>;
  } catch (error) {
    throw new StrangeArchiveError('Its mount.json cannot be read.', { cause: error });
  }
  throw new StrangeArchiveError('Its mount.json cannot be read.');
}

/** Brought up to today's version. */
function raised(raw: Record<string, unknown>): unknown {
  const { version, shows, fits } = raw;
  if (raw.format !== 'tanager-mount') throw new StrangeArchiveError('It is no mount: its mount.json says so.');
  if (typeof version !== 'number' || typeof shows !== 'number')
    throw new StrangeArchiveError('It does not say which version it is of.');
  if (version > MOUNT_VERSION || shows > FORMAT_VERSION)
    throw new StrangeArchiveError('It was made with a newer version of Tanager. Bring this one up to date to use it.');
  if (shows === FORMAT_VERSION || !Array.isArray(fits)) return raw;
  return {
    ...raw,
    shows: FORMAT_VERSION,
    fits: fits.map((fit: unknown) => {
      if (typeof fit !== 'object' || fit === null || !('slides' in fit)) return fit;
      return { ...fit, slides: (raiseContent({ slides: fit.slides, cues: [] }, shows) as { slides: unknown }).slides };
    }),
  };
}

/** Fonts that do not ship with the app are named, and the usual one stands in for them. */
function knownFonts<Value>(value: Value, missing: string[]): Value {
  const known = new Set<string>(FONT_NAMES);
  const said = new Set<string>();
  const walk = (part: unknown, depth = 0): unknown => {
    // What is nested deeper is refused afterwards.
    if (depth > DEEPEST_READ) return part;
    if (Array.isArray(part)) return part.map((inner) => walk(inner, depth + 1));
    if (typeof part !== 'object' || part === null) return part;
    return Object.fromEntries(
      Object.entries(part).flatMap(([name, inner]): [string, unknown][] => {
        if ((name !== 'font' && name !== 'subtitleFont') || typeof inner !== 'string' || known.has(inner))
          return [[name, walk(inner, depth + 1)]];
        const shown = inner.slice(0, 60);
        if (!said.has(shown)) missing.push(`The font “${shown}” is not here; the usual one is used in its place.`);
        said.add(shown);
        return [];
      }),
    );
  };
  return walk(value) as Value;
}

/** A window where a file is missing, called by its name. */
function withWindowsFor(document: MountDocument, gone: readonly AssetId[]): MountDocument {
  if (gone.length === 0) return document;
  const { files, ...rest } = document;
  return {
    ...rest,
    files: Object.fromEntries(Object.entries(files).filter(([id]) => !isHash(id) || !gone.includes(assetId(id)))),
    fits: document.fits.map((fit) => {
      const windows = [...fit.windows];
      const numbers = new Map<AssetId, AssetId>();
      const slides = fit.slides.map((slide) =>
        withFilesChanged(slide, (id) => {
          if (windowNumber(id) !== null || !gone.includes(id)) return id;
          if (!numbers.has(id)) {
            windows.push({ name: files[id]!, takes: 'picture' });
            numbers.set(id, windowId(windows.length));
          }
          return numbers.get(id)!;
        }),
      );
      return { ...fit, windows, slides };
    }),
  };
}
