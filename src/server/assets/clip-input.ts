import { GUARDED_INPUT } from '../ffmpeg/run-ffmpeg';

/**
 * A clip's pictures as what ffmpeg reads. The clip's own times are kept and counted from a whole second, with a second's run-up, so that a frame is the same
 * however the decoder was entered.
 *
 * @param decoding more settings of the decoder
 */
export function clipInput(file: string, fromSecond: number, decoding: readonly string[] = []): string[] {
  const enters = fromSecond > 1 ? ['-ss', String(fromSecond - 1)] : [];
  return [...enters, ...GUARDED_INPUT, '-copyts', '-start_at_zero', ...decoding, '-i', file, '-map', '0:v:0'];
}
