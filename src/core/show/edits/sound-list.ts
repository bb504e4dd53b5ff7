import { ID, orNull, type Schema } from '../../schema/schema';
import type { SlideId } from '../ids';
import type { PlacedSound } from '../placed-sound';
import type { Show } from '../show';
import { placeOfSlide, putSlide, slideOf } from './changing';
import type { Place } from './edit-record';

/** The slide that holds the sounds; null for the sounds of the show. */
export type SoundHolder = SlideId | null;
export const SOUND_HOLDER: Schema = orNull(ID);

/** Null when there is no such slide. */
export function soundsIn(show: Show, holder: SoundHolder): readonly PlacedSound[] | null {
  return holder === null ? show.cues : (slideOf(show, holder)?.sounds ?? null);
}

/** @param holder one that is there */
export function withSounds(show: Show, holder: SoundHolder, sounds: readonly PlacedSound[]): Show {
  return holder === null ? { ...show, cues: sounds } : putSlide(show, { ...slideOf(show, holder)!, sounds });
}

export function placeOfSounds(holder: SoundHolder, part = ''): Place {
  return holder === null ? `cues/${part}` : placeOfSlide(holder, `sounds/${part}`);
}
