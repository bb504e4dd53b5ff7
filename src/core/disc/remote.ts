import { unreachable } from '../unreachable';
import type { DiscPlan } from './disc-plan';
import type { ButtonDoes, MenuPage } from './menu-pages';

/** Keys of a player's remote. `ends`: nobody presses anything until the film, or the menu's round, is over. */
export const REMOTE_KEYS = ['up', 'down', 'left', 'right', 'press', 'menu', 'next', 'previous', 'ends'] as const;
export type RemoteKey = (typeof REMOTE_KEYS)[number];

/** Where a player is. Everything by its index. */
export type PlayerPlace =
  | { readonly at: 'menu'; readonly page: number; readonly button: number }
  | { readonly at: 'film'; readonly film: number; readonly chapter: number; readonly all: boolean };

/** A disc as a player knows it. */
export interface PlayedDisc {
  readonly plan: Pick<DiscPlan, 'begins' | 'afterwards'>;
  readonly films: readonly { readonly chapters: readonly unknown[] }[];
  readonly pages: readonly MenuPage[];
}

const pageAt = ({ pages }: PlayedDisc, page: number): PlayerPlace => ({
  at: 'menu',
  page,
  button: pages[page]!.chosen,
});

/** What a player shows when the disc is put in. */
export function begun(disc: PlayedDisc): PlayerPlace {
  return disc.plan.begins === 'menu' ? pageAt(disc, 0) : { at: 'film', film: 0, chapter: 0, all: true };
}

/** Where a key of the remote leads. */
export function pressed(disc: PlayedDisc, place: PlayerPlace, key: RemoteKey): PlayerPlace {
  if (place.at === 'menu') {
    const button = disc.pages[place.page]!.buttons[place.button]!;
    switch (key) {
      case 'up':
      case 'down':
      case 'left':
      case 'right':
        return { ...place, button: button[key] };
      case 'press':
        return done(disc, button.does);
      case 'menu':
        return pageAt(disc, 0);
      case 'next':
      case 'previous':
      case 'ends':
        return place;
      default:
        return unreachable(key);
    }
  }
  const { chapters } = disc.films[place.film]!;
  switch (key) {
    case 'menu':
      return pageAt(disc, 0);
    case 'next':
      return place.chapter + 1 < chapters.length ? { ...place, chapter: place.chapter + 1 } : place;
    case 'previous':
      return { ...place, chapter: Math.max(0, place.chapter - 1) };
    case 'ends':
      return afterFilm(disc, place);
    case 'up':
    case 'down':
    case 'left':
    case 'right':
    case 'press':
      return place;
    default:
      return unreachable(key);
  }
}

function done(disc: PlayedDisc, does: ButtonDoes): PlayerPlace {
  switch (does.kind) {
    case 'play-all':
      return { at: 'film', film: 0, chapter: 0, all: true };
    case 'play':
      return { at: 'film', film: does.film, chapter: does.chapter, all: disc.films.length === 1 };
    case 'page':
      return pageAt(disc, does.page);
    default:
      return unreachable(does);
  }
}

/** The next one where all are played, and from the last to the first where they go on again; a film that was chosen by itself is over then, or begins again. */
function afterFilm(disc: PlayedDisc, { film, all }: Extract<PlayerPlace, { at: 'film' }>): PlayerPlace {
  const next = film + 1;
  if (all && next < disc.films.length) return { at: 'film', film: next, chapter: 0, all };
  if (disc.plan.afterwards === 'menu') return pageAt(disc, 0);
  return { at: 'film', film: all ? 0 : film, chapter: 0, all };
}
