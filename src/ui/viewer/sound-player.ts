import type { FactsById } from '../../core/show/asset-facts';
import type { AssetId, ShowId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import type { MixPart, MixPlan } from '../../core/sound/mix-plan';
import { planMix } from '../../core/sound/plan-mix';
import { stretchedSound } from './stretched-sound';
import { LIMITER_LATE_S, performMix } from './perform-mix';
import { soundDevice } from './sound-device';

/** Time for the sound card to take up what is scheduled. */
const START_DELAY_S = 0.06;

const SILENT_AFTER_MS = 1200;

const keyOf = ({ assetId, fromMs, lengthMs, tempo }: MixPart) =>
  tempo === undefined ? assetId : `${assetId} ${fromMs} ${lengthMs} ${tempo}`;

/** Performs the show's mix plan with Web Audio. */
export interface SoundPlayer {
  /** Loads what will sound, then starts. @returns when it starts, on the page's clock */
  play(show: Show, facts: FactsById, momentMs: number): Promise<number>;
  /** Everything that will sound is there when this resolves. */
  load(show: Show, facts: FactsById): Promise<void>;
  stop(): void;
  close(): void;
}

export function createSoundPlayer(showId: ShowId): SoundPlayer {
  const device = soundDevice();
  const buffers = new Map<AssetId, Promise<AudioBuffer | null>>();
  const stretched = new Map<string, Promise<AudioBuffer>>();
  let sounding: AudioBufferSourceNode[] = [];
  let turn = 0;

  return {
    async play(show, facts, momentMs) {
      stop();
      const mine = (turn += 1);
      const opened = device.open();
      const plan = planMix(show, facts);
      forgetOthers(plan);
      const wanted = plan.parts.filter((part) => part.startMs + part.lengthMs > momentMs);
      const [into, known] = await Promise.all([
        opened.output,
        buffersOf(opened.context, wanted),
        // Before anybody has clicked in the window it may not sound: the picture goes on without.
        Promise.race([
          opened.context.resume().catch(() => {}),
          new Promise((resolve) => setTimeout(resolve, SILENT_AFTER_MS)),
        ]),
      ]);
      const clockNow = () => performance.timeOrigin + performance.now();
      if (mine !== turn || !into) return clockNow();
      const startAt = opened.context.currentTime + START_DELAY_S;
      sounding = performMix(opened.context, into, plan, (part) => known.get(keyOf(part)) ?? null, momentMs, startAt);
      const late = START_DELAY_S + LIMITER_LATE_S + (opened.context.outputLatency || 0);
      return clockNow() + late * 1000;
    },
    async load(show, facts) {
      const opened = device.open();
      const plan = planMix(show, facts);
      forgetOthers(plan);
      await Promise.all([opened.output, buffersOf(opened.context, plan.parts)]);
    },
    stop,
    close() {
      stop();
      device.leave();
    },
  };

  function stop(): void {
    turn += 1;
    for (const source of sounding) source.stop();
    sounding = [];
  }

  /** What no part asks for any more was of a tempo that was changed since. */
  function forgetOthers(plan: MixPlan): void {
    const asked = new Set(plan.parts.map(keyOf));
    for (const key of stretched.keys()) if (!asked.has(key)) stretched.delete(key);
  }

  /** By `keyOf`. */
  async function buffersOf(
    audio: AudioContext,
    parts: readonly MixPart[],
  ): Promise<ReadonlyMap<string, AudioBuffer | null>> {
    const byKey = new Map(parts.map((part) => [keyOf(part), part]));
    return new Map(
      await Promise.all([...byKey].map(async ([key, part]) => [key, await bufferFor(audio, key, part)] as const)),
    );
  }

  async function bufferFor(audio: AudioContext, key: string, part: MixPart): Promise<AudioBuffer | null> {
    const whole = await bufferOf(audio, part.assetId);
    if (!whole || part.tempo === undefined) return whole;
    let kept = stretched.get(key);
    if (!kept) {
      const channels = Array.from({ length: whole.numberOfChannels }, (_, index) => whole.getChannelData(index));
      kept = stretchedSound(audio, { channels, rate: whole.sampleRate }, part);
      stretched.set(key, kept);
    }
    return kept;
  }

  function bufferOf(audio: AudioContext, id: AssetId): Promise<AudioBuffer | null> {
    let kept = buffers.get(id);
    if (!kept) {
      // A sound that cannot be had must not keep the pictures from playing; it is asked for again with the next playing.
      kept = fetch(`/api/v1/shows/${showId}/sounds/${id}`)
        .then(async (response) => (response.ok ? audio.decodeAudioData(await response.arrayBuffer()) : null))
        .catch(() => {
          buffers.delete(id);
          return null;
        });
      buffers.set(id, kept);
    }
    return kept;
  }
}
