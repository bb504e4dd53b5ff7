import { CLIP_FRAMES_PER_SECOND } from '../../core/frame/frame-plan';
import type { DecodedFrame } from '../../drawing/planes/picture-planes';
import type { Hdr } from '../../core/show/asset-facts';
import { EACH_FRAME } from '../../core/timing/clip-rate';
import { framesPerSecond, type FrameRate } from '../../core/timing/frame-rate';
import { toneTableFile } from '../paths';
import { clipInput } from './clip-input';
import { frameTimes } from './frame-times';
import { startFfmpeg, type RunningFfmpeg } from '../ffmpeg/run-ffmpeg';
import { exactReader, type ExactReader } from '../ffmpeg/read-exactly';

/** Frames of one clip at one size, quickest when asked for in order, or backwards. Holds a running decoder: close it. */
export interface ClipFrames {
  /** The frame counted at the rate the clip was opened with; past the end the last one. */
  frame(index: number): Promise<DecodedFrame>;
  close(): void;
}

/** A jump ahead of up to this many frames is read through, further ones start the decoder anew. */
const LONGEST_SKIP = 90;
/** Of a second that was entered to go back, so much is kept: the next frame wanted is likely the one before. */
const MOST_KEPT_BYTES = 128 * 1024 * 1024;

/** What is called the same moment, in seconds: times in files are rounded. */
const SAME = 0.0005;

/**
 * @param hdr how its light is packed when it is brighter than a usual screen
 * @param rate at which its frames are counted; null: `CLIP_FRAMES_PER_SECOND`. `EACH_FRAME`: moments are, and what comes is the frame that stands at them
 */
export function openClip(
  file: string,
  widthPx: number,
  heightPx: number,
  hdr?: Hdr,
  rate: FrameRate | null = null,
): ClipFrames {
  const perSecond = rate ? framesPerSecond(rate) : CLIP_FRAMES_PER_SECOND;
  const isEach = rate === EACH_FRAME;
  /** When its frames begin, where each is taken by itself. */
  let times: Float64Array | null = null;
  /** It is entered at every so manieth frame, which is about a second. */
  const stride = isEach ? CLIP_FRAMES_PER_SECOND : Math.round(perSecond);
  const byteCount = widthPx * heightPx + 2 * ((widthPx + 1) >> 1) * ((heightPx + 1) >> 1);
  let running: RunningFfmpeg | null = null;
  let reader: ExactReader | null = null;
  let next = 0;
  let entered = 0;
  let last: { index: number; frame: DecodedFrame } | null = null;
  /** Frames before the last, after a step back. */
  const before = new Map<number, DecodedFrame>();
  let keeping = false;

  return {
    async frame(counted) {
      if (isEach) times ??= await frameTimes(file);
      const index = times ? standingAt(times, counted / perSecond) : counted;
      if (last?.index === index) return last.frame;
      const known = before.get(index);
      if (known) return known;
      if (last !== null && index > last.index) keeping = false;
      else if (last !== null && index < last.index) keeping = true;
      before.clear();
      if (!reader || index < next || index > next + LONGEST_SKIP) startAt(index - (index % stride));
      let stepBack = 1;
      while (next <= index) {
        const i420 = await reader!.read(byteCount);
        if (i420.length === byteCount) {
          last = { index: next, frame: { widthPx, heightPx, i420 } };
          if (keeping) keep(next, last.frame);
          next += 1;
        } else if (last) {
          // Past the end: the last frame is held.
          last = { index, frame: last.frame };
          next = index + 1;
        } else if (entered > 0) {
          // Entered behind the end: ever longer steps back find the last frame in few starts.
          startAt(Math.max(0, entered - stepBack * stride));
          stepBack *= 2;
        } else throw new Error('the clip holds no frame that can be read');
      }
      return last!.frame;
    },
    close: stop,
  };

  function keep(index: number, frame: DecodedFrame): void {
    before.set(index, frame);
    const [oldest] = before.keys();
    if (before.size > 1 && before.size * byteCount > MOST_KEPT_BYTES) before.delete(oldest!);
  }

  function startAt(index: number): void {
    stop();
    last = null;
    entered = index;
    next = index;
    const second = times ? (times[index] ?? 0) : index / perSecond;
    running = startFfmpeg([
      ...clipInput(file, second, ['-threads', '1']),
      '-vf',
      clipFilter({ widthPx, heightPx, hdr }, second, 'drawing', rate),
      '-fps_mode',
      'passthrough',
      '-pix_fmt',
      'yuv420p',
      '-f',
      'rawvideo',
      '-',
    ]);
    running.process.stdin.end();
    reader = exactReader(running.process.stdout);
  }

  function stop(): void {
    running?.process.kill('SIGKILL');
    running = null;
    reader = null;
  }
}

/** The last frame that has begun at a moment; the first where none has. */
function standingAt(times: Float64Array, second: number): number {
  let [low, high] = [0, times.length];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (times[middle]! <= second + SAME) low = middle;
    else high = middle;
  }
  return low;
}

/**
 * Steady rate and wanted size; for drawing in BT.709 limited range, for JPEG frames in that format's own (BT.601, full range). What is brighter than a usual
 * screen is toned down (`core/light/hdr`), at the wanted size.
 *
 * @param fromSecond where counting starts, in the clip's own time
 * @param rate null: `CLIP_FRAMES_PER_SECOND`; `EACH_FRAME`: frames as they come
 */
export function clipFilter(
  { widthPx, heightPx, hdr }: { readonly widthPx: number; readonly heightPx: number; readonly hdr?: Hdr | undefined },
  fromSecond: number,
  colours: 'drawing' | 'jpeg' = 'drawing',
  rate: FrameRate | null = null,
): string {
  const steps = rate ? `${rate.frames}/${rate.seconds}` : CLIP_FRAMES_PER_SECOND;
  const from = rate === EACH_FRAME ? `select=gte(t\\,${fromSecond - SAME})` : `fps=${steps}:start_time=${fromSecond}`;
  return `${from},${sizeFilter({ widthPx, heightPx, hdr }, colours)}`;
}

/** The wanted size and colours alone: frames come as they come. */
export function sizeFilter(
  { widthPx, heightPx, hdr }: { readonly widthPx: number; readonly heightPx: number; readonly hdr?: Hdr | undefined },
  colours: 'drawing' | 'jpeg' = 'drawing',
): string {
  const matrix = colours === 'drawing' ? 'out_color_matrix=bt709:out_range=tv' : 'out_color_matrix=bt601:out_range=pc';
  const sized = `scale=${widthPx}:${heightPx}:flags=bicubic`;
  if (!hdr) return `${sized}:${matrix},setsar=1`;
  const toned = `lut3d=file=${escaped(toneTableFile(hdr))}:interp=tetrahedral`;
  return `${sized}:in_color_matrix=bt2020,format=gbrp12le,${toned},scale=flags=bicubic:${matrix},setsar=1`;
}

/** A path as part of a filter: what has a meaning there is quoted, once for the option and once for the graph. */
function escaped(file: string): string {
  return file.replace(/[\\':]/g, '\\$&').replace(/[\\'[\],;]/g, '\\$&');
}
