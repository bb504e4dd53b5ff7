import { readFile, stat, writeFile } from 'node:fs/promises';
import sharp from 'sharp';
import { countPackets, FfmpegError, GUARDED_INPUT, probe, runFfmpeg, type Probe } from '../ffmpeg/run-ffmpeg';
import { MOST_PIXELS } from './look-at-picture';
import { openPicture, pictureKind } from './open-picture';
import { UnusableFileError } from './unusable-file-error';
import { withoutNotes } from './without-notes';

/** Pictures are read whole to leave their notes out; larger files are none. */
const LARGEST_PICTURE_BYTES = 256 * 1024 * 1024;
/** Of a sound, who made it stays: whoever is given it must be able to say so. */
const STAYS = ['title', 'artist', 'album', 'copyright'];

/** The container a file is packed in, as ffmpeg calls it when it writes one, where it can leave the notes out and copy everything else. */
function containerOf({ format }: Probe, isClip: boolean): readonly [writes: string, extension: string] | null {
  const name = format.format_name ?? '';
  if (/\bmp4\b/.test(name)) {
    if (!isClip) return ['mp4', '.m4a'];
    return format.tags?.major_brand?.startsWith('qt') ? ['mov', '.mov'] : ['mp4', '.mp4'];
  }
  if (/\bmatroska\b/.test(name)) return ['matroska', '.mkv'];
  return /\bavi\b/.test(name) ? ['avi', '.avi'] : null;
}

/**
 * Writes a file as it may be handed on: without what is noted in it, such as where it was taken and with which camera.
 *
 * JPEG, PNG and WebP keep their pixels byte for byte. Pictures of other kinds that carry notes – HEIC, RAW, TIFF, AVIF – are written anew: as JPEG of the best quality, as PNG where
 * something shines through. Clips, and sounds in the containers of clips, are packed anew without being encoded again; data that runs along with a clip, such as the
 * way a drone flew, is left out.
 *
 * @param out is written where there is something to leave out
 * @returns the ending of its name, empty where it stays as it was; null when nothing has to be left out and `out` was not written
 * @throws {UnusableFileError} for a clip that cannot be packed anew as it was
 */
export async function bareCopy(file: string, out: string): Promise<string | null> {
  const { size } = await stat(file);
  if (size <= LARGEST_PICTURE_BYTES) {
    const bytes = await readFile(file);
    const bare = withoutNotes(bytes);
    if (bare !== bytes) {
      await writeFile(out, bare);
      return '';
    }
    const kind = await pictureKind(file);
    if (kind === 'drawing') return null;
    if (kind === 'heic' || kind === 'raw') return writtenAnew(file, out);
    const known = await sharp(file, { limitInputPixels: MOST_PIXELS })
      .metadata()
      .catch(() => null);
    if (known) return known.format === 'tiff' || known.format === 'heif' ? writtenAnew(file, out) : null;
  }
  return packedAnew(file, out);
}

async function writtenAnew(file: string, out: string): Promise<string> {
  const picture = await openPicture(file, 0, { limitInputPixels: MOST_PIXELS, failOn: 'none' });
  const { hasAlpha } = await picture.metadata();
  const coloured = picture.keepIccProfile();
  await (hasAlpha ? coloured.png() : coloured.jpeg({ quality: 96, chromaSubsampling: '4:4:4' })).toFile(out);
  return hasAlpha ? '.png' : '.jpg';
}

async function packedAnew(file: string, out: string): Promise<string | null> {
  const held = await probe(file).catch((error: unknown) => {
    if (error instanceof FfmpegError) return null;
    throw error;
  });
  const isClip = held?.streams.some(isPicture) ?? false;
  const container = held && containerOf(held, isClip);
  if (!held || !container) return null;
  const [writes, extension] = container;
  const said = isClip ? {} : held.format.tags;
  await runFfmpeg([
    ...[...GUARDED_INPUT, '-i', file, ...(isClip ? ['-map', '0:v:0'] : []), '-map', '0:a?', '-c', 'copy'],
    ...['-map_metadata', '-1', '-map_metadata:s:v', '-1', '-map_metadata:s:a', '-1', '-map_chapters', '-1'],
    ...STAYS.flatMap((name) => (said?.[name] ? ['-metadata', `${name}=${said[name]}`] : [])),
    ...['-fflags', '+bitexact', '-flags:v', '+bitexact', '-flags:a', '+bitexact', '-f', writes, '-y', out],
  ]).catch((error: unknown) => {
    if (error instanceof FfmpegError) throw new UnusableFileError(NOT_ANEW, { cause: error });
    throw error;
  });
  if (!(await holdsTheSame(file, held, out))) throw new UnusableFileError(NOT_ANEW);
  return extension;
}

const NOT_ANEW = 'What is noted in it cannot be left out of it. Export it again as MP4 and put that in its place.';

const isPicture = ({ codec_type: type, disposition }: Probe['streams'][number]) =>
  type === 'video' && !disposition?.attached_pic;

/** Whether a clip that was packed anew has all its frames, as large, as long, turned as before, and its sound. */
async function holdsTheSame(file: string, held: Probe, out: string): Promise<boolean> {
  const is = await probe(out);
  const ofPicture = ({ streams }: Probe) => {
    const picture = streams.find(isPicture);
    const turned = picture?.side_data_list?.find(({ rotation }) => rotation !== undefined)?.rotation ?? 0;
    return [picture?.width, picture?.height, picture?.codec_name, turned].join(' ');
  };
  const sounds = ({ streams }: Probe) => streams.filter(({ codec_type: type }) => type === 'audio').length;
  const lengthOff = Math.abs(Number(held.format.duration) - Number(is.format.duration));
  if (ofPicture(held) !== ofPicture(is) || sounds(held) !== sounds(is) || !(lengthOff < 0.1)) return false;
  return !held.streams.some(isPicture) || (await countPackets(file)) === (await countPackets(out));
}
