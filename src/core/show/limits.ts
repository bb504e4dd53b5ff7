/**
 * How much a show may hold. Far above what people make, and below what would stop a browser or the server. What lies outside is refused with a sentence
 * (`faults.ts`); `docs/show-format.md` lists these for people who write shows by hand.
 */
export const MOST_SLIDES = 10_000;
/** On one slide, those in groups counted. */
export const MOST_LAYERS = 500;
export const DEEPEST_GROUP = 12;
export const MOST_KEYS = 1000;
export const MOST_CUES = 200;
/** Joins of one tailored song that must be made: with each the ways through it are looked through once more. */
export const MOST_KEPT_JOINS = 6;
export const MOST_SOUNDS_OF_A_SLIDE = 50;
export const MOST_SHAPES = 20;
export const MOST_MARKS = 50_000;
/** Pictures of which a person says what they are about. */
export const MOST_FOCUSED = 20_000;
/** Songs of which a person says where the beats are. */
export const MOST_BEATS_SAID = 2000;
/** Songs whose tags are mended in a show. */
export const MOST_TAGGED = 2000;
/** Clips for which a frame stands that somebody chose. */
export const MOST_POSTERS = 20_000;
export const MOST_LEVEL_POINTS = 500;
/** Whose clocks were put right. */
export const MOST_CAMERAS = 100;
export const SHORTEST_SLIDE_MS = 200;
export const LONGEST_SLIDE_MS = 24 * 60 * 60 * 1000;
/** Three days and nights. */
export const LONGEST_SHOW_MS = 3 * 24 * 60 * 60 * 1000;
/** Of one film; a longer show is made in parts. */
export const LONGEST_FILM_MS = 12 * 60 * 60 * 1000;
export const LONGEST_TRANSITION_MS = 60_000;
export const LONGEST_SHOW_TITLE = 300;
export const LONGEST_NAME = 200;
export const LONGEST_WORDS_TITLE = 2000;
export const LONGEST_WORDS_SUBTITLE = 10_000;
/** What is spoken on one slide. */
export const LONGEST_SCRIPT = 20_000;
export const MOST_LANGUAGES = 12;
/** Of one slide in one language. */
export const MOST_CAPTIONS = 2000;
export const LONGEST_CAPTION = 500;
export const LONGEST_BREATH_MS = 30_000;
export const SMALLEST_FRAME_PX = 16;
export const LARGEST_FRAME_PX = 7680;
/** Snags that are left as they are. */
export const MOST_LEFT_AS_THEY_ARE = 5000;
export const LONGEST_REASON = 300;
/** Files of which a person says by what right they are used. */
export const MOST_LICENCES = 20_000;
/** Longer side over shorter side: a frame narrower than this is no picture. */
export const LONGEST_FRAME_SHAPE = 4;
/** Edits that one step may join, those in steps within it counted. */
export const MOST_EDITS_TOGETHER = 10_000;
