import { HASH, list, number, object, oneOf, orNull, text, whole, type Schema } from '../schema/schema';
import { LONGEST_SHOW_TITLE } from '../show/limits';

/** What a bundle’s `bundle.json` calls itself. */
export const BUNDLE_FORMAT = 'tanager-bundle';
export const BUNDLE_VERSION = 1;

/** Where things lie in a bundle. */
export const BUNDLE_NOTE = 'bundle.json';
export const BUNDLE_SHOW = 'show.json';
export const BUNDLE_FILES = 'files/';
export const BUNDLE_VERSIONS = 'versions/';

/** A file of the contact sheet, by its content (BLAKE2b, first 256 bits). */
export interface BundledFile {
  readonly hash: string;
  /** As it was called when it came. */
  readonly name: string;
  readonly byteCount: number;
  /** Made here, not brought. */
  readonly made: 'take' | 'cleaned' | 'studio' | 'band' | null;
}

/** What lies in a bundle beside the show: see docs/bundle-format.md. */
export interface BundleNote {
  readonly format: string;
  readonly version: number;
  readonly title: string;
  /** In the order they came. */
  readonly sheet: readonly BundledFile[];
  /** How many versions were kept of the show. */
  readonly versionCount: number;
}

/** One that was kept, as it lies under `versions/`. */
export interface BundledVersion {
  readonly name: string;
  readonly why: 'kept' | 'safety';
  readonly createdAt: number;
  /** Of the show’s format. */
  readonly formatVersion: number;
  readonly content: unknown;
}

export const MOST_BUNDLED_FILES = 50_000;
export const MOST_BUNDLED_VERSIONS = 2000;

export const BUNDLE: Schema = object<BundleNote>({
  format: oneOf([BUNDLE_FORMAT]),
  version: whole(1, BUNDLE_VERSION),
  title: text(LONGEST_SHOW_TITLE),
  sheet: list(
    object<BundledFile>({
      hash: HASH,
      name: text(255, 1),
      byteCount: whole(0, 1e15),
      made: orNull(oneOf(['take', 'cleaned', 'studio', 'band'])),
    }),
    MOST_BUNDLED_FILES,
  ),
  versionCount: whole(0, MOST_BUNDLED_VERSIONS),
});

export const VERSION_NOTE = {
  name: text(200, 1),
  why: oneOf(['kept', 'safety']),
  createdAt: number(0, 1e15),
  formatVersion: whole(1, 10_000),
} as const;

/** What came of a file that was in a bundle, where that is not good. */
export interface BadFile {
  readonly name: string;
  readonly problem: string;
}

/** A bundle that is being taken in, or was. */
export interface BundleIntake {
  readonly id: string;
  readonly fileName: string;
  readonly state: 'taking' | 'done' | 'failed';
  /** Why it was not taken; null otherwise. */
  readonly problem: string | null;
  /** The show it became. */
  readonly showId: string | null;
  readonly title: string | null;
  readonly filesDone: number;
  readonly fileCount: number | null;
  readonly bad: readonly BadFile[];
}

/** “picture.jpg” lies under its content’s hash with an ending that any program knows. */
export function bundledName({ hash, name }: Pick<BundledFile, 'hash' | 'name'>): string {
  const ending = /\.[a-z0-9]{1,8}$/.exec(name.toLowerCase())?.[0] ?? '';
  return `${BUNDLE_FILES}${hash}${ending}`;
}

/** “taken in: 42 files”, “2 of 42 files are not as they were” */
export function intakeSentence({ state, problem, filesDone, fileCount, bad }: BundleIntake): string {
  if (state === 'failed') return problem ?? 'It could not be taken in.';
  if (state === 'taking')
    return fileCount === null ? 'is being looked at' : `is being taken in: ${filesDone} of ${fileCount} files`;
  const files = `${fileCount ?? 0} ${fileCount === 1 ? 'file' : 'files'}`;
  return bad.length === 0
    ? `is here, with ${files}`
    : `is here; ${bad.length} of its ${files} ${bad.length === 1 ? 'is not as it was' : 'are not as they were'}`;
}
