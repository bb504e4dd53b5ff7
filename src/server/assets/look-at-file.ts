import { stat } from 'node:fs/promises';
import { fileTypeFromFile } from 'file-type';
import type { Sharp } from 'sharp';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { Peaks } from '../../core/sound/peaks';
import { listen } from './listen';
import { lookAtClip } from './look-at-clip';
import { lookAtPicture } from './look-at-picture';
import { keepDecoded, pictureKind } from './open-picture';
import { readPictureFile } from './read-picture';
import { UnusableFileError } from './unusable-file-error';

export interface LookedAt {
  readonly facts: AssetFacts;
  /** Of a sound, or of a clip's own sound. */
  readonly peaks: Peaks | null;
  readonly mime: string;
  readonly byteCount: number;
  /** Of a picture: the whole of it as a small copy, ready to be kept as its print. */
  readonly small: Sharp | null;
}

const PICTURES = new Set(['image/jpeg', 'image/png', 'image/gif', 'image/webp', 'image/avif', 'image/tiff']);
const HEIC = new Set(['image/heic', 'image/heif', 'image/heic-sequence', 'image/heif-sequence']);
const UNREAD_PICTURES = new Set(['image/bmp', 'image/vnd.adobe.photoshop', 'image/jp2', 'image/jxl']);

export interface Looking {
  readonly signal?: AbortSignal;
  /** Told how long it may take, once it is known what the file is. */
  takes?(timeMs: number): void;
}

/** Drawings that people make take a fraction of a second. */
const DRAWING_TAKES_MS = 12_000;
const DRAWING_TRIED_PX = 2112;
/** Half a second for each million pixels, and cameras make up to fifty. */
const HEIC_TAKES_MS = 90_000;
/** Developing takes a quarter to half a second for each million points of a sensor. */
const RAW_TAKES_MS = 90_000;
/** Listening and unpacking go at least as quickly as playing, and on a slow machine at half that. */
const MEDIA_TAKES = { leastMs: 120_000, times: 3 };

/**
 * Finds out what a file is from its content, never from its name, and reads all facts about it.
 *
 * @throws {UnusableFileError} with a line for the person
 */
export async function lookAtFile(file: string, { signal, takes }: Looking = {}): Promise<LookedAt> {
  const { size } = await stat(file);
  if (size === 0) throw new UnusableFileError('The file is empty. Copy it again from where it came from.');
  const type = await fileTypeFromFile(file);
  if ((!type || type.mime === 'application/xml') && (await pictureKind(file)) === 'drawing')
    return lookedAtDrawing(file, size, takes);
  if ((await pictureKind(file)) === 'raw') return lookedAtRaw(file, type?.mime ?? 'image/x-raw', size, takes);
  if (type && PICTURES.has(type.mime)) return lookedAtPicture(file, type.mime, size);
  if (type && HEIC.has(type.mime)) return lookedAtHeic(file, type.mime, size, takes);
  if (type && UNREAD_PICTURES.has(type.mime))
    throw new UnusableFileError(
      `${type.ext.toUpperCase()} pictures cannot be read. Save it as JPEG, PNG, WebP, AVIF, HEIC or TIFF.`,
    );
  if (type && /^(video|audio)\/|^application\/(ogg|mp4)$/.test(type.mime))
    return lookAtMedia(file, type.mime, size, { signal, takes });
  throw new UnusableFileError(
    `This is not a picture, a clip or a sound${type ? ` but ${articled(type.ext.toUpperCase())} file` : ''}, whatever its name says.`,
  );
}

async function lookedAtPicture(file: string, mime: string, byteCount: number): Promise<LookedAt> {
  const { facts, small } = await lookAtPicture(file);
  return { facts, peaks: null, mime, byteCount, small };
}

/** How long a drawing takes grows with its size: it is tried as large as a film will want it, so that one that is quick when small cannot hold a film up. */
async function lookedAtDrawing(file: string, byteCount: number, takes: Looking['takes']): Promise<LookedAt> {
  takes?.(DRAWING_TAKES_MS);
  const looked = await lookedAtPicture(file, 'image/svg+xml', byteCount);
  try {
    await readPictureFile(file, DRAWING_TRIED_PX, DRAWING_TRIED_PX);
  } catch (cause) {
    throw new UnusableFileError('This drawing cannot be drawn at the size of a film. Save it in a plainer form.', {
      cause,
    });
  }
  return looked;
}

/** A RAW file stands for the picture its camera put into it, or for what its sensor saw. */
async function lookedAtRaw(file: string, mime: string, byteCount: number, takes: Looking['takes']): Promise<LookedAt> {
  takes?.(RAW_TAKES_MS);
  await keepDecoded(file);
  return lookedAtPicture(file, mime, byteCount);
}

async function lookedAtHeic(file: string, mime: string, byteCount: number, takes: Looking['takes']): Promise<LookedAt> {
  takes?.(HEIC_TAKES_MS);
  try {
    await keepDecoded(file);
  } catch (cause) {
    throw new UnusableFileError(
      'This HEIC picture cannot be read; its file is damaged or of a sort that is not known here. Save it as JPEG and bring that.',
      { cause },
    );
  }
  return lookedAtPicture(file, mime, byteCount);
}

async function lookAtMedia(
  file: string,
  mime: string,
  byteCount: number,
  { signal, takes }: Looking,
): Promise<LookedAt> {
  const { clip, lengthMs } = await lookAtClip(file, byteCount);
  takes?.(MEDIA_TAKES.leastMs + MEDIA_TAKES.times * lengthMs);
  if (clip)
    return {
      facts: clip,
      peaks: clip.hasSound ? (await listen(file, signal)).peaks : null,
      mime,
      byteCount,
      small: null,
    };
  const { peaks, ...heard } = await listen(file, signal);
  return {
    facts: {
      kind: 'sound',
      lengthMs: heard.lengthMs,
      title: heard.title,
      artist: heard.artist,
      ...(heard.genre !== null && { genre: heard.genre }),
      ...(heard.band && { band: heard.band }),
    },
    peaks,
    mime,
    byteCount,
    small: null,
  };
}

/** “an ICO”, “a ZIP”: by how its first letter is said. */
function articled(letters: string): string {
  return `${/^[AEFHILMNORSX]/.test(letters) ? 'an' : 'a'} ${letters}`;
}
