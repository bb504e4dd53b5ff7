import { ID } from '../../schema/schema';
import type { CueId } from '../ids';
import { runsTakenOut } from '../order';
import { counted, done, many, refused } from './changing';
import type { EditRecord } from './edit-record';
import { placeOfSounds, SOUND_HOLDER, soundsIn, withSounds, type SoundHolder } from './sound-list';

export interface RemoveSounds {
  readonly kind: 'remove-sounds';
  readonly slideId: SoundHolder;
  readonly soundIds: readonly CueId[];
}

export const removeSounds: EditRecord<RemoveSounds> = {
  kind: 'remove-sounds',
  parts: { slideId: SOUND_HOLDER, soundIds: many(ID) },
  apply(show, edit) {
    const there = soundsIn(show, edit.slideId);
    if (!there) return refused('slide-not-found');
    const taken = runsTakenOut(there, edit.soundIds);
    if (!taken) return refused('sound-not-found');
    return done(withSounds(show, edit.slideId, taken.rest), {
      kind: 'add-sounds',
      slideId: edit.slideId,
      runs: taken.runs.map(({ afterId, items }) => ({ afterId, sounds: items })),
    });
  },
  touched: (edit) => edit.soundIds.map((id) => placeOfSounds(edit.slideId, `${id}/`)),
  sentence({ slideId, soundIds }) {
    const one = slideId === null ? 'song' : 'sound';
    return soundIds.length === 1 ? `take out a ${one}` : `take out ${counted(soundIds.length, one)}`;
  },
};
