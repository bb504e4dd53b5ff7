import type { FactsById } from '../show/asset-facts';
import { USUAL_LANGUAGE, type Caption } from '../show/caption';
import type { SlideId } from '../show/ids';
import { offsetHereMs, voiceOf, type PlacedSound } from '../show/placed-sound';
import type { Show, Slide } from '../show/show';
import { onceThroughMs } from '../sound/song-runs';
import type { Phrase } from '../sound/voice/phrases';
import { momentSeen } from '../timing/frames';
import { showLengthMs, slideSpans } from '../timing/slide-span';
import { sentenceTimes } from './align';
import { CAPTION_LIMITS, inCaptions, timeToRead } from './caption-lines';
import { lettersToSay, sentencesOf } from './sentences';

/** A caption in the time of the show. */
export interface ShownCaption {
  readonly slideId: SlideId;
  /** Among those of its slide. */
  readonly index: number;
  readonly startMs: number;
  readonly endMs: number;
  readonly text: string;
}

/** The languages in which a show has captions: its own first. */
export function captionLanguages(show: Show): string[] {
  const own = show.language ?? USUAL_LANGUAGE;
  const others = new Set(show.slides.flatMap((slide) => Object.keys(slide.captions ?? {})));
  const hasOwn = others.has(own) || show.slides.some((slide) => slide.script !== undefined && voiceOf(slide) !== null);
  others.delete(own);
  return [...(hasOwn ? [own] : []), ...[...others].toSorted()];
}

/** The captions of a show in one language, in order; none overlaps the next. */
export function captionsOfShow(show: Show, facts: FactsById, language: string): ShownCaption[] {
  const spans = slideSpans(show.slides);
  const all = show.slides.flatMap((slide, index) => {
    const captions = captionsOfSlide(show, slide, facts, language);
    const seenMs = momentSeen(spans[index]!.startMs, show.frame.rate);
    return captions.map((caption, at) => ({
      slideId: slide.id,
      index: at,
      startMs: seenMs + caption.fromMs,
      endMs: seenMs + caption.toMs,
      text: caption.text,
    }));
  });
  const lengthMs = showLengthMs(show);
  const sorted = all.filter(({ startMs }) => startMs < lengthMs).toSorted((a, b) => a.startMs - b.startMs);
  return sorted.map((caption, index) => ({
    ...caption,
    endMs: Math.min(caption.endMs, sorted[index + 1]?.startMs ?? lengthMs),
  }));
}

/** Of one slide: by hand where they are, else worked out from its script and its voice. */
export function captionsOfSlide(show: Show, slide: Slide, facts: FactsById, language: string): readonly Caption[] {
  // A language comes from addresses too, and every object answers to some names.
  const byHand = slide.captions && Object.hasOwn(slide.captions, language) ? slide.captions[language] : undefined;
  if (byHand) return byHand;
  return language === (show.language ?? USUAL_LANGUAGE) ? foundCaptions(slide, facts, language) : [];
}

const worked = new WeakMap<PlacedSound, { script: string; known: unknown; captions: Caption[] }>();

function foundCaptions(slide: Slide, facts: FactsById, language: string): readonly Caption[] {
  const voice = voiceOf(slide);
  if (!voice || !slide.script) return [];
  const known = facts.get(voice.assetId);
  const before = worked.get(voice);
  if (before && before.script === slide.script && before.known === known) return before.captions;
  const captions = timedCaptions(sentencesOf(slide.script, language), spokenPhrases(voice, facts));
  worked.set(voice, { script: slide.script, known, captions });
  return captions;
}

/** What is said in what a voice plays, counted from where its slide is first seen. Until it was listened to it is taken to be spoken through. */
export function spokenPhrases(voice: PlacedSound, facts: FactsById): Phrase[] {
  const known = facts.get(voice.assetId);
  const lengthMs = onceThroughMs(voice, facts);
  const heard = known && known.kind === 'sound' ? known.listening?.phrases : undefined;
  const phrases = heard ?? [{ fromMs: voice.trimStartMs, toMs: voice.trimStartMs + lengthMs }];
  const shiftMs = offsetHereMs(voice) - voice.trimStartMs;
  return phrases.flatMap(({ fromMs, toMs }) => {
    const from = Math.max(fromMs, voice.trimStartMs);
    const to = Math.min(toMs, voice.trimStartMs + lengthMs);
    return to - from > 0 ? [{ fromMs: from + shiftMs, toMs: to + shiftMs }] : [];
  });
}

/** Sentences as captions, each for as long as it is said, longer where it could not be read. */
export function timedCaptions(sentences: readonly string[], phrases: readonly Phrase[]): Caption[] {
  const times = sentenceTimes(sentences, phrases);
  if (!times) return [];
  const pieces = sentences.flatMap((sentence, index) => {
    const { fromMs, toMs } = times[index]!;
    const texts = inCaptions(sentence, Math.ceil((toMs - fromMs) / CAPTION_LIMITS.mostMs));
    const letters = texts.map(lettersToSay);
    const all = letters.reduce((sum, count) => sum + count, 0);
    let said = 0;
    return texts.map((text, piece) => {
      const from = fromMs + ((toMs - fromMs) * said) / all;
      said += letters[piece]!;
      return { fromMs: Math.round(from), toMs: Math.round(fromMs + ((toMs - fromMs) * said) / all), text };
    });
  });
  return pieces.flatMap((piece, index) => {
    const next = pieces[index + 1];
    const latest = next ? next.fromMs - CAPTION_LIMITS.gapMs : Infinity;
    const wanted = Math.max(piece.toMs, piece.fromMs + timeToRead(piece.text));
    const toMs = Math.max(Math.min(wanted, latest), Math.min(piece.toMs, next?.fromMs ?? piece.toMs));
    return toMs > piece.fromMs ? [{ ...piece, fromMs: Math.max(0, piece.fromMs), toMs }] : [];
  });
}
