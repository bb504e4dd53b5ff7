import type { FactsById } from '../show/asset-facts';
import type { CueId } from '../show/ids';
import { offsetHereMs, type Anchor, type PlacedSound, type SoundKind, type SoundStart } from '../show/placed-sound';
import type { Show, Slide } from '../show/show';
import { momentSeen } from '../timing/frames';
import { doesLoop, isTailored, onceThroughMs, tailoringOf } from './song-runs';
import { TAILORED_SHARE } from './tailor/tailor-song';
import { showLengthMs, slideSpans } from '../timing/slide-span';

/** When a placed sound is heard: `[startMs, endMs)`, within the show. */
export interface SoundSpan {
  readonly sound: PlacedSound;
  readonly startMs: number;
  readonly endMs: number;
}

/** A sound of a slide, as it is drawn beside it. */
export interface TakeSpan {
  readonly id: CueId;
  readonly kind: SoundKind;
  readonly from: number;
  readonly to: number;
}

/**
 * When each of the show’s sounds is heard, the show’s own first, then those that slides hold; those that are never heard are left out. What is tied to a
 * slide begins in the very frame in which that is first seen.
 *
 * @param unbounded they are heard to their own ends, as if the show went on; a loop ends with the show all the same
 */
export function soundSpans(show: Show, facts: FactsById, unbounded = false): SoundSpan[] {
  const lengthMs = unbounded ? Infinity : showLengthMs(show);
  return spansOf(show, facts).flatMap(({ sound, startMs, endMs }) =>
    Math.min(endMs, lengthMs) > startMs ? [{ sound, startMs, endMs: Math.min(endMs, lengthMs) }] : [],
  );
}

/** When the music would end if the show went on: how long it is. 0 without songs. */
export function musicLengthMs(show: Show, facts: FactsById): number {
  return spansOf(show, facts).reduce(
    (latest, { sound, endMs }) => (sound.kind === 'song' ? Math.max(latest, endMs) : latest),
    0,
  );
}

/** The sounds a slide holds, for drawing beside it: shares of its length. Those that go on over later slides end at 1. */
export function takesOf(slide: Slide, facts: FactsById): TakeSpan[] {
  return heardOf(slide).flatMap((sound) => {
    const ownMs = onceThroughMs(sound, facts);
    const from = offsetHereMs(sound) / slide.lengthMs;
    if (ownMs <= 0 || from >= 1) return [];
    return [{ id: sound.id, kind: sound.kind, from, to: Math.min(1, from + ownMs / slide.lengthMs) }];
  });
}

/** When the voices of a slide have all been heard, from its start; 0 without any. Those that go on over later slides are not among them. */
export function spokenMs(slide: Slide, facts: FactsById): number {
  return heardOf(slide)
    .filter((sound) => sound.kind === 'voice' && sound.ends.at === 'own-end' && !sound.runsOn)
    .reduce((latest, sound) => {
      const ownMs = onceThroughMs(sound, facts);
      return Math.max(latest, ownMs > 0 ? offsetHereMs(sound) + ownMs : 0);
    }, 0);
}

/** Takes that rest are not heard. */
function heardOf(slide: Slide): readonly PlacedSound[] {
  return slide.sounds.some((sound) => sound.resting) ? slide.sounds.filter((sound) => !sound.resting) : slide.sounds;
}

/** Whether the show is long enough for them or not. */
function spansOf(show: Show, facts: FactsById): SoundSpan[] {
  const spans = slideSpans(show.slides);
  const rate = show.frame.rate;
  const seenMs = new Map(spans.map((span) => [span.slideId, momentSeen(span.startMs, rate)]));
  const lengthMs = showLengthMs(show);
  const momentOf = (anchor: Anchor): number => {
    if (anchor.at === 'slide') return (seenMs.get(anchor.slideId) ?? 0) + anchor.offsetMs;
    return anchor.at === 'moment' ? momentSeen(anchor.momentMs, rate) : Math.max(0, lengthMs - anchor.beforeMs);
  };
  const heard = (sound: PlacedSound, startMs: number): SoundSpan => {
    const ownMs = onceThroughMs(sound, facts);
    const ownEndMs = doesLoop(sound, facts)
      ? Math.max(startMs, lengthMs)
      : startMs + ownMs * (isTailored(sound, facts) ? TAILORED_SHARE.most : 1);
    const endMs = sound.ends.at === 'own-end' ? ownEndMs : Math.min(ownEndMs, momentOf(sound.ends));
    // Where it cannot be tailored to there, it plays as it is.
    const span = { sound, startMs, endMs: Math.max(startMs, endMs) };
    const isOver = span.endMs > startMs + ownMs && !doesLoop(sound, facts);
    return isOver && !tailoringOf(span, facts) ? { ...span, endMs: startMs + ownMs } : span;
  };
  let [beforeMs, lastStartMs] = [0, 0];
  const startOf = (starts: SoundStart): number => {
    if (starts.at === 'here') return beforeMs;
    // Never before the one it comes after: two that overlap wholly would change places.
    return starts.at === 'after' ? Math.max(lastStartMs, beforeMs - (starts.overlapMs ?? 0)) : momentOf(starts);
  };
  const cues = show.cues.map((cue): SoundSpan => {
    const { starts } = cue;
    const span = heard(cue, startOf(starts));
    // What rings over the music does not hold up the next song.
    if (cue.kind === 'song') [beforeMs, lastStartMs] = [span.endMs, span.startMs];
    return span;
  });
  const held = show.slides.flatMap((slide) =>
    heardOf(slide).map((sound): SoundSpan => {
      const { starts } = sound;
      if (starts.at !== 'here') return heard(sound, starts.at === 'after' ? seenMs.get(slide.id)! : momentOf(starts));
      return heard(sound, seenMs.get(slide.id)! + starts.offsetMs);
    }),
  );
  return [...cues, ...held];
}
