import { applyEdit, type ShowEdit } from '../show/edit';
import type { SetLengths } from '../show/edits/set-lengths';
import { breathOf, type Breath } from '../show/breath';
import type { Chooser } from '../show/chosen';
import type { FactsById } from '../show/asset-facts';
import type { SlideId } from '../show/ids';
import { seenLayers } from '../show/layer';
import { offsetHereMs, voiceOf } from '../show/placed-sound';
import type { Show, Slide } from '../show/show';
import { onceThroughMs } from '../sound/song-runs';
import { leastLengthMs } from './least-length';
import { voiceNeedMs } from './voice-need';
import { lengthsForRolls } from './wait-for-rolls';

type Lengths = SetLengths['lengths'];

/**
 * Lengths that change because of what is spoken: a slide that gets a voice lasts as long as that, with its breath; one that loses it lasts as others do; what
 * a hand or a clip holds is only made longer, when the voice would be cut otherwise. A voice that goes on over later slides is let out before the next begins.
 *
 * @param before the show that these voices were not in
 */
export function lengthsForVoices(before: Show, after: Show, facts: FactsById): Lengths {
  if (before.slides === after.slides && before.breath === after.breath) return [];
  const known = new Map(before.slides.map((slide) => [slide.id, slide]));
  const wanted = new Map<SlideId, { lengthMs: number; by: Chooser | null }>();
  after.slides.forEach((slide, index) => {
    const was = known.get(slide.id);
    if (was && saysTheSame(was, slide) && before.breath === after.breath) return;
    if (slide.sounds.length === 0 && (was?.sounds.length ?? 0) === 0) return;
    const next = lengthFor(before, after, facts, { slide, was, previous: after.slides[index - 1] });
    if (next) wanted.set(slide.id, next);
  });
  letOut(after, facts, wanted);
  return [...wanted].map(([slideId, length]) => ({ slideId, ...length }));
}

/** Words, pictures and light have nothing to do with how long a voice takes. */
const saysTheSame = (one: Slide, other: Slide): boolean =>
  one === other || (one.sounds === other.sounds && one.breath === other.breath && one.lengthMs === other.lengthMs);

function lengthFor(
  before: Show,
  after: Show,
  facts: FactsById,
  { slide, was, previous }: { slide: Slide; was: Slide | undefined; previous: Slide | undefined },
): { lengthMs: number; by: Chooser | null } | null {
  const need = voiceNeedMs(after, slide, facts);
  const had = was ? voiceNeedMs(before, was, facts) : 0;
  const by = slide.chosen?.length ?? null;
  const least = () => leastLengthMs(slide, facts, previous, after);
  if (need === 0) {
    if (had === 0 || by !== 'voice') return null;
    return { lengthMs: Math.max(after.defaultLengthMs, least()), by: null };
  }
  const isFree = by === 'voice' || (by === null && was !== undefined && had === 0 && !holdsClip(slide));
  const lengthMs = isFree ? least() : Math.max(slide.lengthMs, need);
  if (lengthMs === slide.lengthMs && (!isFree || by === 'voice')) return null;
  return { lengthMs, by: isFree ? 'voice' : by };
}

const holdsClip = (slide: Slide): boolean => [...seenLayers(slide.layers)].some((layer) => layer.kind === 'clip');

/** The slide before the next voice, or before the end, lasts until a voice that runs on has been heard. */
function letOut(show: Show, facts: FactsById, wanted: Map<SlideId, { lengthMs: number; by: Chooser | null }>): void {
  const lengthOf = (slide: Slide) => wanted.get(slide.id)?.lengthMs ?? slide.lengthMs;
  show.slides.forEach((slide, index) => {
    const voice = voiceOf(slide);
    if (!voice?.runsOn) return;
    const needMs = offsetHereMs(voice) + onceThroughMs(voice, facts) + breathOf(show, slide).afterMs;
    const next = show.slides.findIndex((other, at) => at > index && voiceOf(other) !== null);
    const under = show.slides.slice(index, next < 0 ? undefined : next);
    const missingMs = Math.ceil(needMs - under.reduce((sum, other) => sum + lengthOf(other), 0));
    const last = under.at(-1)!;
    if (missingMs > 0)
      wanted.set(last.id, {
        lengthMs: lengthOf(last) + missingMs,
        by: wanted.get(last.id)?.by ?? last.chosen?.length ?? null,
      });
  });
}

/**
 * An edit with the lengths that follow from what is spoken, and what rolls, after it, as one step.
 *
 * @returns also a sentence when a length that was asked for is too short for its voice
 */
export function withRoomForVoices(
  show: Show,
  facts: FactsById,
  edit: ShowEdit,
): { readonly edits: readonly ShowEdit[]; readonly told: string | null } {
  const result = applyEdit(show, edit);
  if (!result.ok) return { edits: [edit], told: null };
  const spoken = lengthsForVoices(show, result.show, facts);
  const waiting = new Set(spoken.map(({ slideId }) => slideId));
  const rolled = lengthsForRolls(show, result.show, facts).filter(({ slideId }) => !waiting.has(slideId));
  const lengths = [...spoken, ...rolled];
  if (lengths.length === 0) return { edits: [edit], told: null };
  if (edit.kind !== 'set-lengths') return { edits: [edit, { kind: 'set-lengths', lengths }], told: null };
  // Of one drag all steps write to the same places, so that they are one step to undo.
  const raised = new Map(lengths.map((entry) => [entry.slideId, entry]));
  const kept = edit.lengths.map((entry) => {
    const least = raised.get(entry.slideId);
    raised.delete(entry.slideId);
    return least ? { ...entry, lengthMs: least.lengthMs } : entry;
  });
  const first = lengths[0]!;
  const number = show.slides.findIndex((slide) => slide.id === first.slideId) + 1;
  return {
    edits: [{ ...edit, lengths: [...kept, ...raised.values()] }],
    told: `Slide ${number} lasts ${(first.lengthMs / 1000).toFixed(1)} s: its voice takes that long, with the silence around it.`,
  };
}

/** Sets how long it is silent around voices, for slides or for the show (null), and moves the voices that this concerns. */
export function breathsSet(show: Show, slideIds: readonly SlideId[] | null, breath: Breath | null): ShowEdit {
  const concerned = show.slides.filter((slide) => (slideIds ? slideIds.includes(slide.id) : !slide.breath));
  const moved = concerned.flatMap((slide): ShowEdit[] => {
    const by =
      breathOf(slideIds ? show : { breath: breath ?? undefined }, slideIds ? { breath: breath ?? undefined } : slide)
        .beforeMs - breathOf(show, slide).beforeMs;
    return slide.sounds.flatMap((sound): ShowEdit[] =>
      sound.kind !== 'voice' || by === 0
        ? []
        : [
            {
              kind: 'set-sound',
              slideId: slide.id,
              soundId: sound.id,
              properties: { starts: { at: 'here', offsetMs: Math.max(0, offsetHereMs(sound) + by) } },
            },
          ],
    );
  });
  const breaths = slideIds ? slideIds.map((slideId) => ({ slideId, breath })) : [{ slideId: null, breath }];
  return {
    kind: 'together',
    name: 'change the silence around voices',
    edits: [{ kind: 'set-breaths', breaths }, ...moved],
  };
}
