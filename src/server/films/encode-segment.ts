import { framesPerSecond, type FrameRate } from '../../core/timing/frame-rate';
import { OWN_INPUT, startFfmpeg } from '../ffmpeg/run-ffmpeg';

/** Takes frames in order and writes an H.264 segment. */
export interface SegmentEncoder {
  /** Resolves when the encoder has taken the frame; the buffer may then be used again. */
  write(i420: Uint8Array): Promise<void>;
  /** Ends the segment. @returns CPU time the encoder took, in ms */
  finish(): Promise<number>;
  abort(): void;
}

/** BT.709, limited range, said in the stream and in the container; H.264 assumes chroma sited left, which is how it is drawn. */
export const COLOUR_TAGS: readonly string[] = [
  '-colorspace',
  'bt709',
  '-color_primaries',
  'bt709',
  '-color_trc',
  'bt709',
  '-color_range',
  'tv',
];

/** One encoder thread a segment: two segments at a time fill two cores with no work lost between threads. */
export const X264: readonly string[] = [
  '-c:v',
  'libx264',
  '-preset',
  'veryfast',
  '-crf',
  '19',
  '-threads',
  '1',
  '-pix_fmt',
  'yuv420p',
  '-profile:v',
  'high',
];

export function startSegment(outFile: string, widthPx: number, heightPx: number, rate: FrameRate): SegmentEncoder {
  const running = startFfmpeg([
    '-benchmark',
    '-loglevel',
    'info',
    '-nostats',
    ...OWN_INPUT,
    '-f',
    'rawvideo',
    '-pix_fmt',
    'yuv420p',
    '-video_size',
    `${widthPx}x${heightPx}`,
    '-framerate',
    `${rate.frames}/${rate.seconds}`,
    ...COLOUR_TAGS,
    '-i',
    'pipe:0',
    ...X264,
    '-g',
    String(Math.round(framesPerSecond(rate) * 2)),
    ...COLOUR_TAGS,
    '-video_track_timescale',
    // A frame lasts a whole number of these.
    String(rate.seconds === 1 ? rate.frames * 512 : rate.frames),
    '-f',
    'mp4',
    '-y',
    outFile,
  ]);
  running.process.stdout.resume();
  const { stdin } = running.process;
  return {
    write: (i420) =>
      new Promise((resolve, reject) => {
        // The callback comes once the bytes are handed to the system, or with the error of a broken pipe; then ffmpeg's own end says why.
        stdin.write(i420, (error) => {
          if (error) running.finished.then(() => reject(error), reject);
          else resolve();
        });
      }),
    async finish() {
      stdin.end();
      const said = await running.finished;
      const times = /bench: utime=([\d.]+)s stime=([\d.]+)s/.exec(said);
      return times ? (Number(times[1]) + Number(times[2])) * 1000 : 0;
    },
    abort: () => void running.process.kill('SIGKILL'),
  };
}
