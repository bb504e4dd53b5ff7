import type { FactsById } from '../../core/show/asset-facts';
import type { AssetId, ShowId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import { planMix } from '../../core/sound/plan-mix';
import { LIMITER_LATE_S, openMixOutput, performMix, type MixOutput } from './perform-mix';

/** Time for the sound card to take up what is scheduled. */
const START_DELAY_S = 0.06;

const SILENT_AFTER_MS = 1200;

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
  let context: AudioContext | null = null;
  let output: Promise<MixOutput> | null = null;
  const buffers = new Map<AssetId, Promise<AudioBuffer | null>>();
  let sounding: AudioBufferSourceNode[] = [];
  let turn = 0;

  return {
    async play(show, facts, momentMs) {
      stop();
      const mine = (turn += 1);
      const opened = open();
      const plan = planMix(show, facts);
      const wanted = plan.parts.filter((part) => part.startMs + part.lengthMs > momentMs);
      const ids = [...new Set(wanted.map((part) => part.assetId))];
      const [into, , ...loaded] = await Promise.all([
        opened.output,
        // Before anybody has clicked in the window it may not sound: the picture goes on without.
        Promise.race([opened.context.resume(), new Promise((resolve) => setTimeout(resolve, SILENT_AFTER_MS))]),
        ...ids.map((id) => bufferOf(opened.context, id)),
      ]);
      const clockNow = () => performance.timeOrigin + performance.now();
      if (mine !== turn) return clockNow();
      const known = new Map(ids.map((id, index) => [id, loaded[index] ?? null]));
      const startAt = opened.context.currentTime + START_DELAY_S;
      sounding = performMix(opened.context, into, plan, (part) => known.get(part.assetId) ?? null, momentMs, startAt);
      const late = START_DELAY_S + LIMITER_LATE_S + (opened.context.outputLatency || 0);
      return clockNow() + late * 1000;
    },
    async load(show, facts) {
      const opened = open();
      const ids = [...new Set(planMix(show, facts).parts.map((part) => part.assetId))];
      await Promise.all([opened.output, ...ids.map((id) => bufferOf(opened.context, id))]);
    },
    stop,
    close() {
      stop();
      void context?.close();
    },
  };

  function open(): { readonly context: AudioContext; readonly output: Promise<MixOutput> } {
    context ??= new AudioContext({ sampleRate: 48_000 });
    output ??= openMixOutput(context);
    return { context, output };
  }

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
