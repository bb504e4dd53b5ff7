import {
  ID,
  HASH,
  list,
  maybe,
  object,
  oneOf,
  orNull,
  record,
  text,
  whole,
  truth,
  type Schema,
} from '../schema/schema';
import { LONGEST_SHOW_TITLE } from '../show/limits';
import { STANDARD_NAMES, type StandardName } from './disc-standard';

/** So many films are on one disc at most. */
export const MOST_FILMS = 20;
export const LONGEST_MENU_MS = 60_000;
export const SHORTEST_MENU_MS = 6000;

/** What a menu says beside titles; it can be said in the language of those who watch. */
export const MENU_WORDS = {
  play: 'Play',
  playAll: 'Play all',
  films: 'Films',
  scenes: 'Scenes',
  start: 'Start',
  back: 'Back',
  on: 'More',
} as const;
export type MenuWord = keyof typeof MENU_WORDS;
export const MENU_WORD_NAMES = Object.keys(MENU_WORDS) as MenuWord[];

export const CHAPTERS_BY = ['titles', 'slides', 'none'] as const;
export const BUTTON_PLACES = ['right', 'left', 'below'] as const;
export type ButtonPlace = (typeof BUTTON_PLACES)[number];

/** A film on the disc: a show, as it is when the disc is made. */
export interface DiscEntry {
  readonly showId: string;
  /** As the menu calls it; empty: as the show is called. */
  readonly title: string;
}

/** How the menu looks and sounds. */
export interface MenuSaid {
  /** A mount of one slide, by id: what moves behind the first page. */
  readonly mount: string;
  readonly buttons: ButtonPlace;
  /** A song of the first show, by the hash of its file; null: the menu is silent. */
  readonly song: string | null;
  /** How long a page moves before it begins again. */
  readonly lengthMs: number;
  /** Pictures of its pages move. */
  readonly moves: boolean;
  /** Words that are said otherwise than in `MENU_WORDS`. */
  readonly says: Readonly<Partial<Record<MenuWord, string>>>;
}

/** All that is asked of a disc. */
export interface DiscPlan {
  readonly title: string;
  /** Below the title: on the menu and on the label. */
  readonly words: string;
  readonly films: readonly DiscEntry[];
  readonly standard: StandardName;
  readonly shape: '16:9' | '4:3';
  readonly layers: 1 | 2;
  /** What a player shows when the disc is put in. */
  readonly begins: 'menu' | 'film';
  /** What follows the last film, or one that was chosen by itself. */
  readonly afterwards: 'menu' | 'again';
  readonly chaptersBy: (typeof CHAPTERS_BY)[number];
  readonly menu: MenuSaid;
}

/** What of a disc is to be otherwise. */
export type DiscChange = Partial<Omit<DiscPlan, 'menu'>> & { readonly menu?: Partial<MenuSaid> };

const WORDS = record(text(20, 1), text(40), MENU_WORD_NAMES.length);

export const DISC_CHANGE: Schema = object<DiscChange>({
  title: maybe(text(LONGEST_SHOW_TITLE, 1)),
  words: maybe(text(LONGEST_SHOW_TITLE)),
  films: maybe(list(object<DiscEntry>({ showId: ID, title: text(LONGEST_SHOW_TITLE) }), MOST_FILMS)),
  standard: maybe(oneOf(STANDARD_NAMES)),
  shape: maybe(oneOf(['16:9', '4:3'])),
  layers: maybe(whole(1, 2)),
  begins: maybe(oneOf(['menu', 'film'])),
  afterwards: maybe(oneOf(['menu', 'again'])),
  chaptersBy: maybe(oneOf(CHAPTERS_BY)),
  menu: maybe(
    object<Partial<MenuSaid>>({
      mount: maybe(text(100, 1)),
      buttons: maybe(oneOf(BUTTON_PLACES)),
      song: maybe(orNull(HASH)),
      lengthMs: maybe(whole(SHORTEST_MENU_MS, LONGEST_MENU_MS)),
      moves: maybe(truth),
      says: maybe(WORDS),
    }),
  ),
});

/** A disc of one show, as it is offered. @param song its first one, if it has any */
export function usualDisc(title: string, showId: string, shape: '16:9' | '4:3', song: string | null): DiscPlan {
  return {
    title,
    words: '',
    films: [{ showId, title: '' }],
    standard: 'pal',
    shape,
    layers: 1,
    begins: 'menu',
    afterwards: 'menu',
    chaptersBy: 'titles',
    menu: { mount: 'low-sun', buttons: 'right', song, lengthMs: 24_000, moves: true, says: {} },
  };
}

export function changedDisc(plan: DiscPlan, { menu, ...change }: DiscChange): DiscPlan {
  return { ...plan, ...change, menu: { ...plan.menu, ...menu } };
}

/** Why a disc cannot be so, as a sentence; null when it can. */
export function faultOfPlan({ title, films, menu }: DiscPlan): string | null {
  if (title.trim() === '') return 'A disc needs a title.';
  if (new Set(films.map(({ showId }) => showId)).size < films.length) return 'That show is on the disc already.';
  const strange = Object.keys(menu.says).find((name) => !Object.hasOwn(MENU_WORDS, name));
  return strange === undefined ? null : `A menu has no words called “${strange}”.`;
}

/** What a menu says somewhere. */
export function menuWord({ says }: MenuSaid, word: MenuWord): string {
  return says[word]?.trim() || MENU_WORDS[word];
}
