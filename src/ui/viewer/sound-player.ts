import type { FactsById } from '../../core/show/asset-facts';
import type { AssetId, ShowId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import { gainAt, type MixPart } from '../../core/sound/mix-plan';
import { planMix } from '../../core/sound/plan-mix';

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
  const buffers = new Map<AssetId, Promise<AudioBuffer | null>>();
  let sounding: AudioBufferSourceNode[] = [];
  let turn = 0;

  return {
    async play(show, facts, momentMs) {
      stop();
      const mine = (turn += 1);
      context ??= new AudioContext({ sampleRate: 48_000 });
      const { parts } = planMix(show, facts);
      const wanted = parts.filter((part) => part.startMs + part.lengthMs > momentMs);
      const loaded = await Promise.all([context.resume(), ...wanted.map((part) => bufferOf(context!, part.assetId))]);
      const clockNow = () => performance.timeOrigin + performance.now();
      if (mine !== turn) return clockNow();
      const startAt = context.currentTime + START_DELAY_S;
      wanted.forEach((part, index) => {
        const buffer = loaded[index + 1];
        if (buffer) start(context!, part, buffer, momentMs, startAt);
      });
      return clockNow() + START_DELAY_S * 1000 + (context.outputLatency || 0) * 1000;
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

  function start(audio: AudioContext, part: MixPart, buffer: AudioBuffer, momentMs: number, startAt: number): void {
    const enterMs = Math.max(part.startMs, momentMs);
    const leaveMs = part.startMs + part.lengthMs;
    const timeOf = (ms: number) => startAt + (ms - momentMs) / 1000;
    const gain = audio.createGain();
    gain.gain.setValueAtTime(gainAt(part.gains, enterMs), timeOf(enterMs));
    for (const point of part.gains)
      if (point.atMs > enterMs) gain.gain.linearRampToValueAtTime(point.gain, timeOf(point.atMs));
    const source = audio.createBufferSource();
    source.buffer = buffer;
    source.connect(gain).connect(audio.destination);
    source.start(timeOf(enterMs), (part.fromMs + enterMs - part.startMs) / 1000, (leaveMs - enterMs) / 1000);
    sounding.push(source);
  }
}
