import type { PreparedShow } from '../frame/plan-frame';
import { picturesOf } from '../show/layout';
import type { SlideId } from '../show/ids';
import { wordsOf, type Slide } from '../show/show';
import { framesPerSecond } from '../timing/frame-rate';
import { frameCount, frameSeen, momentOfFrame } from '../timing/frames';
import type { DiscPlan } from './disc-plan';
import { filledSlide } from '../words/fields';
import { MOST_CHAPTERS } from './disc-standard';

/** A place of a film that a player jumps to. */
export interface DiscChapter {
  readonly title: string;
  readonly startFrame: number;
  /** The slide whose picture stands for it. */
  readonly slideId: SlideId;
}

/** A film as a disc has it. */
export interface DiscFilm {
  readonly showId: string;
  readonly title: string;
  readonly frameCount: number;
  readonly lengthMs: number;
  /** The first begins with the film; one at least. */
  readonly chapters: readonly DiscChapter[];
  /** What came out otherwise than one might think. */
  readonly told: readonly string[];
}

/** Chapters that follow each other faster are one: a player's button could not be pressed so often, and a disc has a whole picture every half second. */
const SHORTEST_CHAPTER_SECONDS = 1;

/**
 * A film's chapters as a disc can have them.
 *
 * @param prepared in the disc's shape and at its rate
 * @param title as the menu calls it
 */
export function discFilm(prepared: PreparedShow, showId: string, title: string, by: DiscPlan['chaptersBy']): DiscFilm {
  const { show, lengthMs } = prepared;
  const { rate } = show.frame;
  const count = frameCount(lengthMs, rate);
  const told: string[] = [];
  const starts = by === 'none' ? [] : startsOf(prepared, by);
  const least = Math.ceil(SHORTEST_CHAPTER_SECONDS * framesPerSecond(rate));
  const apart: DiscChapter[] = [];
  for (const chapter of starts) {
    const before = apart.at(-1);
    if (before && chapter.startFrame - before.startFrame < least) continue;
    if (count - chapter.startFrame < least && before) continue;
    apart.push(chapter);
  }
  if (apart.length < starts.length)
    told.push(
      `${starts.length - apart.length} chapters of “${title}” begin within a second of the one before, or of the end, and are part of what comes before.`,
    );
  const first = apart[0];
  const opening: DiscChapter = { title, startFrame: 0, slideId: show.slides[0]!.id };
  const all = first && first.startFrame === 0 ? apart : [opening, ...apart];
  const chapters = thinned(all);
  if (chapters.length < all.length)
    told.push(
      `“${title}” has ${all.length} chapters, and a disc holds ${MOST_CHAPTERS} of a film: every ${ordinal(Math.ceil(all.length / MOST_CHAPTERS))} is on it.`,
    );
  return { showId, title, frameCount: count, lengthMs: momentOfFrame(count, rate), chapters, told };
}

function startsOf({ show, facts, seenFromMs }: PreparedShow, by: 'titles' | 'slides'): DiscChapter[] {
  const { rate } = show.frame;
  return show.slides.flatMap((slide, index) => {
    if (by === 'titles' && slide.chapter === undefined) return [];
    if (by === 'slides' && picturesOf(slide).length === 0) return [];
    const title =
      slide.chapter ??
      (wordsOf(filledSlide(show, facts, index))
        ?.title.split('\n')[0]!
        .trim() ||
        String(index + 1));
    const startFrame = index === 0 ? 0 : frameSeen(seenFromMs[index]!, rate);
    return [{ title, startFrame, slideId: pictureNear(show.slides, index).id }];
  });
}

/** The slide itself, or the next one of its chapter that shows a picture. */
function pictureNear(slides: readonly Slide[], index: number): Slide {
  for (let at = index; at < slides.length; at += 1) {
    if (at > index && slides[at]!.chapter !== undefined) break;
    if (picturesOf(slides[at]!).length > 0) return slides[at]!;
  }
  return slides[index]!;
}

/** No more than a disc holds, as evenly as they come. */
function thinned(chapters: readonly DiscChapter[]): readonly DiscChapter[] {
  const every = Math.ceil(chapters.length / MOST_CHAPTERS);
  return every <= 1 ? chapters : chapters.filter((_, index) => index % every === 0);
}

const ordinal = (count: number) => (count === 2 ? 'second' : count === 3 ? 'third' : `${count}th`);

/**
 * The frames that must be whole pictures so that each chapter begins with one: the chapters' own, and the two or three before them, spread so that no group is
 * shorter than authoring takes (four tenths of a second) nor longer than the standard allows.
 *
 * @param most frames from one whole picture to the next
 */
export function wholePictures(starts: readonly number[], most: number): number[] {
  const forced: number[] = [];
  let before = 0;
  for (const start of starts) {
    if (start === 0) continue;
    const gap = start - before;
    const groups = Math.ceil(gap / most);
    // All but the last three groups are as long as they may be; what is left is shared among those.
    const last = Math.min(3, groups);
    const from = start - (gap - (groups - last) * most);
    for (let group = groups === last ? 1 : 0; group < last; group += 1)
      forced.push(from + Math.round((group * (start - from)) / last));
    forced.push(start);
    before = start;
  }
  return [...new Set(forced)].sort((one, other) => one - other);
}
