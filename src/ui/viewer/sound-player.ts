import type { FactsById } from '../../core/show/asset-facts';
import type { AssetId, ShowId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import { planMix } from '../../core/sound/plan-mix';
import { LIMITER_LATE_S, openMixOutput, performMix, type MixOutput } from './perform-mix';

/** Time for the sound card to take up what is scheduled. */
const START_DELAY_S = 0.06;

/** Performs the show's mix plan with Web Audio. */
export interface SoundPlayer {
  /** Loads what will sound, then starts. @returns when it starts, on the page's clock */
  play(show: Show, facts: FactsById, momentMs: number): Promise<number>;
  stop(): void;
  close(): void;
}

export function createSoundPlayer(showId: ShowId): SoundPlayer {
  let context: AudioContext | null = null;
  let output: Promise<MixOutput> | null = null;
  const buffers = new Map<AssetId, Promise<AudioBuffer | null>>();
  let sounding: AudioBufferSourceNode[] = [];
  let turn = 0;

  return {
    async play(show, facts, momentMs) {
      stop();
      const mine = (turn += 1);
      context ??= new AudioContext({ sampleRate: 48_000 });
      output ??= openMixOutput(context);
      const plan = planMix(show, facts);
      const wanted = plan.parts.filter((part) => part.startMs + part.lengthMs > momentMs);
      const ids = [...new Set(wanted.map((part) => part.assetId))];
      const [into, , ...loaded] = await Promise.all([
        output,
        context.resume(),
        ...ids.map((id) => bufferOf(context!, id)),
      ]);
      const clockNow = () => performance.timeOrigin + performance.now();
      if (mine !== turn) return clockNow();
      const known = new Map(ids.map((id, index) => [id, loaded[index] ?? null]));
      const startAt = context.currentTime + START_DELAY_S;
      sounding = performMix(context, into, plan, (part) => known.get(part.assetId) ?? null, momentMs, startAt);
      const late = START_DELAY_S + LIMITER_LATE_S + (context.outputLatency || 0);
      return clockNow() + late * 1000;
    },
    stop,
    close() {
      stop();
      void context?.close();
    },
  };

  function stop(): void {
    turn += 1;
    for (const source of sounding) source.stop();
    sounding = [];
  }

  function bufferOf(audio: AudioContext, id: AssetId): Promise<AudioBuffer | null> {
    let kept = buffers.get(id);
    if (!kept) {
      // A sound that cannot be had must not keep the pictures from playing.
      kept = fetch(`/api/v1/shows/${showId}/sounds/${id}`)
        .then(async (response) => (response.ok ? audio.decodeAudioData(await response.arrayBuffer()) : null))
        .catch(() => null);
      buffers.set(id, kept);
    }
    return kept;
  }
}
