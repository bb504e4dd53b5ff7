import { text } from 'node:stream/consumers';
import { startFfmpeg } from '../ffmpeg/run-ffmpeg';
import { clipInput } from './clip-input';

/** So many clips' times are kept: an hour at sixty a second is less than two megabytes. */
const MOST_KEPT = 24;
const kept = new Map<string, Promise<Float64Array>>();

/**
 * When each frame of a clip is shown first, in seconds of the clip's own time, ascending: as its file says it, without unpacking it. For clips whose frames come
 * unevenly; the file is read through once.
 *
 * @throws {FfmpegError}
 */
export function frameTimes(file: string): Promise<Float64Array> {
  const known = kept.get(file);
  if (known) return known;
  const found = read(file);
  kept.set(file, found);
  found.catch(() => kept.delete(file));
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!);
  return found;
}

async function read(file: string): Promise<Float64Array> {
  const packed = await listed(file, ['-c', 'copy']).catch(() => null);
  if (packed && packed.length > 0) return packed;
  // Some files say it only frame by frame as they are unpacked.
  return listed(file, ['-vf', 'scale=16:16', '-fps_mode', 'passthrough', '-enc_time_base', '1/96000']);
}

async function listed(file: string, how: readonly string[]): Promise<Float64Array> {
  const running = startFfmpeg([...clipInput(file, 0), ...how, '-f', 'framecrc', '-']);
  running.process.stdin.end();
  const [said] = await Promise.all([text(running.process.stdout), running.finished]);
  const [, over, under] = /^#tb 0: (\d+)\/(\d+)$/m.exec(said) ?? [];
  const unit = Number(over) / Number(under);
  // A line is: stream, when it is unpacked, when it is shown, length, bytes, sum. What is shown before the clip begins is not part of it.
  const frames = [...said.matchAll(/^0,\s*[^,]+,\s*([^,]+),/gm)].map(([, at]) => Number(at));
  // One that does not know when it is shown says so by the least number there is.
  const isWhole = frames.every((at) => at > -Number.MAX_SAFE_INTEGER);
  const times = isWhole ? frames.map((at) => at * unit) : [];
  return Float64Array.from(times.filter((at) => at >= -unit)).sort();
}
