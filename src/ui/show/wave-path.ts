import { PEAKS_PER_SECOND } from '../../core/sound/peaks';

/** How wide a wave is in its own units; it is two high. */
export const WAVE_POINTS = 256;

/** The loudness of a whole file as a path, mirrored about the middle. @param peaks null while they are not there */
export function wavePath(peaks: Uint8Array | null, lengthMs: number): string {
  if (!peaks || peaks.length === 0) return `M0 1H${WAVE_POINTS}`;
  const count = Math.min(peaks.length, Math.ceil((lengthMs / 1000) * PEAKS_PER_SECOND));
  const loudest = Array.from({ length: WAVE_POINTS }, (_, at) => {
    const [from, to] = [Math.floor((at * count) / WAVE_POINTS), Math.floor(((at + 1) * count) / WAVE_POINTS)];
    let most = 0;
    for (let index = from; index < Math.max(from + 1, to); index += 1) most = Math.max(most, peaks[index] ?? 0);
    return most / 255;
  });
  const above = loudest.map((value, at) => `L${at} ${(1 - value).toFixed(3)}`).join('');
  const below = loudest
    .map((value, at) => `L${at} ${(1 + value).toFixed(3)}`)
    .reverse()
    .join('');
  return `M0 1${above}${below}Z`;
}
