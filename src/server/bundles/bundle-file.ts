import { createHash } from 'node:crypto';
import type { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import {
  BUNDLE,
  BUNDLE_FILES,
  BUNDLE_FORMAT,
  BUNDLE_NOTE,
  BUNDLE_SHOW,
  BUNDLE_VERSION,
  BUNDLE_VERSIONS,
  bundledName,
  MOST_BUNDLED_FILES,
  MOST_BUNDLED_VERSIONS,
  VERSION_NOTE,
  type BundledFile,
  type BundledVersion,
  type BundleNote,
} from '../../core/bundles/bundle';
import { anything, object } from '../../core/schema/schema';
import { raiseShow } from '../../core/show/format/raise';
import type { Show, ShowContent } from '../../core/show/show';
import { StrangeArchiveError, type StrangeArchive } from '../archive/strange-archive';
import { parse } from '../schema/parse';
import { parseShowFile, parseStoredContent } from '../schema/show-schema';

/** Far above any evening; what is unpacked must fit on the disk besides. */
export const BUNDLE_LIMITS = {
  mostEntries: MOST_BUNDLED_FILES + MOST_BUNDLED_VERSIONS + 10,
  mostBytes: 2 * 1024 ** 4,
};
/** Ten thousand slides take about 8 MB. */
const MOST_JSON_BYTES = 64 * 1024 * 1024;
/** Always the same for the same show. */
const MTIME = new Date('2000-01-01T00:00:00Z');

export interface BundleParts {
  readonly show: Show;
  /** Every file of it, those too that are gone: whoever takes it in is told. */
  readonly sheet: readonly BundledFile[];
  /** By their hashes. */
  readonly gone: ReadonlySet<string>;
  readonly versions: readonly BundledVersion[];
  /** Where a file lies. */
  place(hash: string): Promise<string>;
}

/** A bundle on its way out. */
export interface WrittenBundle {
  readonly byteCount: number;
  /** The same for the same bytes. */
  readonly tag: string;
  readonly bytes: Readable;
}

/**
 * Writes a show, its files and its versions as one ZIP, a piece at a time: nothing of it is held in memory but the documents. Nothing is packed, so that its
 * size is known beforehand and any program opens it; `show.json` is a saved show whose files lie beside it.
 */
export async function writeBundle({ show, sheet, gone, versions, place }: BundleParts): Promise<WrittenBundle> {
  const zip = new ZipFile();
  const hash = createHash('sha256');
  const asWhole = { mtime: MTIME, compress: false };
  const add = (name: string, value: unknown) => {
    const bytes = Buffer.from(`${JSON.stringify(value)}\n`);
    hash.update(name).update(bytes);
    zip.addBuffer(bytes, name, asWhole);
  };
  const note: BundleNote = {
    ...{ format: BUNDLE_FORMAT, version: BUNDLE_VERSION, title: show.title, sheet, versionCount: versions.length },
  };
  add(BUNDLE_NOTE, note);
  const there = sheet.filter((file) => !gone.has(file.hash));
  add(BUNDLE_SHOW, { ...show, files: Object.fromEntries(there.map((file) => [file.hash, bundledName(file)])) });
  for (const [index, version] of versions.entries()) add(versionName(index), version);
  for (const file of there) zip.addFile(await place(file.hash), bundledName(file), asWhole);
  const byteCount = await new Promise<number>((resolve, reject) => {
    (zip as unknown as NodeJS.EventEmitter).on('error', reject);
    // The package tells the size it will have; its types do not know.
    zip.end({ forceZip64Format: false, comment: '' }, resolve as unknown as () => void);
  });
  (zip as unknown as NodeJS.EventEmitter).on('error', (error: Error) => (zip.outputStream as Readable).destroy(error));
  return { byteCount, tag: `"${hash.digest('hex').slice(0, 32)}"`, bytes: zip.outputStream as Readable };
}

const versionName = (index: number): string => `${BUNDLE_VERSIONS}${index + 1}.json`;

/** What a bundle says, before any of its files is unpacked. */
export interface ReadBundle {
  readonly note: BundleNote;
  readonly show: Show;
  readonly versions: readonly (Omit<BundledVersion, 'content' | 'formatVersion'> & { readonly content: ShowContent })[];
  /** Where each file lies in it; files that are not in it are not in here. */
  readonly names: ReadonlyMap<string, string>;
  /** Versions that cannot be read, each as a sentence. */
  readonly bad: readonly string[];
}

/** @throws {StrangeArchiveError} with a sentence, when it is no bundle that can be used here */
export async function readBundle(archive: StrangeArchive): Promise<ReadBundle> {
  if (!archive.names.includes(BUNDLE_NOTE) || !archive.names.includes(BUNDLE_SHOW))
    throw new StrangeArchiveError(
      'It is no show that was saved as one file: there is no bundle.json or show.json in it.',
    );
  const raw = await json(archive, BUNDLE_NOTE);
  if (raw.format !== BUNDLE_FORMAT) throw new StrangeArchiveError('It is no show that was saved as one file.');
  if (typeof raw.version === 'number' && raw.version > BUNDLE_VERSION) throw new StrangeArchiveError(NEWER);
  const note = parse<BundleNote>(BUNDLE, raw);
  if (!note.ok) throw new StrangeArchiveError(`Its bundle.json is damaged: ${note.problem}`);
  const show = await showIn(archive);
  const bad: string[] = [];
  const versions: ReadBundle['versions'][number][] = [];
  for (let index = 0; index < note.value.versionCount; index += 1) {
    const version = await versionIn(archive, versionName(index)).catch((error: Error) => error);
    if (version instanceof Error) bad.push(version.message);
    else versions.push(version);
  }
  const names = new Map(
    archive.names
      .filter((name) => name.startsWith(BUNDLE_FILES))
      .map((name) => [name.slice(BUNDLE_FILES.length).split('.')[0]!, name]),
  );
  return { note: note.value, show, versions, names, bad };
}

const NEWER =
  'It was made with a newer version of Tanager. Bring this one up to date to use it; nothing of it is lost.';

async function showIn(archive: StrangeArchive): Promise<Show> {
  const raw = await json(archive, BUNDLE_SHOW);
  let raised: unknown;
  try {
    raised = raiseShow(raw);
  } catch (error) {
    throw new StrangeArchiveError(NEWER, { cause: error });
  }
  const parsed = parseShowFile(raised);
  if (!parsed.ok) throw new StrangeArchiveError(`The show in it is damaged: ${parsed.problem}`);
  const { files: _files, ...show } = parsed.value;
  return show;
}

async function versionIn(archive: StrangeArchive, name: string): Promise<ReadBundle['versions'][number]> {
  const raw = await json(archive, name);
  const said = parse<BundledVersion>(object<BundledVersion>({ ...VERSION_NOTE, content: anything }), raw);
  if (!said.ok) throw new StrangeArchiveError(`A version in it (${name}) is damaged: ${said.problem}`);
  const content = parseStoredContent(said.value.content, said.value.formatVersion);
  if (!content.ok)
    throw new StrangeArchiveError(`The version “${said.value.name}” in it is damaged: ${content.problem}`);
  const { name: called, why, createdAt } = said.value;
  return { name: called, why, createdAt, content: content.value };
}

async function json(archive: StrangeArchive, name: string): Promise<Record<string, unknown>> {
  const text = await archive.text(name, MOST_JSON_BYTES);
  try {
    const value: unknown = JSON.parse(text);
    if (typeof value === 'object' && value !== null && !Array.isArray(value)) return value as Record<string, unknown>;
  } catch (error) {
    throw new StrangeArchiveError(`Its ${name} cannot be read.`, { cause: error });
  }
  throw new StrangeArchiveError(`Its ${name} cannot be read.`);
}
