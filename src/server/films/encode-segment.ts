import type { FrameRate } from '../../core/timing/frame-rate';
import { OWN_INPUT, startFfmpeg } from '../ffmpeg/run-ffmpeg';
import { COLOUR_TAGS, evenedArgs, type SegmentEncoding, type SegmentFrames } from './encodings';

/** Takes frames in order and writes a segment. */
export interface SegmentEncoder {
  /** Resolves when the encoder has taken the frame; the buffer may then be used again. */
  write(i420: Uint8Array): Promise<void>;
  /** Ends the segment. @returns CPU time the encoder took, in ms */
  finish(): Promise<number>;
  abort(): void;
}

export function startSegment(
  outFile: string,
  { widthPx, heightPx }: { readonly widthPx: number; readonly heightPx: number },
  rate: FrameRate,
  encoding: SegmentEncoding,
  frames: SegmentFrames,
): SegmentEncoder {
  const { container } = encoding;
  const running = startFfmpeg([
    ...['-benchmark', '-loglevel', 'info', '-nostats'],
    ...OWN_INPUT,
    ...['-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-video_size', `${widthPx}x${heightPx}`],
    ...['-framerate', `${rate.frames}/${rate.seconds}`],
    ...COLOUR_TAGS,
    ...['-i', 'pipe:0'],
    ...evenedArgs(encoding, frames),
    ...COLOUR_TAGS,
    // A frame lasts a whole number of these.
    ...(container === 'nut' ? [] : ['-video_track_timescale', String(ticksASecond(rate))]),
    ...['-f', container, '-y', outFile],
  ]);
  running.process.stdout.resume();
  const { stdin } = running.process;
  /** The segment's first frames, until the encoder has seen them before it. */
  const first: Uint8Array[] = [];
  let runningIn = frames.framesBefore > 0;
  const hand = (i420: Uint8Array) =>
    new Promise<void>((resolve, reject) => {
      // The callback comes once the bytes are handed to the system, or with the error of a broken pipe; then ffmpeg's own end says why.
      stdin.write(i420, (error) => {
        if (error) running.finished.then(() => reject(error), reject);
        else resolve();
      });
    });
  return {
    async write(i420) {
      await hand(i420);
      if (!runningIn) return;
      if (first.push(i420.slice()) < frames.framesBefore) return;
      runningIn = false;
      for (const frame of first.splice(0)) await hand(frame);
    },
    async finish() {
      stdin.end();
      const said = await running.finished;
      const times = /bench: utime=([\d.]+)s stime=([\d.]+)s/.exec(said);
      return times ? (Number(times[1]) + Number(times[2])) * 1000 : 0;
    },
    abort: () => void running.process.kill('SIGKILL'),
  };
}

/** Ticks of a film's clock: a frame lasts a whole number of them. */
export function ticksASecond({ frames, seconds }: FrameRate): number {
  return seconds === 1 ? frames * 512 : frames;
}
