import {
  DECIBELS,
  HASH,
  maybe,
  number,
  truth,
  ID,
  list,
  object,
  oneOf,
  text,
  whole,
  type Parts,
  type PartsOf,
  type Schema,
} from '../../schema/schema';
import { BAND_ORDER } from '../../sound/band/band-schema';
import type { TailorWishes, UsedPart } from '../../sound/tailor/tailor-song';
import { CLEANING } from '../../sound/voice/cleaning';
import {
  LONGEST_NAME,
  LONGEST_SHOW_MS,
  LONGEST_SLIDE_MS,
  MOST_CUES,
  MOST_KEPT_JOINS,
  MOST_LEVEL_POINTS,
  MOST_SOUNDS_OF_A_SLIDE,
} from '../limits';
import {
  FADE_CURVES,
  SOUND_KINDS,
  type LevelPoint,
  type Anchor,
  type Cleaned,
  type PlacedSound,
  type SoundEnd,
  type SoundStart,
} from '../placed-sound';

/** What each place of a union told apart by `at` says. */
type PartsAt<Place extends { readonly at: string }> = {
  readonly [At in Place['at']]: PartsOf<Omit<Extract<Place, { readonly at: At }>, 'at'>>;
};
const places = <Place extends { readonly at: string }>(of: PartsAt<Place>): Schema => ({
  is: 'kinds',
  by: 'at',
  kinds: of as unknown as Record<string, Parts>,
});

const ANCHORS: PartsAt<Anchor> = {
  slide: { slideId: ID, offsetMs: whole(0, LONGEST_SLIDE_MS) },
  moment: { momentMs: whole(0, LONGEST_SHOW_MS) },
  'show-end': { beforeMs: whole(0, LONGEST_SHOW_MS) },
};
const LONGEST_FADE_MS = 600_000;
const AFTER = { overlapMs: maybe(whole(0, LONGEST_FADE_MS)) };
const HERE = { here: { offsetMs: whole(0, LONGEST_SLIDE_MS) } };

const IN_SONG = object<UsedPart>({ fromMs: number(0, LONGEST_SLIDE_MS), toMs: number(0, LONGEST_SLIDE_MS) });

export const SOUND_PARTS: PartsOf<PlacedSound> = {
  id: ID,
  kind: oneOf(SOUND_KINDS),
  assetId: HASH,
  starts: places<SoundStart>({ ...ANCHORS, after: AFTER, ...HERE }),
  ends: places<SoundEnd>({ ...ANCHORS, 'own-end': {} }),
  trimStartMs: whole(0, LONGEST_SLIDE_MS),
  trimEndMs: maybe(whole(0, LONGEST_SLIDE_MS)),
  loops: maybe(truth),
  gainDb: DECIBELS,
  fadeInMs: whole(0, LONGEST_FADE_MS),
  fadeOutMs: whole(0, LONGEST_FADE_MS),
  fadeInCurve: maybe(oneOf(FADE_CURVES)),
  fadeOutCurve: maybe(oneOf(FADE_CURVES)),
  levels: maybe(
    list(
      object<LevelPoint>({
        from: oneOf(['start', 'end']),
        offsetMs: whole(0, LONGEST_SHOW_MS),
        gainDb: number(-60, 20),
      }),
      MOST_LEVEL_POINTS,
      1,
    ),
  ),
  name: maybe(text(LONGEST_NAME, 1)),
  resting: maybe(truth),
  runsOn: maybe(truth),
  tailored: maybe(
    object<TailorWishes>({
      keep: maybe(list(IN_SONG, MOST_KEPT_JOINS, 1)),
      avoid: maybe(list(IN_SONG, 200, 1)),
      without: maybe(list(IN_SONG, 50, 1)),
    }),
  ),
  band: maybe(BAND_ORDER),
  cleaned: maybe(object<Cleaned>({ from: HASH, how: CLEANING })),
};
export const SOUND: Schema = object<PlacedSound>(SOUND_PARTS);
export const CUES: Schema = list(
  object<PlacedSound>({
    ...SOUND_PARTS,
    starts: places<Exclude<SoundStart, { readonly at: 'here' }>>({ ...ANCHORS, after: AFTER }),
  }),
  MOST_CUES,
);
export const SOUNDS_OF_A_SLIDE: Schema = list(
  object<PlacedSound>({ ...SOUND_PARTS, starts: places<Extract<SoundStart, { readonly at: 'here' }>>(HERE) }),
  MOST_SOUNDS_OF_A_SLIDE,
);
