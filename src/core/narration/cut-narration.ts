import { sentenceTimes } from '../captions/align';
import { sentencesOf } from '../captions/sentences';
import { breathOf } from '../show/breath';
import type { ShowEdit } from '../show/edit';
import type { CueId, SlideId } from '../show/ids';
import type { Show, Slide } from '../show/show';
import type { Phrase } from '../sound/voice/phrases';
import { placed, takeLaid, type RecordedVoice } from './kept-take';

/** Silence kept before and after each part. */
const AROUND_MS = { before: 120, after: 250 };

/** A pause that may divide two slides. */
const LEAST_PAUSE_MS = 350;

/**
 * Where a long narration is cut so that each slide gets what its script says: the sentences of all are found in it.
 *
 * @param scripts one for each slide, in order; none is empty
 * @returns one part for each; null where nothing is said
 */
export function partsByScript(
  scripts: readonly string[],
  phrases: readonly Phrase[],
  language?: string,
): Phrase[] | null {
  const sentences = scripts.map((script) => sentencesOf(script, language));
  const times = sentenceTimes(sentences.flat(), phrases);
  if (!times || sentences.some((own) => own.length === 0)) return null;
  let at = 0;
  return sentences.map((own) => {
    const [first, last] = [times[at]!, times[at + own.length - 1]!];
    at += own.length;
    return { fromMs: first.fromMs, toMs: last.toMs };
  });
}

/** Where a long narration is cut at its longest pauses, into no more parts than there are slides. */
export function partsByPauses(slideCount: number, phrases: readonly Phrase[]): Phrase[] {
  const pauses = phrases
    .slice(1)
    .map((phrase, index) => ({ index, lengthMs: phrase.fromMs - phrases[index]!.toMs }))
    .filter(({ lengthMs }) => lengthMs >= LEAST_PAUSE_MS)
    .toSorted((a, b) => b.lengthMs - a.lengthMs)
    .slice(0, Math.max(0, slideCount - 1));
  const ends = [...pauses.map(({ index }) => index).toSorted((a, b) => a - b), phrases.length - 1];
  return phrases.length === 0
    ? []
    : ends.map((end, part) => ({
        fromMs: phrases[part === 0 ? 0 : ends[part - 1]! + 1]!.fromMs,
        toMs: phrases[end]!.toMs,
      }));
}

/** Lays parts of a narration on slides, one each; voices that were heard there rest. */
export function narrationLaid(
  show: Show,
  slideIds: readonly SlideId[],
  voice: RecordedVoice,
  parts: readonly Phrase[],
  newId: () => CueId,
): ShowEdit {
  const slides = slideIds
    .map((id) => show.slides.find((slide) => slide.id === id))
    .filter((slide): slide is Slide => !!slide);
  return {
    kind: 'together',
    name: `lay a narration over ${slides.length} slides`,
    edits: slides.slice(0, parts.length).flatMap((slide, index): ShowEdit[] => {
      const { fromMs, toMs } = parts[index]!;
      // Half of a short pause belongs to each side.
      const before = Math.min(AROUND_MS.before, index === 0 ? fromMs : (fromMs - parts[index - 1]!.toMs) / 2);
      const next = parts[index + 1]?.fromMs ?? voice.lengthMs;
      const after = Math.min(AROUND_MS.after, (next - toMs) / 2);
      const part = { ...voice, fromMs: fromMs - before, toMs: Math.min(voice.lengthMs, toMs + after) };
      return takeLaid(slide, placed(newId(), part, breathOf(show, slide).beforeMs));
    }),
  };
}

/** A script with empty lines between its paragraphs, one for each slide from the first given on; what is left over stays with the last. */
export function scriptSpread(slides: readonly Slide[], script: string): ShowEdit | null {
  const paragraphs = script
    .split(/\r?\n\s*\r?\n/)
    .map((paragraph) => paragraph.trim())
    .filter((paragraph) => paragraph !== '');
  const count = Math.min(slides.length, paragraphs.length);
  if (count === 0) return null;
  return {
    kind: 'set-scripts',
    scripts: slides.slice(0, count).map((slide, index) => ({
      slideId: slide.id,
      script: index === count - 1 ? paragraphs.slice(index).join('\n') : paragraphs[index]!,
    })),
  };
}
