import type { DiscFilm } from './disc-chapters';
import { menuWord, type ButtonPlace, type DiscPlan } from './disc-plan';

/** What happens when a button is pressed. Films, chapters and pages by their index. */
export type ButtonDoes =
  | { readonly kind: 'play-all' }
  | { readonly kind: 'play'; readonly film: number; readonly chapter: number }
  | { readonly kind: 'page'; readonly page: number };

/** Where something stands in the frame, in shares of it. */
export interface Place {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

export interface MenuButton {
  readonly label: string;
  readonly does: ButtonDoes;
  readonly place: Place;
  /** `picture`: the label stands below a picture. */
  readonly shows: 'words' | 'picture';
  /** Of pictures: the slide it is of, in which film. */
  readonly of: { readonly film: number; readonly chapter: number } | null;
  /** Which button the keys of a remote lead to, by index. */
  readonly up: number;
  readonly down: number;
  readonly left: number;
  readonly right: number;
}

export interface MenuPage {
  readonly kind: 'first' | 'pictures';
  readonly title: string;
  readonly buttons: readonly MenuButton[];
  /** The button that is chosen when the page comes. */
  readonly chosen: number;
}

/** Pictures on one page. */
const ON_A_PAGE = 6;
/** On the first page, films by name; more of them get pages of their own. */
const NAMED_FILMS = 3;
/** Older televisions show about nine tenths of what is sent. */
const SAFE = 0.06;

type Draft = Omit<MenuButton, 'up' | 'down' | 'left' | 'right' | 'place'>;

/** The pages of a disc's menu, with what each button does and where a remote's keys lead. The first one is the page the disc begins with. */
export function menuPages(plan: DiscPlan, films: readonly DiscFilm[]): MenuPage[] {
  const { menu } = plan;
  const several = films.length > 1;
  const named = several && films.length <= NAMED_FILMS && menu.buttons !== 'below';
  const hasFilms = several && !named;
  const scened = films.filter(({ chapters }) => chapters.length > 1);
  const filmPages = hasFilms ? chunks(films.length) : [];
  const scenePages = films.flatMap(({ chapters }, film) =>
    chapters.length > 1 ? chunks(chapters.length).map((chunk) => ({ ...chunk, film })) : [],
  );
  const firstFilmPage = 1;
  const firstScenePage = 1 + filmPages.length;
  const first: Draft[] = [
    several
      ? words(menuWord(menu, 'playAll'), { kind: 'play-all' })
      : words(menuWord(menu, 'play'), { kind: 'play', film: 0, chapter: 0 }),
    ...(named ? films.map(({ title }, film) => words(title, { kind: 'play', film, chapter: 0 })) : []),
    ...(hasFilms ? [words(menuWord(menu, 'films'), { kind: 'page', page: firstFilmPage })] : []),
    ...(scened.length > 0 ? [words(menuWord(menu, 'scenes'), { kind: 'page', page: firstScenePage })] : []),
  ];
  const page = (
    index: number,
    from: number,
    count: number,
    title: string,
    entries: readonly Draft[],
    film: number | null,
  ): MenuPage => {
    // The first scenes of a film are reached from the last ones of the film before: “More” goes through them all.
    const isFirst = index === from;
    const isLast = index === from + count - 1;
    const steps = [
      ...(isFirst ? [] : [words(menuWord(menu, 'back'), { kind: 'page' as const, page: index - 1 })]),
      words(menuWord(menu, 'start'), { kind: 'page', page: 0 }),
      ...(isLast ? [] : [words(menuWord(menu, 'on'), { kind: 'page' as const, page: index + 1 })]),
    ];
    const drafts = [...entries, ...steps];
    const places = [...pictureGrid(entries.length), ...row(steps.length, 0.86, 0.935, 0.19)];
    return {
      kind: 'pictures',
      title: film === null ? title : several ? films[film]!.title : title,
      buttons: led(drafts.map((draft, at) => ({ ...draft, place: places[at]! }))),
      chosen: 0,
    };
  };
  return [
    {
      kind: 'first',
      title: plan.title,
      buttons: led(first.map((draft, at) => ({ ...draft, place: firstPlaces(menu.buttons, first.length)[at]! }))),
      chosen: 0,
    },
    ...filmPages.map(({ from, to }, at) =>
      page(
        firstFilmPage + at,
        firstFilmPage,
        filmPages.length,
        menuWord(menu, 'films'),
        films.slice(from, to).map(({ title }, index): Draft => ({
          label: title,
          does: { kind: 'play', film: from + index, chapter: 0 },
          shows: 'picture',
          of: { film: from + index, chapter: 0 },
        })),
        null,
      ),
    ),
    ...scenePages.map(({ from, to, film }, at) =>
      page(
        firstScenePage + at,
        firstScenePage,
        scenePages.length,
        menuWord(menu, 'scenes'),
        films[film]!.chapters.slice(from, to).map(({ title }, index): Draft => ({
          label: title,
          does: { kind: 'play', film, chapter: from + index },
          shows: 'picture',
          of: { film, chapter: from + index },
        })),
        film,
      ),
    ),
  ];
}

const words = (label: string, does: ButtonDoes): Draft => ({ label, does, shows: 'words', of: null });

function chunks(count: number): { readonly from: number; readonly to: number }[] {
  const pages = Math.ceil(count / ON_A_PAGE);
  return Array.from({ length: pages }, (_, index) => ({
    from: index * ON_A_PAGE,
    to: Math.min(count, (index + 1) * ON_A_PAGE),
  }));
}

/** How wide the column of buttons on the first page is: what moves has the rest. */
export const COLUMN_WIDTH = 0.36;
/** And how tall the row is. */
export const ROW_HEIGHT = 0.2;
const BUTTON_HEIGHT = 0.105;
const BUTTON_GAP = 0.03;

function firstPlaces(where: ButtonPlace, count: number): Place[] {
  if (where === 'below') return row(count, 1 - ROW_HEIGHT + 0.035, 1 - SAFE, 0.28);
  const height = count * BUTTON_HEIGHT + (count - 1) * BUTTON_GAP;
  const [left, right] = where === 'right' ? [1 - COLUMN_WIDTH + 0.03, 1 - SAFE] : [SAFE, COLUMN_WIDTH - 0.03];
  return Array.from({ length: count }, (_, index) => {
    const top = 0.5 - height / 2 + index * (BUTTON_HEIGHT + BUTTON_GAP);
    return { left, right, top, bottom: top + BUTTON_HEIGHT };
  });
}

/** Beside each other from the left. */
function row(count: number, top: number, bottom: number, widest: number): Place[] {
  const gap = 0.03;
  const width = Math.min(widest, (1 - 2 * SAFE - (count - 1) * gap) / count);
  const left = SAFE;
  return Array.from({ length: count }, (_, index) => ({
    left: left + index * (width + gap),
    right: left + index * (width + gap) + width,
    top,
    bottom,
  }));
}

const GRID = { top: 0.185, bottom: 0.83, gapX: 0.035, gapY: 0.035 };
/** Of a cell, what its label takes. */
export const LABEL_SHARE = 0.24;

/** Pictures with a line of words below each: one row of up to three, else two. */
function pictureGrid(count: number): Place[] {
  const rows = count > 3 ? 2 : 1;
  const columns = rows === 2 ? 3 : Math.max(2, count);
  const width = (1 - 2 * SAFE - (columns - 1) * GRID.gapX) / columns;
  const height = rows === 2 ? (GRID.bottom - GRID.top - GRID.gapY) / 2 : Math.min(0.46, width * 1.25);
  const top = rows === 2 ? GRID.top : (GRID.top + GRID.bottom) / 2 - height / 2;
  return Array.from({ length: count }, (_, index) => {
    const [line, column] = [Math.floor(index / columns), index % columns];
    const inLine = Math.min(columns, count - line * columns);
    const from = 0.5 - (inLine * width + (inLine - 1) * GRID.gapX) / 2;
    const left = rows === 2 ? SAFE + column * (width + GRID.gapX) : from + column * (width + GRID.gapX);
    const at = top + line * (height + GRID.gapY);
    return { left, right: left + width, top: at, bottom: at + height };
  });
}

type Placed = Omit<MenuButton, 'up' | 'down' | 'left' | 'right'>;

/** Each key leads to the nearest button that way; where there is none, round to the other end. */
function led(buttons: readonly Placed[]): MenuButton[] {
  const middle = ({ place }: Placed) => ({
    x: (place.left + place.right) / 2,
    y: (place.top + place.bottom) / 2,
  });
  const towards = (from: number, across: -1 | 0 | 1, down: -1 | 0 | 1): number => {
    const here = middle(buttons[from]!);
    let [best, least] = [from, Infinity];
    let [farthest, most] = [from, -Infinity];
    buttons.forEach((button, index) => {
      if (index === from) return;
      const there = middle(button);
      const along = across * (there.x - here.x) + down * (there.y - here.y);
      const aside = Math.abs(across === 0 ? there.x - here.x : there.y - here.y);
      if (along > 0.02) {
        // What lies straight ahead comes before what is nearer but aside; keys across stay in their line.
        if (across !== 0 && aside > 0.1) return;
        const far = along + aside * 1.5;
        if (far < least) [best, least] = [index, far];
      } else if (along < -0.02) {
        if (across !== 0 && aside > 0.1) return;
        const back = -along - aside * 1.5;
        if (back > most) [farthest, most] = [index, back];
      }
    });
    return least < Infinity ? best : farthest;
  };
  return buttons.map((button, index) => ({
    ...button,
    up: towards(index, 0, -1),
    down: towards(index, 0, 1),
    left: towards(index, -1, 0),
    right: towards(index, 1, 0),
  }));
}
