import { ID, later, list, maybe, object, oneOf, record, text, whole, type Schema } from '../schema/schema';
import type { CueId, LayerId, SlideId } from './ids';
import { LONGEST_NAME, LONGEST_WORDS_SUBTITLE, MOST_CUES, MOST_LAYERS, MOST_SLIDES } from './limits';
import type { Slide } from './show';

/** What a slide is part of that was laid by a mount, and what it stands for: taken off, `before` stands there again. */
export interface Mounted {
  /** The slides laid at one time, as one run, have the same. */
  readonly run: string;
  readonly mount: { readonly id: string; readonly name: string };
  /** Which of its fits. */
  readonly fit: string;
  /** The slides whose pictures it took, as they were; none for one that carries words only. */
  readonly before: readonly Slide[];
  /** Sounds that began or ended with one of those. */
  readonly ties?: readonly Tie[];
  /** Its words that are there to be filled. */
  readonly words?: readonly MountedWords[];
  /** What they were given, by name; it goes along when another mount takes its place. */
  readonly said?: Readonly<Record<string, string>>;
  /** Which picture of the run went to which window, counted from 0; on its first slide. Null: left empty. */
  readonly filled?: readonly (number | null)[];
  /** What it looked like when it was laid, as a short sum: a slide that differs was changed by hand. */
  readonly sum: string;
  /** The look of the whole show laid it, as this; it goes when that goes. */
  readonly role?: MountRole;
}

export type MountRole = 'opener' | 'chapter' | 'closer' | 'several';
export const MOUNT_ROLES: readonly MountRole[] = ['opener', 'chapter', 'closer', 'several'];

export interface Tie {
  readonly soundId: CueId;
  readonly part: 'starts' | 'ends';
  readonly slideId: SlideId;
}

/** A field of the form in which a mount's words are changed. */
export interface MountedWords {
  readonly layerId: LayerId;
  readonly part: 'title' | 'subtitle';
  readonly name: string;
}

const NAME = text(LONGEST_NAME, 1);

/** @param slide what a slide may look like */
export const mountedSchema = (slide: () => Schema): Schema =>
  object<Mounted>({
    run: ID,
    mount: object<Mounted['mount']>({ id: text(LONGEST_NAME, 1), name: NAME }),
    fit: NAME,
    before: list(later(slide), MOST_SLIDES),
    ties: maybe(list(object<Tie>({ soundId: ID, part: oneOf(['starts', 'ends']), slideId: ID }), 2 * MOST_CUES, 1)),
    words: maybe(
      list(object<MountedWords>({ layerId: ID, part: oneOf(['title', 'subtitle']), name: NAME }), 2 * MOST_LAYERS, 1),
    ),
    said: maybe(record(NAME, text(LONGEST_WORDS_SUBTITLE), 2 * MOST_LAYERS, 1)),
    filled: maybe(list({ is: 'or-null', of: whole(0, MOST_LAYERS) }, MOST_LAYERS, 1)),
    sum: text(16, 1),
    role: maybe(oneOf(MOUNT_ROLES)),
  });

/** The slides that lie under others, as they were before a mount was laid. */
export function slidesBelow(slides: readonly Slide[]): Slide[] {
  return slides.flatMap((slide) => slide.mounted?.before ?? []);
}
