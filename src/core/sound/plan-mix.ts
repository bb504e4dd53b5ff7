import type { AssetFacts, FactsById } from '../show/asset-facts';
import type { Show } from '../show/show';
import { showLengthMs, slideSpans } from '../timing/slide-span';
import { gainOfDb, type GainPoint, type MixPart, type MixPlan } from './mix-plan';

/** How far the music goes down under a voice or a clip's own sound, and how long it takes to. */
const DUCK_GAIN = gainOfDb(-11);
const DUCK_RAMP_MS = 450;
/** Pauses in speech shorter than this do not bring the music back. */
const DUCK_JOIN_MS = 1200;
/** Softens the edges of clips and takes, so that nothing clicks. */
const EDGE_MS = 25;

interface Stretch {
  readonly startMs: number;
  readonly endMs: number;
}

/** Where each song plays: one after the other, cut at the end of the show. Songs that would start later are left out. */
export function cueStretches(show: Show, facts: FactsById): (Stretch & { readonly cueIndex: number })[] {
  const lengthMs = showLengthMs(show);
  let startMs = 0;
  return show.cues.flatMap((cue, cueIndex) => {
    const ownMs = Math.max(0, soundLengthMs(facts.get(cue.assetId)) - cue.trimStartMs);
    const stretch = { cueIndex, startMs, endMs: Math.min(startMs + ownMs, lengthMs) };
    startMs += ownMs;
    return stretch.endMs > stretch.startMs ? [stretch] : [];
  });
}

/** Length of all the show's songs together, whether the show is long enough for them or not. */
export function musicLengthMs(show: Show, facts: FactsById): number {
  return show.cues.reduce((sum, cue) => sum + Math.max(0, soundLengthMs(facts.get(cue.assetId)) - cue.trimStartMs), 0);
}

/** What sounds when: songs that fade out with the show and go down under voices, the voices, and the clips' own sound. */
export function planMix(show: Show, facts: FactsById): MixPlan {
  const lengthMs = showLengthMs(show);
  const spoken = [...voices(show, facts), ...clips(show, facts)];
  const ducked = joined(spoken.map((part) => ({ startMs: part.startMs, endMs: part.startMs + part.lengthMs })));
  const music = cueStretches(show, facts).map((stretch): MixPart => {
    const cue = show.cues[stretch.cueIndex]!;
    const gain = gainOfDb(cue.gainDb);
    const fades: Fades = { ...stretch, inMs: cue.fadeInMs, outMs: cue.fadeOutMs };
    return {
      kind: 'music',
      assetId: cue.assetId,
      startMs: stretch.startMs,
      lengthMs: stretch.endMs - stretch.startMs,
      fromMs: cue.trimStartMs,
      gains: musicGains(fades, ducked, gain),
    };
  });
  return { lengthMs, parts: [...music, ...spoken] };
}

function voices(show: Show, facts: FactsById): MixPart[] {
  const spans = slideSpans(show.slides);
  return show.slides.flatMap((slide, index) => {
    if (!slide.narration) return [];
    const startMs = spans[index]!.startMs + slide.narration.offsetMs;
    const lengthMs = Math.min(soundLengthMs(facts.get(slide.narration.assetId)), showLengthMs(show) - startMs);
    return edged('voice', slide.narration.assetId, startMs, lengthMs, 0, gainOfDb(slide.narration.gainDb));
  });
}

function clips(show: Show, facts: FactsById): MixPart[] {
  const spans = slideSpans(show.slides);
  return show.slides.flatMap((slide, index) =>
    slide.layers.flatMap((layer) => {
      if (layer.kind !== 'clip') return [];
      const known = facts.get(layer.assetId);
      const gain = gainOfDb(layer.soundGainDb);
      if (known?.kind !== 'clip' || !known.hasSound || gain === 0) return [];
      const lengthMs = Math.min(known.lengthMs - layer.trimStartMs, slide.lengthMs);
      return edged('clip', layer.assetId, spans[index]!.startMs, lengthMs, layer.trimStartMs, gain);
    }),
  );
}

function edged(
  kind: 'voice' | 'clip',
  assetId: MixPart['assetId'],
  startMs: number,
  lengthMs: number,
  fromMs: number,
  gain: number,
): MixPart[] {
  if (lengthMs <= 2 * EDGE_MS) return [];
  const endMs = startMs + lengthMs;
  const gains = [
    { atMs: startMs, gain: 0 },
    { atMs: startMs + EDGE_MS, gain },
    { atMs: endMs - EDGE_MS, gain },
    { atMs: endMs, gain: 0 },
  ];
  return [{ kind, assetId, startMs, lengthMs, fromMs, gains }];
}

interface Fades extends Stretch {
  readonly inMs: number;
  readonly outMs: number;
}

/** The product of fades and ducking, given by its values at every corner of either. */
function musicGains(fades: Fades, ducked: readonly Stretch[], gain: number): GainPoint[] {
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

function soundLengthMs(facts: AssetFacts | undefined): number {
  return facts && facts.kind !== 'picture' ? facts.lengthMs : 0;
}
