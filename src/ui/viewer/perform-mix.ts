import { LIMITER_DELAY } from '../../core/sound/limiter';
import { gainAt, type MixPart, type MixPlan } from '../../core/sound/mix-plan';

/** Built from `limiter-worklet.ts`. */
const LIMITER_FILE = '/sound/limiter.js';

/** What comes out of the limiter is so much late. */
export const LIMITER_LATE_S = LIMITER_DELAY / 48_000;

/** What all parts of a mix go through: its loudness, then the limiter. */
export interface MixOutput {
  readonly master: GainNode;
}

/** @param limiterUrl where the limiter’s code lies */
export async function openMixOutput(context: BaseAudioContext, limiterUrl = LIMITER_FILE): Promise<MixOutput> {
  await context.audioWorklet.addModule(limiterUrl);
  const limiter = new AudioWorkletNode(context, 'limiter', {
    outputChannelCount: [2],
    channelCount: 2,
    channelCountMode: 'explicit',
  });
  const master = context.createGain();
  master.connect(limiter).connect(context.destination);
  return { master };
}

/**
 * Starts everything that sounds from a moment on.
 *
 * @param bufferOf null for what could not be had; it stays silent. Of a part with a tempo of its own: that part alone, stretched (`stretchedSound`)
 * @param startAt when the moment is, on the context’s clock
 */
export function performMix(
  context: BaseAudioContext,
  { master }: MixOutput,
  plan: MixPlan,
  bufferOf: (part: MixPart) => AudioBuffer | null,
  momentMs: number,
  startAt: number,
): AudioBufferSourceNode[] {
  master.gain.value = plan.masterGain;
  return plan.parts.flatMap((part) => {
    const leaveMs = part.startMs + part.lengthMs;
    const buffer = leaveMs > momentMs ? bufferOf(part) : null;
    if (!buffer) return [];
    const enterMs = Math.max(part.startMs, momentMs);
    const timeOf = (ms: number) => startAt + (ms - momentMs) / 1000;
    const gain = context.createGain();
    gain.gain.setValueAtTime(gainAt(part.gains, enterMs), timeOf(enterMs));
    for (const point of part.gains)
      if (point.atMs > enterMs) gain.gain.linearRampToValueAtTime(point.gain, timeOf(point.atMs));
    const source = context.createBufferSource();
    source.buffer = buffer;
    const speed = part.speed ?? 1;
    source.playbackRate.value = speed;
    source.connect(gain).connect(master);
    source.start(
      timeOf(enterMs),
      ((part.tempo === undefined ? part.fromMs : 0) + (enterMs - part.startMs) * speed) / 1000,
      ((leaveMs - enterMs) * speed) / 1000,
    );
    return [source];
  });
}
