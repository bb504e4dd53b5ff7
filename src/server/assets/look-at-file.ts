import { stat } from 'node:fs/promises';
import { fileTypeFromFile } from 'file-type';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { Peaks } from '../../core/sound/peaks';
import { listen } from './listen';
import { lookAtClip } from './look-at-clip';
import { lookAtPicture } from './look-at-picture';
import { isDrawing } from './open-picture';
import { UnusableFileError } from './unusable-file-error';

export interface LookedAt {
  readonly facts: AssetFacts;
  /** Of a sound, or of a clip's own sound. */
  readonly peaks: Peaks | null;
  readonly mime: string;
}

const PICTURES = new Set(['image/jpeg', 'image/png', 'image/gif', 'image/webp', 'image/avif', 'image/tiff']);
const UNREAD_PICTURES = new Set(['image/heic', 'image/heif', 'image/bmp', 'image/vnd.adobe.photoshop', 'image/jp2', 'image/jxl', 'image/x-canon-cr2', 'image/x-nikon-nef', 'image/x-sony-arw', 'image/x-adobe-dng']);

/**
 * Finds out what a file is from its content, never from its name, and reads all facts about it.
 *
 * @throws {UnusableFileError} with a line for the person
 */
export async function lookAtFile(file: string, signal?: AbortSignal): Promise<LookedAt> {
  const { size } = await stat(file);
  if (size === 0) throw new UnusableFileError('The file is empty. Copy it again from where it came from.');
  const type = await fileTypeFromFile(file);
  if ((!type || type.mime === 'application/xml') && await isDrawing(file)) return { facts: await lookAtPicture(file), peaks: null, mime: 'image/svg+xml' };
  if (type && PICTURES.has(type.mime)) return { facts: await lookAtPicture(file), peaks: null, mime: type.mime };
  if (type && UNREAD_PICTURES.has(type.mime)) throw new UnusableFileError(`${type.ext.toUpperCase()} pictures cannot be read. Save it as JPEG, PNG, WebP, AVIF or TIFF.`);
  if (type && /^(video|audio)\/|^application\/(ogg|mp4)$/.test(type.mime)) return lookAtMedia(file, type.mime, signal);
  throw new UnusableFileError(`This is not a picture, a clip or a sound${type ? ` but a ${type.ext} file` : ''}, whatever its name says.`);
}

async function lookAtMedia(file: string, mime: string, signal?: AbortSignal): Promise<LookedAt> {
  const clip = await lookAtClip(file);
  if (clip === null) {
    const heard = await listen(file, signal);
    return { facts: { kind: 'sound', lengthMs: heard.lengthMs, title: heard.title, artist: heard.artist }, peaks: heard.peaks, mime };
  }
  return { facts: clip, peaks: clip.hasSound ? (await listen(file, signal)).peaks : null, mime };
}
