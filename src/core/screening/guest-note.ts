import type { SlideId } from '../show/ids';

/** What a viewer wrote at a moment of a film, and what was answered. */
export interface GuestNote {
  readonly id: string;
  /** Of answers: the note they are given to. */
  readonly replyTo: string | null;
  /** Of the film, in milliseconds. */
  readonly atMs: number;
  /** A wish is something to be changed. */
  readonly kind: 'note' | 'wish';
  readonly by: 'guest' | 'studio';
  readonly name: string;
  readonly words: string;
  readonly createdAt: number;
}

/** `held`: seen by the studio alone until it lets it in; `hidden`: taken out by the studio. */
export type NoteState = 'open' | 'done' | 'hidden' | 'held';

/** A note as the studio sees it. */
export interface KeptNote extends GuestNote {
  readonly screeningId: string;
  readonly state: NoteState;
  /** What the film showed then; null when that is not known any more. */
  readonly slideId: SlideId | null;
  /** The slides before it then, nearest first. */
  readonly before: readonly SlideId[];
}

export const LONGEST_NOTE = 1000;
export const LONGEST_GUEST_NAME = 60;

/** So many slides before the one noted are remembered: where the note stands when the slide and those nearest to it are gone. */
export const MOST_BEFORE = 60;

/** Addresses: with a scheme, with www, or a name with a common ending and what may follow it. */
const LINK =
  /(?:[a-z][a-z0-9+.-]*:\/\/|www\.)\S|\b[\w-]+\.(?:com|net|org|info|biz|shop|xyz|top|site|online|ru|cn|io|co)\b|\[url|<a\s/i;

/** Whether words hold an address: such notes are held back until the studio lets them in, since most spam wants to be clicked. */
export function holdsLink(words: string): boolean {
  return LINK.test(words);
}

/** Where the notes of a guest book stand in a running order as it is now. */
export interface NotePlaces {
  /** By slide: what was written at it, wherever it was moved. */
  readonly on: ReadonlyMap<SlideId | null, readonly KeptNote[]>;
  /** By the slide they come after, since their own is gone; null for the beginning of the show. */
  readonly after: ReadonlyMap<SlideId | null, readonly KeptNote[]>;
}

/** @param notes without answers; those whose slide was never known stand at the beginning */
export function placesOfNotes(slides: readonly { readonly id: SlideId }[], notes: readonly KeptNote[]): NotePlaces {
  const there = new Set(slides.map(({ id }) => id));
  const on = new Map<SlideId | null, KeptNote[]>();
  const after = new Map<SlideId | null, KeptNote[]>();
  for (const note of notes) {
    if (note.replyTo !== null) continue;
    const own = note.slideId !== null && there.has(note.slideId);
    const places = own ? on : after;
    const at = own ? note.slideId : (note.before.find((id) => there.has(id)) ?? null);
    places.set(at, [...(places.get(at) ?? []), note]);
  }
  return { on, after };
}
