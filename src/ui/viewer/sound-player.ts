import type { FactsById } from '../../core/show/asset-facts';
import type { AssetId, ShowId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import type { MixPart, MixPlan } from '../../core/sound/mix-plan';
import { planMix } from '../../core/sound/plan-mix';
import { inPieces, type PiecePart } from '../../core/sound/sound-pieces';
import { fetchedSound } from './fetched-sound';
import { stretchedSound } from './stretched-sound';
import { LIMITER_LATE_S, performMix } from './perform-mix';
import { soundDevice } from './sound-device';

/** Time for the sound card to take up what is scheduled. */
const START_DELAY_S = 0.06;

const SILENT_AFTER_MS = 1200;

/** Pieces of long sounds are had so long before they are heard. */
const AHEAD_MS = 20_000;
/** Playing waits for what is heard within so long. */
const AT_ONCE_MS = 3000;
const LOOK_EVERY_MS = 500;
/** A piece that comes late is played from so much later on. */
const LATE_MS = 60;
/** Pieces that are kept: 23 MB each. */
const MOST_PIECES = 8;

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
  /** Of long sounds, those asked for last. */
  const pieces = new Map<string, Promise<AudioBuffer | null>>();
  let sounding: AudioBufferSourceNode[] = [];
  let turn = 0;

  return {
    async play(show, facts, momentMs) {
      stop();
      const mine = (turn += 1);
      const opened = device.open();
      const plan = planMix(show, facts);
      forgetOthers(plan);
      const wanted = inPieces(plan.parts, facts);
      const isToCome = (part: MixPart) => part.startMs + part.lengthMs > momentMs;
      const whole = wanted.whole.filter(isToCome);
      const [soon, later] = parted(wanted.pieces.filter(isToCome), (piece) => piece.startMs < momentMs + AT_ONCE_MS);
      const [into, known, first] = await Promise.all([
        opened.output,
        buffersOf(opened.context, whole),
        Promise.all(soon.map((piece) => pieceOf(opened.context, piece))),
        // Before anybody has clicked in the window it may not sound: the picture goes on without.
        Promise.race([
          opened.context.resume().catch(() => {}),
          new Promise((resolve) => setTimeout(resolve, SILENT_AFTER_MS)),
        ]),
      ]);
      const clockNow = () => performance.timeOrigin + performance.now();
      if (mine !== turn || !into) return clockNow();
      const startAt = opened.context.currentTime + START_DELAY_S;
      const perform = (
        parts: readonly MixPart[],
        bufferFor: (part: MixPart) => AudioBuffer | null,
        fromMs: number,
        at: number,
      ) => performMix(opened.context, into, { ...plan, parts }, bufferFor, fromMs, at);
      sounding = perform(whole, (part) => known.get(keyOf(part)) ?? null, momentMs, startAt);
      soon.forEach((piece, at) => sounding.push(...perform([piece], () => first[at] ?? null, momentMs, startAt)));
      const nowMs = () => momentMs + (opened.context.currentTime - startAt) * 1000;
      void follow(opened.context, later, mine, nowMs, (piece, buffer) => {
        const isLate = piece.startMs < nowMs() + LATE_MS;
        const [fromMs, at] = isLate
          ? [nowMs() + LATE_MS, opened.context.currentTime + LATE_MS / 1000]
          : [momentMs, startAt];
        sounding.push(...perform([piece], () => buffer, fromMs, at));
      });
      const late = START_DELAY_S + LIMITER_LATE_S + (opened.context.outputLatency || 0);
      return clockNow() + late * 1000;
    },
    async load(show, facts) {
      const opened = device.open();
      const plan = planMix(show, facts);
      forgetOthers(plan);
      // Long ones are had while they are played.
      await Promise.all([opened.output, buffersOf(opened.context, inPieces(plan.parts, facts).whole)]);
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

  /** Has the pieces one after the other, each a little before it is heard, for as long as this playing goes on. */
  async function follow(
    audio: AudioContext,
    later: readonly PiecePart[],
    mine: number,
    nowMs: () => number,
    perform: (piece: PiecePart, buffer: AudioBuffer | null) => void,
  ): Promise<void> {
    for (const piece of later) {
      while (mine === turn && piece.startMs > nowMs() + AHEAD_MS)
        await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS));
      if (mine !== turn) return;
      const buffer = await pieceOf(audio, piece);
      if (mine !== turn) return;
      perform(piece, buffer);
    }
  }

  function pieceOf(audio: AudioContext, { assetId, piece }: PiecePart): Promise<AudioBuffer | null> {
    const key = `${assetId} ${piece}`;
    const kept = pieces.get(key) ?? soundAt(audio, `${assetId}?piece=${piece}`, () => pieces.delete(key));
    pieces.delete(key);
    pieces.set(key, kept);
    if (pieces.size > MOST_PIECES) pieces.delete(pieces.keys().next().value!);
    return kept;
  }

  function soundAt(audio: AudioContext, where: string, forget: () => void): Promise<AudioBuffer | null> {
    return fetchedSound(`/api/v1/shows/${showId}/sounds/${where}`, (bytes) => audio.decodeAudioData(bytes), forget);
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
      kept = soundAt(audio, id, () => buffers.delete(id));
      buffers.set(id, kept);
    }
    return kept;
  }
}

function parted<One>(all: readonly One[], goes: (one: One) => boolean): [One[], One[]] {
  return [all.filter(goes), all.filter((one) => !goes(one))];
}
