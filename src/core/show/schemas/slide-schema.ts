import {
  HASH,
  ID,
  list,
  maybe,
  object,
  oneOf,
  record,
  text,
  truth,
  whole,
  type PartsOf,
  type Schema,
} from '../../schema/schema';
import {
  LARGEST_FRAME_PX,
  LONGEST_NAME,
  LONGEST_REASON,
  LONGEST_SCRIPT,
  LONGEST_SHOW_TITLE,
  LONGEST_SLIDE_MS,
  MOST_BEATS_SAID,
  MOST_FOCUSED,
  MOST_LEFT_AS_THEY_ARE,
  MOST_LICENCES,
  MOST_MARKS,
  MOST_POSTERS,
  MOST_SLIDES,
  SHORTEST_SLIDE_MS,
  SMALLEST_FRAME_PX,
} from '../limits';
import type { MethodPins } from '../../facts/fact-kinds';
import { FORMAT_VERSION } from '../format/version';
import { CLOCKS } from '../camera-clock';
import { RINGS } from '../../focus/focus-schema';
import { TEMPERAMENTS } from '../../motion/automatic-move';
import { BREATH } from '../breath';
import { CAPTIONS_BY_LANGUAGE, CAPTION_LOOK, LANGUAGE } from '../caption';
import { CHOSEN } from '../chosen';
import { MARKS } from '../mark';
import { mountedSchema } from '../mounted';
import { SONG_TAGS_BY_ID } from '../song-tags';
import { WATERMARK } from '../watermark';
import { PLUMAGE_IN_USE } from '../../plumage/plumage-schema';
import { MIX_SAID } from '../mix-said';
import { PACE } from '../pace';
import { BEATS_SAID } from '../../sound/listening/beats-said';
import { FRAME_RATE } from '../../timing/frame-rate';
import type { BareSlide, FrameShape, Show, ShowContent, Slide } from '../show';
import { LAYERS } from './layer-schema';
import { CUES, SOUNDS_OF_A_SLIDE } from './sound-schema';
import { BACKING } from './backing-schema';
import { TRANSITION } from './transition-schema';

export const SLIDE_LENGTH: Schema = whole(SHORTEST_SLIDE_MS, LONGEST_SLIDE_MS);

export const CHAPTER_NAME: Schema = text(LONGEST_NAME, 1);

export const SNAG_KEY = text(LONGEST_NAME, 1);
export const REASON = text(LONGEST_REASON);
export const LICENCE = text(LONGEST_REASON, 1);
/** A moment of a clip. */
export const POSTER = whole(0, LONGEST_SLIDE_MS);

export const SCRIPT: Schema = text(LONGEST_SCRIPT, 1);

export const SLIDE: Schema = object<Slide>({
  id: ID,
  lengthMs: SLIDE_LENGTH,
  transition: TRANSITION,
  backing: BACKING,
  layers: LAYERS,
  sounds: SOUNDS_OF_A_SLIDE,
  chapter: maybe(CHAPTER_NAME),
  script: maybe(SCRIPT),
  breath: maybe(BREATH),
  captions: maybe(CAPTIONS_BY_LANGUAGE),
  waits: maybe(truth),
  chosen: maybe(CHOSEN),
  mounted: maybe(mountedSchema(() => SLIDE)),
  bare: maybe(object<BareSlide>({ transition: maybe(TRANSITION), backing: maybe(BACKING) })),
});

export const SHOW_TITLE: Schema = text(LONGEST_SHOW_TITLE);

const METHOD = maybe(whole(1, 1000));
export const METHODS: Schema = object<MethodPins>({ basics: METHOD, focus: METHOD, listening: METHOD });

/** What a show says, apart from who it is. */
export const CONTENT_PARTS: PartsOf<ShowContent> = {
  title: SHOW_TITLE,
  frame: object<FrameShape>({
    widthPx: whole(SMALLEST_FRAME_PX, LARGEST_FRAME_PX),
    heightPx: whole(SMALLEST_FRAME_PX, LARGEST_FRAME_PX),
    rate: FRAME_RATE,
  }),
  defaultLengthMs: SLIDE_LENGTH,
  slides: list(SLIDE, MOST_SLIDES),
  cues: CUES,
  methods: METHODS,
  marks: maybe(record(HASH, oneOf(MARKS), MOST_MARKS, 1)),
  clocks: maybe(CLOCKS),
  focus: maybe(record(HASH, RINGS, MOST_FOCUSED, 1)),
  temperament: maybe(oneOf(TEMPERAMENTS)),
  beats: maybe(record(HASH, BEATS_SAID, MOST_BEATS_SAID, 1)),
  pace: maybe(PACE),
  mix: maybe(MIX_SAID),
  breath: maybe(BREATH),
  captionLook: maybe(CAPTION_LOOK),
  language: maybe(LANGUAGE),
  letBe: maybe(record(SNAG_KEY, REASON, MOST_LEFT_AS_THEY_ARE, 1)),
  licences: maybe(record(HASH, LICENCE, MOST_LICENCES, 1)),
  tags: maybe(SONG_TAGS_BY_ID),
  posters: maybe(record(HASH, POSTER, MOST_POSTERS, 1)),
  plumage: maybe(PLUMAGE_IN_USE),
  watermark: maybe(WATERMARK),
};

export const SHOW_PARTS: PartsOf<Show> = {
  format: oneOf(['tanager-show']),
  version: whole(FORMAT_VERSION, FORMAT_VERSION),
  id: ID,
  ...CONTENT_PARTS,
};
