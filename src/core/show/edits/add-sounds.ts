import { ID, list, object, orNull } from '../../schema/schema';
import type { CueId } from '../ids';
import { MOST_CUES } from '../limits';
import { runsPutIn } from '../order';
import type { PlacedSound } from '../placed-sound';
import { SOUND } from '../schemas/sound-schema';
import { done, many, refused } from './changing';
import type { EditRecord } from './edit-record';
import { placeOfSounds, SOUND_HOLDER, soundsIn, withSounds, type SoundHolder } from './sound-list';

/** Sounds that stand together after a named one; null stands for the first place. */
export interface PlacedSounds {
  readonly afterId: CueId | null;
  readonly sounds: readonly PlacedSound[];
}

export interface AddSounds {
  readonly kind: 'add-sounds';
  readonly slideId: SoundHolder;
  readonly runs: readonly PlacedSounds[];
}

export const addSounds: EditRecord<AddSounds> = {
  kind: 'add-sounds',
  parts: {
    slideId: SOUND_HOLDER,
    runs: many(object<PlacedSounds>({ afterId: orNull(ID), sounds: list(SOUND, MOST_CUES, 1) })),
  },
  apply(show, edit) {
    const there = soundsIn(show, edit.slideId);
    if (!there) return refused('slide-not-found');
    const added = edit.runs.flatMap((run) => run.sounds);
    const present = new Set(there.map((sound) => sound.id));
    for (const { id } of added) {
      if (present.has(id)) return refused('sound-already-there');
      present.add(id);
    }
    const runs = edit.runs.map((run) => ({ afterId: run.afterId, items: run.sounds }));
    return done(withSounds(show, edit.slideId, runsPutIn(there, runs)), {
      kind: 'remove-sounds',
      slideId: edit.slideId,
      soundIds: added.map((sound) => sound.id),
    });
  },
  touched: (edit) => edit.runs.flatMap((run) => run.sounds.map(({ id }) => placeOfSounds(edit.slideId, `${id}/`))),
  sentence: (edit) =>
    `add ${edit.runs[0]?.sounds[0]?.kind === 'song' ? 'a song' : edit.runs[0]?.sounds[0]?.kind === 'voice' ? 'a voice' : 'a sound'}`,
};

/** Adds a sound to the show after the others. */
export function songAdded(cues: readonly PlacedSound[], song: PlacedSound): AddSounds {
  return { kind: 'add-sounds', slideId: null, runs: [{ afterId: cues.at(-1)?.id ?? null, sounds: [song] }] };
}
