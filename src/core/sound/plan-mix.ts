import type { FactsById } from '../show/asset-facts';
import { seenLayers, type ClipLayer } from '../show/layer';
import { USUAL_DUCK } from '../show/mix-said';
import type { PlacedSound } from '../show/placed-sound';
import type { Show } from '../show/show';
import { clipRuns } from '../timing/clip-time';
import { momentSeen } from '../timing/frames';
import { showLengthMs, slideSpans } from '../timing/slide-span';
import { duckCurve, fadeCurve, levelCurve, pointsOf, type Fades, type GainCurve, type Stretch } from './gain-curve';
import { gainOfDb, type MixPart, type MixPlan } from './mix-plan';
import { masterGain } from './master-gain';
import { FASTEST_HEARD, SLOWEST_HEARD } from './sound-stretcher';
import { soundLengthMs } from './sound-length';
import { pieceRuns } from './song-runs';
import { soundSpans, type SoundSpan } from './sound-spans';

/** Softens edges. */
const EDGE_MS = 25;
/** Parts of one recording that meet within a millisecond are one sound. */
const MEET_MS = 1.5;
/** Where a loop begins again, its end and its beginning cross over for so long. */
const LOOP_JOIN_MS = 12;
/** A tailored song is left and entered so long before a beat, and crosses over until shortly before its attack. */
const TAILOR_JOIN_MS = 24;

/**
 * What sounds when: songs that fade out where they end, cross over into the next and go down under voices; voices, short sounds, and the clips' own sound; and the
 * gain that brings all of it to the loudness wanted.
 */
export function planMix(show: Show, facts: FactsById): MixPlan {
  const placed = soundSpans(show, facts);
  const voices = voicesOf(placed, facts);
  const spoken = [...voices, ...clips(show, facts)];
  const duck = duckCurve(spoken.map(stretchOf), {
    db: show.mix?.duckDb ?? USUAL_DUCK.db,
    inMs: show.mix?.duckInMs ?? USUAL_DUCK.inMs,
    outMs: show.mix?.duckOutMs ?? USUAL_DUCK.outMs,
  });
  const songs = placed.filter(({ sound }) => sound.kind === 'song');
  const music = songs.flatMap((span, index) => song(span, songs[index + 1], duck, facts));
  const effects = placed.filter(({ sound }) => sound.kind === 'effect').flatMap((span) => edged(span, facts));
  const parts = [...music, ...spoken, ...effects];
  return { lengthMs: showLengthMs(show), parts, masterGain: masterGain(parts, facts, show.mix?.loudness) };
}

const stretchOf = (part: MixPart): Stretch => ({ startMs: part.startMs, endMs: part.startMs + part.lengthMs });

function song(span: SoundSpan, next: SoundSpan | undefined, duck: GainCurve | null, facts: FactsById): MixPart[] {
  const { sound, startMs, endMs } = span;
  const crossesInMs = sound.starts.at === 'after' ? (sound.starts.overlapMs ?? 0) : 0;
  const crossesOutMs = next && next.sound.starts.at === 'after' ? Math.max(0, endMs - next.startMs) : 0;
  const fades: Fades = {
    startMs,
    endMs,
    inMs: crossesInMs > 0 && startMs > 0 ? crossesInMs : sound.fadeInMs,
    outMs: crossesOutMs > 0 ? crossesOutMs : sound.fadeOutMs,
    inCurve: crossesInMs > 0 && startMs > 0 ? 'equal' : sound.fadeInCurve,
    outCurve: crossesOutMs > 0 ? 'equal' : sound.fadeOutCurve,
  };
  return partsOf('music', span, fades, duck ? [duck] : [], facts);
}

/** A recording that goes on from slide to slide is one sound: it has no edges where its parts meet. */
function voicesOf(placed: readonly SoundSpan[], facts: FactsById): MixPart[] {
  const voices = placed.filter(({ sound }) => sound.kind === 'voice');
  const goesOn = (one: SoundSpan, next: SoundSpan) =>
    one.sound.assetId === next.sound.assetId &&
    one.sound.trimEndMs === next.sound.trimStartMs &&
    Math.abs(one.endMs - next.startMs) <= MEET_MS;
  return voices.flatMap((span) =>
    edged(span, facts, {
      meetsBefore: voices.some((other) => other !== span && goesOn(other, span)),
      meetsAfter: voices.some((other) => other !== span && goesOn(span, other)),
    }),
  );
}

/** Voices and short sounds: with soft edges, so that nothing clicks. */
function edged(
  span: SoundSpan,
  facts: FactsById,
  { meetsBefore = false, meetsAfter = false }: { meetsBefore?: boolean; meetsAfter?: boolean } = {},
): MixPart[] {
  const { sound, startMs, endMs } = span;
  if (endMs - startMs <= 2 * EDGE_MS) return [];
  const fades: Fades = {
    startMs,
    endMs,
    inMs: Math.max(meetsBefore ? 0 : EDGE_MS, sound.fadeInMs),
    outMs: Math.max(meetsAfter ? 0 : EDGE_MS, sound.fadeOutMs),
    inCurve: sound.fadeInCurve,
    outCurve: sound.fadeOutCurve,
  };
  return partsOf(sound.kind === 'voice' ? 'voice' : 'effect', span, fades, [], facts);
}

/** One part for each time through the file. */
function partsOf(
  kind: MixPart['kind'],
  span: SoundSpan,
  fades: Fades,
  others: readonly GainCurve[],
  facts: FactsById,
): MixPart[] {
  const { sound } = span;
  const levels = levelCurve(sound.levels ?? [], span.startMs, span.endMs);
  const curves = [level(sound), fadeCurve(fades), ...(levels ? [levels] : []), ...others];
  const runs = pieceRuns(span, facts);
  const isTailoredSpan = runs.some((run, index) => index > 0 && run.fromMs !== runs[0]!.fromMs);
  return runs.map((run, index) => {
    // A file that ends there has nothing left to cross over with: its end meets its beginning.
    const left = soundLengthMs(facts.get(sound.assetId)) - run.toMs;
    const crossesMs = Math.max(0, Math.min(isTailoredSpan ? TAILOR_JOIN_MS : LOOP_JOIN_MS, left));
    const joinsMs = index < runs.length - 1 ? crossesMs : 0;
    const lengthMs = (run.toMs - run.fromMs) / run.speed + joinsMs;
    const own = { startMs: run.startMs, endMs: Math.min(span.endMs, run.startMs + lengthMs) };
    // What is in phase adds up; a loop’s ends are not.
    const curve = isTailoredSpan ? 'gentle' : 'equal';
    const comesInMs = isTailoredSpan ? TAILOR_JOIN_MS : crossesMs;
    const join = fadeCurve({
      ...own,
      inMs: index > 0 ? comesInMs : 0,
      outMs: joinsMs,
      inCurve: curve,
      outCurve: curve,
    });
    return {
      kind,
      assetId: sound.assetId,
      startMs: own.startMs,
      lengthMs: own.endMs - own.startMs,
      fromMs: run.fromMs,
      ...(run.speed !== 1 && { speed: run.speed }),
      gains: pointsOf(runs.length > 1 ? [...curves, join] : curves, own),
    };
  });
}

function level({ gainDb }: PlacedSound): GainCurve {
  const gain = gainOfDb(gainDb);
  return { corners: [], at: () => gain };
}

/** The clips’ own sound, for as long as they run. One that is not seen is not heard, nor is one that stands or runs backwards. */
function clips(show: Show, facts: FactsById): MixPart[] {
  const spans = slideSpans(show.slides);
  return show.slides.flatMap((slide, index) =>
    [...seenLayers(slide.layers)].flatMap((layer) =>
      layer.kind === 'clip' ? clipParts(layer, spans[index]!.startMs, slide.lengthMs, show, facts) : [],
    ),
  );
}

function clipParts(layer: ClipLayer, slideMs: number, slideLengthMs: number, show: Show, facts: FactsById): MixPart[] {
  const known = facts.get(layer.assetId);
  const gain = gainOfDb(layer.soundGainDb);
  if (known?.kind !== 'clip' || !known.hasSound || gain === 0) return [];
  const fromMs = momentSeen(slideMs, show.frame.rate);
  const heard = clipRuns(layer, known.lengthMs, slideLengthMs).filter(
    ({ rate, lengthMs }) => rate >= SLOWEST_HEARD && rate <= FASTEST_HEARD && lengthMs > 2 * EDGE_MS,
  );
  const last = heard.at(-1);
  if (!last) return [];
  const whole: Fades = {
    startMs: fromMs + heard[0]!.startMs,
    endMs: fromMs + last.startMs + last.lengthMs,
    inMs: layer.fadeInMs ?? 0,
    outMs: layer.fadeOutMs ?? 0,
  };
  return heard.map((run) => {
    const startMs = fromMs + run.startMs;
    const own = { startMs, endMs: startMs + run.lengthMs };
    const edges = fadeCurve({ ...own, inMs: EDGE_MS, outMs: EDGE_MS });
    return {
      kind: 'clip' as const,
      assetId: layer.assetId,
      startMs,
      lengthMs: run.lengthMs,
      fromMs: run.fromMs,
      ...(run.rate !== 1 && { tempo: run.rate }),
      gains: pointsOf([{ corners: [], at: () => gain }, edges, fadeCurve(whole)], own),
    };
  });
}
