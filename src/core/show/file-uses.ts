import type { AssetId } from './ids';
import { assetIdsOfSound } from './placed-sound';
import { assetIdsOfSlides, type Show } from './show';

/** Where a file is used. */
export interface FileUses {
  /** By number, from 1. */
  readonly slides: readonly number[];
  /** As a song or another sound of the whole show. */
  readonly music: boolean;
  readonly watermark: boolean;
}

/** Where each file of a show is used; files that are not used are not named. */
export function fileUses({ slides, cues, watermark }: Show): ReadonlyMap<AssetId, FileUses> {
  const uses = new Map<AssetId, { slides: number[]; music: boolean; watermark: boolean }>();
  const of = (id: AssetId) => {
    const known = uses.get(id) ?? { slides: [], music: false, watermark: false };
    uses.set(id, known);
    return known;
  };
  slides.forEach((slide, index) => {
    for (const id of assetIdsOfSlides([slide])) of(id).slides.push(index + 1);
  });
  for (const id of cues.flatMap(assetIdsOfSound)) of(id).music = true;
  if (watermark) of(watermark.assetId).watermark = true;
  return uses;
}

const MOST_NAMED = 6;

/** “slides 3, 4 and 9”, “the music”; empty when it is not used. */
export function usesSentence({ slides, music, watermark }: FileUses): string {
  const named = slides.slice(0, MOST_NAMED).map(String);
  const more = slides.length - named.length;
  if (more > 0) named.push(`${more} more`);
  const list = named.length < 2 ? named.join('') : `${named.slice(0, -1).join(', ')} and ${named.at(-1)!}`;
  return [
    slides.length > 0 ? `${slides.length === 1 ? 'slide' : 'slides'} ${list}` : '',
    music ? 'the music' : '',
    watermark ? 'the watermark' : '',
  ]
    .filter((part) => part !== '')
    .join(', ');
}

/** A file of a show that is not there. */
export interface MissingFile {
  readonly assetId: AssetId;
  /** As it was brought; null when that is not known. */
  readonly fileName: string | null;
  /** Null when it is not known. */
  readonly byteCount: number | null;
  readonly uses: FileUses;
}

/** Whether a file might be one that is missing, before its content is looked at: by its size, or where that is not known, by its name. */
export function mayBe(
  { fileName, byteCount }: Pick<MissingFile, 'fileName' | 'byteCount'>,
  file: { readonly name: string; readonly size: number },
): boolean {
  if (byteCount !== null) return file.size === byteCount;
  return fileName === null || fileName.normalize('NFC').toLowerCase() === file.name.normalize('NFC').toLowerCase();
}
