import type { ClipFacts } from '../../core/show/asset-facts';
import { LONGEST_SLIDE_MS } from '../../core/show/limits';
import { countPackets, FfmpegError, probe, type Probe, type ProbedStream } from '../ffmpeg/run-ffmpeg';
import { UnusableFileError } from './unusable-file-error';

/** A clip that says it lasts long and holds next to nothing is counted through before it is unpacked. */
const SUSPICIOUS = { lengthMs: 60_000, bytesASecond: 4000 };
/** Fewer pictures than one in so long are no moving picture. */
const SLOWEST_MS = 4000;

/**
 * A clip's facts, or null when the file holds only sound (a cover picture does not make it a clip), and the length it says it has.
 *
 * @throws {UnusableFileError}
 */
export async function lookAtClip(
  file: string,
  byteCount: number,
): Promise<{ clip: ClipFacts | null; lengthMs: number }> {
  const found = await probed(file);
  const picture = found.streams.find((stream) => stream.codec_type === 'video' && !stream.disposition?.attached_pic);
  const lengthMs = Math.floor(Number(picture?.duration ?? found.format.duration ?? 0) * 1000);
  if (lengthMs > LONGEST_SLIDE_MS)
    throw new UnusableFileError('This file says it lasts more than a day. Cut it into shorter ones.');
  if (!picture) return { clip: null, lengthMs: lengthMs > 0 ? lengthMs : 0 };
  const { width = 0, height = 0 } = picture;
  if (!(lengthMs > 0) || width < 2 || height < 2)
    throw new UnusableFileError('The clip has no moving picture that can be read. Export it again as MP4.');
  if (lengthMs > SUSPICIOUS.lengthMs && byteCount < (SUSPICIOUS.bytesASecond * lengthMs) / 1000) {
    const count = await countPackets(file);
    if (count * SLOWEST_MS < lengthMs)
      throw new UnusableFileError(
        `The clip holds only ${count} ${count === 1 ? 'picture' : 'pictures'} for ${Math.round(lengthMs / 60_000)} minutes. Export it again as MP4.`,
      );
  }
  const turned =
    Math.abs(picture.side_data_list?.find((data) => data.rotation !== undefined)?.rotation ?? 0) % 180 === 90;
  return {
    lengthMs,
    clip: {
      kind: 'clip',
      widthPx: turned ? height : width,
      heightPx: turned ? width : height,
      lengthMs,
      hasSound: found.streams.some((stream) => stream.codec_type === 'audio'),
      takenAt: found.format.tags?.creation_time?.slice(0, 19) ?? null,
      ...rateOf(picture),
      ...hdrOf(picture),
    },
  };
}

/** A clip whose frames are so much rarer than its times allow for comes unevenly, as phones record in the dark. */
const UNEVEN = 1.08;

/** Frames a second on the average, as the stream says; it says 0/0 when it does not know. */
function rateOf({
  avg_frame_rate: average,
  r_frame_rate: steady,
}: ProbedStream): Pick<ClipFacts, 'framesPerSecond' | 'uneven'> {
  const each = fraction(average);
  if (each === null) return {};
  const uneven = (fraction(steady) ?? 0) > UNEVEN * each;
  return { framesPerSecond: Math.round(1000 * each) / 1000, ...(uneven && { uneven: true }) };
}

function fraction(text = ''): number | null {
  const [over, under] = text.split('/').map(Number);
  const value = over! / under!;
  return value > 0 && Number.isFinite(value) ? value : null;
}

/** By the transfer the stream names; clips that name none are taken for usual ones. */
function hdrOf({ color_transfer: transfer }: ProbedStream): Pick<ClipFacts, 'hdr'> {
  if (transfer === 'smpte2084') return { hdr: 'pq' };
  return transfer === 'arib-std-b67' ? { hdr: 'hlg' } : {};
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
