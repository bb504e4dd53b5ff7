import type { FactsById } from '../show/asset-facts';
import { seenLayers } from '../show/layer';
import type { Show } from '../show/show';
import { momentSeen } from '../timing/frames';
import { showLengthMs, slideSpans } from '../timing/slide-span';
import { gainOfDb, type GainPoint, type MixPart, type MixPlan } from './mix-plan';
import { soundSpans, type SoundSpan } from './sound-spans';

/** How far the music goes down under a voice or a clip's own sound, and how long it takes to. */
const DUCK_GAIN = gainOfDb(-11);
const DUCK_RAMP_MS = 450;
/** Pauses in speech shorter than this do not bring the music back. */
const DUCK_JOIN_MS = 1200;
/** Softens edges. */
const EDGE_MS = 25;

interface Stretch {
  readonly startMs: number;
  readonly endMs: number;
}

/** What sounds when: songs that fade out where they end and go down under voices, voices, short sounds, and the clips' own sound. */
export function planMix(show: Show, facts: FactsById): MixPlan {
  const placed = soundSpans(show, facts);
  const voices = placed.filter(({ sound }) => sound.kind === 'voice').flatMap(edged);
  const spoken = [...voices, ...clips(show, facts)];
  const ducked = joined(spoken.map((part) => ({ startMs: part.startMs, endMs: part.startMs + part.lengthMs })));
  const music = placed.filter(({ sound }) => sound.kind === 'song').map((span) => song(span, ducked));
  const effects = placed.filter(({ sound }) => sound.kind === 'effect').flatMap(edged);
  return { lengthMs: showLengthMs(show), parts: [...music, ...spoken, ...effects] };
}

function song({ sound, startMs, endMs }: SoundSpan, ducked: readonly Stretch[]): MixPart {
  return {
    kind: 'music',
    assetId: sound.assetId,
    startMs,
    lengthMs: endMs - startMs,
    fromMs: sound.trimStartMs,
    gains: shapedGains(
      { startMs, endMs, inMs: sound.fadeInMs, outMs: sound.fadeOutMs },
      ducked,
      gainOfDb(sound.gainDb),
    ),
  };
}

/** Voices and short sounds: with soft edges, so that nothing clicks. */
function edged({ sound, startMs, endMs }: SoundSpan): MixPart[] {
  if (endMs - startMs <= 2 * EDGE_MS) return [];
  const fades = { startMs, endMs, inMs: Math.max(EDGE_MS, sound.fadeInMs), outMs: Math.max(EDGE_MS, sound.fadeOutMs) };
  return [
    {
      kind: sound.kind === 'voice' ? 'voice' : 'effect',
      assetId: sound.assetId,
      startMs,
      lengthMs: endMs - startMs,
      fromMs: sound.trimStartMs,
      gains: shapedGains(fades, [], gainOfDb(sound.gainDb)),
    },
  ];
}

/** The clips’ own sound, for as long as they run. One that is not seen is not heard; nor is one at another speed, whose pitch would be wrong. */
function clips(show: Show, facts: FactsById): MixPart[] {
  const spans = slideSpans(show.slides);
  return show.slides.flatMap((slide, index) =>
    [...seenLayers(slide.layers)].flatMap((layer) => {
      if (layer.kind !== 'clip' || (layer.speed ?? 1) !== 1) return [];
      const known = facts.get(layer.assetId);
      const gain = gainOfDb(layer.soundGainDb);
      if (known?.kind !== 'clip' || !known.hasSound || gain === 0) return [];
      const startMs = momentSeen(spans[index]!.startMs, show.frame.rate);
      const lengthMs = Math.min(known.lengthMs - layer.trimStartMs, slide.lengthMs);
      if (lengthMs <= 2 * EDGE_MS) return [];
      const fades = { startMs, endMs: startMs + lengthMs, inMs: EDGE_MS, outMs: EDGE_MS };
      const gains = shapedGains(fades, [], gain);
      return [{ kind: 'clip' as const, assetId: layer.assetId, startMs, lengthMs, fromMs: layer.trimStartMs, gains }];
    }),
  );
}

interface Fades extends Stretch {
  readonly inMs: number;
  readonly outMs: number;
}

/** The product of fades and ducking, given by its values at every corner of either. */
function shapedGains(fades: Fades, ducked: readonly Stretch[], gain: number): GainPoint[] {
  const lengthMs = fades.endMs - fades.startMs;
  const inMs = Math.min(fades.inMs, lengthMs / 2);
  const outMs = Math.min(fades.outMs, lengthMs / 2);
  const corners = [fades.startMs, fades.startMs + inMs, fades.endMs - outMs, fades.endMs];
  for (const stretch of ducked)
    corners.push(stretch.startMs - DUCK_RAMP_MS, stretch.startMs, stretch.endMs, stretch.endMs + DUCK_RAMP_MS);
  // A straight line between corners would bulge where a fade crosses a duck; a point in the middle of each stretch keeps the error under 1 %.
  const within = [...new Set(corners)]
    .filter((atMs) => atMs >= fades.startMs && atMs <= fades.endMs)
    .sort((a, b) => a - b);
  const points = within.flatMap((atMs, index) => (index === 0 ? [atMs] : [(within[index - 1]! + atMs) / 2, atMs]));
  return points.map((atMs) => {
    const fadeIn = inMs > 0 ? Math.min(1, (atMs - fades.startMs) / inMs) : 1;
    const fadeOut = outMs > 0 ? Math.min(1, (fades.endMs - atMs) / outMs) : 1;
    return { atMs, gain: gain * fadeIn * fadeOut * duckGain(ducked, atMs) };
  });
}

function duckGain(ducked: readonly Stretch[], atMs: number): number {
  let gain = 1;
  for (const stretch of ducked) {
    const away = Math.max(stretch.startMs - atMs, atMs - stretch.endMs, 0);
    gain = Math.min(gain, DUCK_GAIN + (1 - DUCK_GAIN) * Math.min(1, away / DUCK_RAMP_MS));
  }
  return gain;
}

function joined(stretches: readonly Stretch[]): Stretch[] {
  const result: Stretch[] = [];
  for (const stretch of [...stretches].sort((a, b) => a.startMs - b.startMs)) {
    const last = result.at(-1);
    if (last && stretch.startMs - last.endMs < DUCK_JOIN_MS)
      result[result.length - 1] = { startMs: last.startMs, endMs: Math.max(last.endMs, stretch.endMs) };
    else result.push(stretch);
  }
  return result;
}
