import { faultOfLayers } from './layer-faults';
import {
  LARGEST_FRAME_PX,
  LONGEST_FRAME_SHAPE,
  LONGEST_CAPTION,
  LONGEST_NAME,
  LONGEST_REASON,
  LONGEST_SCRIPT,
  LONGEST_SHOW_MS,
  LONGEST_SHOW_TITLE,
  LONGEST_WORDS_SUBTITLE,
  LONGEST_WORDS_TITLE,
  MOST_BEATS_SAID,
  MOST_CAMERAS,
  MOST_CAPTIONS,
  MOST_CUES,
  MOST_FOCUSED,
  MOST_LEFT_AS_THEY_ARE,
  MOST_LICENCES,
  MOST_POSTERS,
  MOST_TAGGED,
  MOST_LANGUAGES,
  MOST_MARKS,
  MOST_SHAPES,
  MOST_SLIDES,
  MOST_SOUNDS_OF_A_SLIDE,
  SMALLEST_FRAME_PX,
} from './limits';
import { faultOfCaptions } from './caption';
import type { SongTagsById } from './song-tags';
import type { SlideId } from './ids';
import { everyLayer, type Layer } from './layer';
import { slidesNamedBy, type PlacedSound } from './placed-sound';
import { faultOfCorrection } from './shape';
import { faultOfRate } from '../timing/frame-rate';
import type { FrameShape, Show, Slide } from './show';
import { isReadable } from './readable';

/**
 * What is wrong with a show as a whole, as a sentence that can follow “because”; null when nothing is. Each value by itself is the schema's business
 * (`schemas/`); here is what values must be together: ids that differ, names that lead somewhere, counts, sums. What is asked of every edit's outcome is
 * asked of every document that is read, so that what was accepted can always be opened again.
 *
 * @param before what is known to be right: only what differs from it is looked at
 */
export function faultOfShow(show: Show, before: Show | null = null): string | null {
  return (
    (show.title === before?.title ? null : faultOfText('a show’s title', show.title, LONGEST_SHOW_TITLE)) ??
    (show.frame === before?.frame ? null : faultOfFrame(show.frame)) ??
    (show.slides === before?.slides ? null : faultOfSlides(show.slides, before?.slides ?? [])) ??
    (show.cues === before?.cues ? null : faultOfCues(show)) ??
    (show.cues === before?.cues && show.slides === before?.slides ? null : faultOfTies(show)) ??
    (show.marks === before?.marks || Object.keys(show.marks ?? {}).length <= MOST_MARKS
      ? null
      : `a show can have ${count(MOST_MARKS)} marks at most`) ??
    (show.clocks === before?.clocks || Object.keys(show.clocks ?? {}).length <= MOST_CAMERAS
      ? null
      : `the clocks of ${MOST_CAMERAS} cameras at most can be put right in a show`) ??
    (show.focus === before?.focus || Object.keys(show.focus ?? {}).length <= MOST_FOCUSED
      ? null
      : `it can be said of ${count(MOST_FOCUSED)} pictures at most what they are about`) ??
    (show.beats === before?.beats || Object.keys(show.beats ?? {}).length <= MOST_BEATS_SAID
      ? null
      : `it can be said of ${count(MOST_BEATS_SAID)} songs at most where their beats are`) ??
    (show.letBe === before?.letBe ? null : faultOfNotes(show.letBe, MOST_LEFT_AS_THEY_ARE, 'snags left as they are')) ??
    (show.licences === before?.licences ? null : faultOfNotes(show.licences, MOST_LICENCES, 'files with a licence')) ??
    (show.tags === before?.tags ? null : faultOfTags(show.tags)) ??
    (show.posters === before?.posters || Object.keys(show.posters ?? {}).length <= MOST_POSTERS
      ? null
      : `a frame can be chosen for ${count(MOST_POSTERS)} clips at most`)
  );
}

function faultOfTags(tags: SongTagsById = {}): string | null {
  const said = Object.values(tags);
  if (said.length > MOST_TAGGED) return `the tags of ${count(MOST_TAGGED)} songs at most can be mended in a show`;
  for (const song of said)
    for (const text of Object.values(song) as string[]) {
      const fault = faultOfText('what is said of a song', text, LONGEST_NAME);
      if (fault) return fault;
    }
  return null;
}

function faultOfNotes(notes: Readonly<Record<string, string>> = {}, most: number, what: string): string | null {
  const said = Object.values(notes);
  if (said.length > most) return `a show can have ${count(most)} ${what} at most`;
  for (const note of said) {
    const fault = faultOfText('what is noted', note, LONGEST_REASON);
    if (fault) return fault;
  }
  return null;
}

function faultOfFrame({ widthPx, heightPx, rate }: FrameShape): string | null {
  const [short, long] = [Math.min(widthPx, heightPx), Math.max(widthPx, heightPx)];
  if (short < SMALLEST_FRAME_PX || long > LARGEST_FRAME_PX)
    return `a frame’s sides must be ${SMALLEST_FRAME_PX} to ${LARGEST_FRAME_PX} pixels long`;
  return long / short > LONGEST_FRAME_SHAPE
    ? `a frame can be ${LONGEST_FRAME_SHAPE} times as long as it is wide at most`
    : faultOfRate(rate);
}

function faultOfSlides(slides: readonly Slide[], before: readonly Slide[]): string | null {
  if (slides.length > MOST_SLIDES) return `a show can have ${count(MOST_SLIDES)} slides at most`;
  if (slides.reduce((sum, slide) => sum + slide.lengthMs, 0) > LONGEST_SHOW_MS)
    return `a show can last ${LONGEST_SHOW_MS / 3_600_000} hours at most`;
  const changed = slides.filter((slide, index) => slide !== before[index]);
  if (changed.length === 0) return null;
  if (new Set(slides.map((slide) => slide.id)).size !== slides.length) return 'two slides have the same id';
  const known = new Set(before);
  for (const slide of changed) {
    const fault = known.has(slide) ? null : faultOfSlide(slide);
    if (fault) return fault;
  }
  return null;
}

/** What is wrong with a slide by itself; null when nothing is. */
export function faultOfSlide(slide: Slide): string | null {
  const { transition } = slide;
  const fault =
    faultOfLayers(slide.layers) ??
    (transition.kind === 'built' ? faultOfLayers(transition.layers) : null) ??
    faultOfSoundsOf(slide) ??
    faultOfSpoken(slide);
  if (fault) return fault;
  for (const layer of everyLayer(slide.layers)) {
    const faultOfOne =
      faultOfText('a layer’s name', layer.name ?? '', LONGEST_NAME) ??
      (layer.kind === 'words'
        ? (faultOfText('the first line of words', layer.title, LONGEST_WORDS_TITLE) ??
          faultOfText('the text below the first line', layer.subtitle, LONGEST_WORDS_SUBTITLE))
        : null);
    const faultHere = faultOfOne ?? faultOfShapes(layer);
    if (faultHere) return faultHere;
  }
  return faultOfMounted(slide);
}

/** What lies under a mount must be able to stand there again. */
function faultOfMounted({ mounted }: Slide): string | null {
  if (!mounted) return null;
  for (const below of mounted.before) {
    if (below.mounted) return 'a mount lies on slides, and not on another mount';
    const fault = faultOfSlide(below);
    if (fault) return fault;
  }
  return new Set(mounted.before.map(({ id }) => id)).size === mounted.before.length
    ? null
    : 'two slides under a mount have the same id';
}

function faultOfShapes(layer: Layer): string | null {
  const corrections = Object.values(layer.shapes ?? {});
  if (corrections.length > MOST_SHAPES) return `a layer can be corrected for ${MOST_SHAPES} shapes at most`;
  return corrections.reduce<string | null>((found, one) => found ?? faultOfCorrection(layer, one), null);
}

/** Its schema says the same of what comes from outside; here it is asked of every edit before that is sent, and said of the text by its name. */
function faultOfText(name: string, text: string, longest: number): string | null {
  if (text.length > longest) return `${name} can have ${count(longest)} letters at most`;
  return isReadable(text) ? null : `${name} holds characters that cannot be written`;
}

function faultOfCues({ cues }: Show): string | null {
  if (cues.length > MOST_CUES) return `a show can have ${MOST_CUES} songs at most`;
  if (cues.some((cue) => cue.starts.at === 'here')) return 'a sound of the show begins with no slide';
  return new Set(cues.map((cue) => cue.id)).size === cues.length ? null : 'two songs have the same id';
}

function faultOfSoundsOf({ sounds }: Slide): string | null {
  if (sounds.length > MOST_SOUNDS_OF_A_SLIDE) return `a slide can have ${MOST_SOUNDS_OF_A_SLIDE} sounds at most`;
  if (sounds.some((sound) => sound.starts.at !== 'here')) return 'a sound of a slide begins with that slide';
  return new Set(sounds.map((sound) => sound.id)).size === sounds.length ? null : 'two sounds have the same id';
}

function faultOfSpoken({ script, captions }: Slide): string | null {
  const languages = Object.entries(captions ?? {});
  if (languages.length > MOST_LANGUAGES) return `captions can be had in ${MOST_LANGUAGES} languages at most`;
  for (const [, list] of languages) {
    const fault =
      (list.length > MOST_CAPTIONS ? `a slide can have ${count(MOST_CAPTIONS)} captions at most` : null) ??
      faultOfCaptions(list) ??
      list.reduce<string | null>((found, { text }) => found ?? faultOfText('a caption', text, LONGEST_CAPTION), null);
    if (fault) return fault;
  }
  return faultOfText('what is spoken on a slide', script ?? '', LONGEST_SCRIPT);
}

/** Sounds may be tied to slides that are there. */
function faultOfTies(show: Show): string | null {
  const there = new Set<SlideId>(show.slides.map((slide) => slide.id));
  const tied = (sounds: readonly PlacedSound[]) => sounds.flatMap(slidesNamedBy);
  const missing =
    tied(show.cues).find((id) => !there.has(id)) ??
    show.slides.flatMap((slide) => (slide.sounds.length > 0 ? tied(slide.sounds) : [])).find((id) => !there.has(id));
  return missing === undefined ? null : `a sound is tied to slide ${missing}, which is not in the show`;
}

function count(number: number): string {
  return number.toLocaleString('en');
}
