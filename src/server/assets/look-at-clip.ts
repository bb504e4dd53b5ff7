import type { ClipFacts } from '../../core/show/asset-facts';
import { FfmpegError, probe, type Probe } from '../ffmpeg/run-ffmpeg';
import { UnusableFileError } from './unusable-file-error';

/**
 * A clip's facts, or null when the file holds only sound (a cover picture does not make it a clip).
 *
 * @throws {UnusableFileError}
 */
export async function lookAtClip(file: string): Promise<ClipFacts | null> {
  const found = await probed(file);
  const picture = found.streams.find((stream) => stream.codec_type === 'video' && !stream.disposition?.attached_pic);
  if (!picture) return null;
  const lengthMs = Math.floor(Number(picture.duration ?? found.format.duration ?? 0) * 1000);
  const { width = 0, height = 0 } = picture;
  if (!(lengthMs > 0) || width < 2 || height < 2)
    throw new UnusableFileError('The clip has no moving picture that can be read. Export it again as MP4.');
  const turned =
    Math.abs(picture.side_data_list?.find((data) => data.rotation !== undefined)?.rotation ?? 0) % 180 === 90;
  return {
    kind: 'clip',
    widthPx: turned ? height : width,
    heightPx: turned ? width : height,
    lengthMs,
    hasSound: found.streams.some((stream) => stream.codec_type === 'audio'),
    takenAt: found.format.tags?.creation_time?.slice(0, 19) ?? null,
  };
}

async function probed(file: string): Promise<Probe> {
  try {
    return await probe(file);
  } catch (cause) {
    if (cause instanceof FfmpegError && cause.details === '') throw cause;
    throw new UnusableFileError(
      'The file is damaged or in a form that cannot be read. Export it again as MP4, or sound as MP3 or WAV.',
      { cause },
    );
  }
}
