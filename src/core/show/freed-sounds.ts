import type { SlideId } from './ids';
import type { PlacedSound, SoundEnd, SoundStart } from './placed-sound';
import type { Slide } from './show';

/**
 * The show’s sounds once slides have gone: one that began or ended with a slide that went does so with the slide after it, or with the last there is.
 * Sounds that nothing happened to keep their identity.
 *
 * @param before the order with the slides that go
 */
export function freedCues(
  cues: readonly PlacedSound[],
  before: readonly Slide[],
  gone: ReadonlySet<SlideId>,
): readonly PlacedSound[] {
  const heir = (id: SlideId): SlideId | null => {
    const at = before.findIndex((slide) => slide.id === id);
    const next = before.slice(at + 1).find((slide) => !gone.has(slide.id));
    return next?.id ?? null;
  };
  const last = before.findLast((slide) => !gone.has(slide.id))?.id ?? null;
  const startOf = (starts: SoundStart): SoundStart => {
    if (starts.at !== 'slide' || !gone.has(starts.slideId)) return starts;
    const slideId = heir(starts.slideId) ?? last;
    return slideId ? { at: 'slide', slideId, offsetMs: 0 } : { at: 'moment', momentMs: 0 };
  };
  const endOf = (ends: SoundEnd): SoundEnd => {
    if (ends.at !== 'slide' || !gone.has(ends.slideId)) return ends;
    const slideId = heir(ends.slideId);
    return slideId ? { at: 'slide', slideId, offsetMs: 0 } : { at: 'show-end', beforeMs: 0 };
  };
  return kept(cues, (cue) => {
    const [starts, ends] = [startOf(cue.starts), endOf(cue.ends)];
    return starts === cue.starts && ends === cue.ends ? cue : { ...cue, starts, ends };
  });
}

/** A slide whose sounds end with slides that are there; one that ended with another plays to its own end. */
export function withFreedEnds(slide: Slide, isThere: (id: SlideId) => boolean): Slide {
  const sounds = kept(slide.sounds, (sound) =>
    sound.ends.at === 'slide' && !isThere(sound.ends.slideId) ? { ...sound, ends: { at: 'own-end' as const } } : sound,
  );
  return sounds === slide.sounds ? slide : { ...slide, sounds };
}

/** A list as `change` says, the same one where nothing changes. */
export function kept<Value>(values: readonly Value[], change: (value: Value) => Value): readonly Value[] {
  const changed = values.map(change);
  return changed.some((value, index) => value !== values[index]) ? changed : values;
}
