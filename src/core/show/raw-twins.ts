import type { AssetFacts } from './asset-facts';

/** A file as far as it may be one of a pair. */
export interface NamedFile {
  readonly fileName: string;
  readonly facts: AssetFacts | null;
}

/**
 * Cameras that write RAW and a finished picture at one press make two files of one name. Such a pair is one picture: the finished one is shown, the RAW file
 * rides along.
 *
 * @returns each RAW file that has a finished twin, with that: of the same name but for its ending, taken at the same moment
 */
export function rawTwins<File extends NamedFile>(files: readonly File[]): ReadonlyMap<File, File> {
  const raws = files.filter(({ facts }) => facts?.kind === 'picture' && facts.raw);
  if (raws.length === 0) return new Map();
  const finished = new Map<string, File>();
  for (const file of files)
    if (file.facts?.kind === 'picture' && !file.facts.raw) finished.set(shot(file.fileName, file.facts.takenAt), file);
  const pairs = new Map<File, File>();
  for (const raw of raws) {
    const twin = raw.facts?.kind === 'picture' && finished.get(shot(raw.fileName, raw.facts.takenAt));
    if (twin) pairs.set(raw, twin);
  }
  return pairs;
}

/** `DSC_0042.NEF` and `dsc_0042.jpg` of one second are one press of the release. */
function shot(fileName: string, takenAt: string | null): string {
  return `${fileName.replace(/\.[^.]*$/, '').toLowerCase()} ${takenAt ?? ''}`;
}
