import { ID, maybe, object, orNull, type PartsOf, type Schema } from '../../schema/schema';
import type { CueId } from '../ids';
import type { PlacedSound } from '../placed-sound';
import { SOUND_PARTS } from '../schemas/sound-schema';
import { done, refused } from './changing';
import type { EditRecord } from './edit-record';
import { placeOfSounds, SOUND_HOLDER, soundsIn, withSounds, type SoundHolder } from './sound-list';

/** The parts a sound may do without. */
const OPTIONAL_PARTS = [
  'trimEndMs',
  'loops',
  'fadeInCurve',
  'fadeOutCurve',
  'levels',
  'name',
  'resting',
  'runsOn',
  'cleaned',
  'tailored',
  'band',
] as const satisfies (keyof PlacedSound)[];
type Optional = (typeof OPTIONAL_PARTS)[number];
const OPTIONAL = new Set<string>(OPTIONAL_PARTS);

/** What is not named stays; null takes away what a sound may do without. */
export type SoundProperties = Partial<Omit<PlacedSound, 'id' | Optional>> & {
  readonly [Name in Optional]?: PlacedSound[Name] | null;
};

/** Where one sound begins and ends, how loud it is, how it fades. */
export interface SetSound {
  readonly kind: 'set-sound';
  readonly slideId: SoundHolder;
  readonly soundId: CueId;
  readonly properties: SoundProperties;
}

const { id: _id, ...PROPERTIES } = SOUND_PARTS;
const MAYBE = Object.fromEntries(
  Object.entries(PROPERTIES).map(([name, schema]): [string, Schema] => {
    if (!OPTIONAL.has(name)) return [name, maybe(schema)];
    return [name, maybe(orNull(schema.is === 'maybe' ? schema.of : schema))];
  }),
) as unknown as PartsOf<SoundProperties>;

export const setSound: EditRecord<SetSound> = {
  kind: 'set-sound',
  parts: { slideId: SOUND_HOLDER, soundId: ID, properties: object<SoundProperties>(MAYBE) },
  apply(show, edit) {
    const there = soundsIn(show, edit.slideId);
    if (!there) return refused('slide-not-found');
    const sound = there.find((other) => other.id === edit.soundId);
    if (!sound) return refused('sound-not-found');
    const before = Object.fromEntries(
      Object.keys(edit.properties).map((name) => [name, sound[name as keyof SoundProperties] ?? null]),
    );
    const sounds = there.map((other) => (other === sound ? changed(sound, edit.properties) : other));
    return done(withSounds(show, edit.slideId, sounds), { ...edit, properties: before });
  },
  touched: (edit) => Object.keys(edit.properties).map((name) => placeOfSounds(edit.slideId, `${edit.soundId}/${name}`)),
  sentence({ properties }) {
    if ('gainDb' in properties) return 'change the volume';
    if ('levels' in properties) return 'change a level line';
    if ('name' in properties) return 'name a take';
    if ('resting' in properties) return properties.resting ? 'let a take rest' : 'choose a take';
    if ('cleaned' in properties) return properties.cleaned ? 'clean a voice' : 'have a voice as it was recorded';
    if ('runsOn' in properties) return properties.runsOn ? 'let a voice run on' : 'let the slide wait for its voice';
    if ('band' in properties) return properties.band ? 'have the band play' : 'keep what the band played as it is';
    if ('tailored' in properties) return properties.tailored ? 'tailor a song' : 'have a song as it is';
    if ('loops' in properties) return properties.loops ? 'let a song loop' : 'stop a song from looping';
    if ('fadeInMs' in properties || 'fadeOutMs' in properties) return 'change a fade';
    return 'starts' in properties || 'ends' in properties ? 'move a sound' : 'change a sound';
  },
};

function changed(sound: PlacedSound, properties: SoundProperties): PlacedSound {
  const kept = Object.entries({ ...sound, ...properties }).filter(([, value]) => value !== null);
  return Object.fromEntries(kept) as unknown as PlacedSound;
}
