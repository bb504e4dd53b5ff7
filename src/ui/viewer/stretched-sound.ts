import type { MixPart } from '../../core/sound/mix-plan';
import { createStretcher, STRETCH_TAIL_MS } from '../../core/sound/sound-stretcher';

/** So much is worked out at a time; in between the page answers. */
const PAIRS_AT_ONCE = 24_000;

/** A part of a sound at the tempo a mix plan gives it, beginning with the part: what the film's mixer makes of it, sample by sample. */
export async function stretchedSound(
  context: BaseAudioContext,
  { channels, rate }: { readonly channels: readonly Float32Array[]; readonly rate: number },
  { fromMs, lengthMs, tempo = 1 }: MixPart,
): Promise<AudioBuffer> {
  const stretcher = createStretcher(tempo);
  const pairs = Math.max(1, Math.round((lengthMs * rate) / 1000));
  const buffer = context.createBuffer(2, pairs, rate);
  const [left, right] = [buffer.getChannelData(0), buffer.getChannelData(1)];
  const [one, other] = [channels[0]!, channels[1] ?? channels[0]!];
  let at = Math.round((fromMs * rate) / 1000);
  const last = Math.min(one.length, at + Math.ceil(((lengthMs * tempo + STRETCH_TAIL_MS) * rate) / 1000));
  let filled = 0;
  while (filled < pairs) {
    const to = Math.min(last, at + PAIRS_AT_ONCE);
    const added = new Float32Array(2 * Math.max(0, to - at));
    for (let from = at; from < to; from += 1) {
      added[2 * (from - at)] = one[from]!;
      added[2 * (from - at) + 1] = other[from]!;
    }
    stretcher.add(added);
    at = to;
    if (at >= last) stretcher.end();
    const got = stretcher.take(pairs - filled);
    for (let i = 0; i < got.length; i += 2) {
      left[filled + i / 2] = got[i]!;
      right[filled + i / 2] = got[i + 1]!;
    }
    filled += got.length / 2;
    if (at >= last && got.length === 0) break;
    await new Promise((resolve) => {
      setTimeout(resolve, 0);
    });
  }
  return buffer;
}
