import { seenInShape } from '../builds/in-shape';
import { stageOf, edges, form, picture, plain, shipped, slide as designed, words, type Stage } from '../mounts/design';
import { groundOf, withMount, type LayMount } from '../mounts/lay-mount';
import { takesOf, type Look, type Mount, type MountFit } from '../mounts/mount';
import { PLAIN_LOOK } from '../mounts/plain-look';
import { contrast } from '../light/contrast';
import { screeningLook, type ScreeningLook } from '../screening/screening-look';
import type { FactsById } from '../show/asset-facts';
import { assetId, cueId, showId, slideId } from '../show/ids';
import type { Layer } from '../show/layer';
import { picturesOf } from '../show/layout';
import { mapped } from '../show/pile';
import { songAfter } from '../show/placed-sound';
import type { Show, Slide } from '../show/show';
import type { DiscFilm } from './disc-chapters';
import { drawnSize, STANDARDS } from './disc-standard';
import type { DiscPlan } from './disc-plan';
import { asCard, inPlace, isSimpleDesign, sizeOfPlace } from './placed-design';
import { COLUMN_WIDTH, LABEL_SHARE, ROW_HEIGHT, type MenuButton, type MenuPage, type Place } from './menu-pages';

/** What pages of a menu are designed from. */
export interface MenuGround {
  readonly plan: DiscPlan;
  readonly films: readonly DiscFilm[];
  /** The shows of the films, in their order. */
  readonly shows: readonly Show[];
  readonly facts: FactsById;
  /** What moves behind the first page. */
  readonly mount: Mount;
  readonly studio: LayMount['studio'];
}

/** A page as it is drawn: a show of one slide. */
export type PageShow =
  | {
      readonly ok: true;
      readonly show: Show;
      /** What is lit. */
      readonly colours: MenuColours;
      /** From where it goes round. */
      readonly roundMs: number;
      /** How long the page is, with what is seen once. */
      readonly lengthMs: number;
    }
  | { readonly ok: false; readonly sentence: string };

export interface MenuColours {
  readonly chosen: string;
  readonly pressed: string;
}

/** Televisions are looked at from afar. */
const LIT_CONTRAST = 4.5;

/** What is lit on the pages of a menu in the plumage of a show: its accent where that stands out, else the letters' own colour. */
export function menuColours(first: Show | undefined): MenuColours {
  const { accent, letters, ground } = screeningLook((first?.plumage?.is ?? PLAIN_LOOK).palette);
  const stands = contrast(accent, ground) >= LIT_CONTRAST;
  return stands ? { chosen: accent, pressed: letters } : { chosen: letters, pressed: accent };
}

/** What is seen once, before a page goes round: on the first one words come. */
const COMES_MS = 4000;
/** A page that goes round gives way to its own beginning so slowly. */
export const SEAM_MS = 1000;
const LONGEST_PICTURES_MS = 12_000;

/** How long a page is, and from where it goes round. */
export function pageTimes({ menu }: DiscPlan, page: MenuPage): { readonly lengthMs: number; readonly roundMs: number } {
  const roundMs = page.kind === 'first' ? COMES_MS : SEAM_MS;
  const round = page.kind === 'first' ? menu.lengthMs : Math.min(menu.lengthMs, LONGEST_PICTURES_MS);
  return { lengthMs: roundMs + round, roundMs };
}

/** A page of the menu in the plumage of the first show: its pictures and words laid as a mount lays them, its buttons over them. */
export function pageShow(ground: MenuGround, page: MenuPage): PageShow {
  const { plan } = ground;
  const all = together(ground);
  const look: Look = ground.shows[0]?.plumage?.is ?? PLAIN_LOOK;
  const colours = screeningLook(look.palette);
  const stage = stageOf(all.frame, look);
  const made =
    page.kind === 'first'
      ? firstPage(ground, all, page, stage, colours)
      : picturePage(ground, all, page, stage, colours);
  if (!made.ok) return made;
  const { lengthMs, roundMs } = pageTimes(plan, page);
  const layers = mapped(made.slide.layers, (layer) => quiet(plan.menu.moves ? layer : unmoved(layer)));
  const {
    chapter: _chapter,
    script: _script,
    captions: _captions,
    waits: _waits,
    mounted: _mounted,
    ...bare
  } = made.slide;
  const slide: Slide = { ...bare, layers, lengthMs, transition: { kind: 'cut' }, sounds: [] };
  const { captionLook: _look, watermark: _mark, pace: _pace, ...rest } = all;
  const cues = plan.menu.song
    ? [{ ...songAfter(cueId('menu'), assetId(plan.menu.song), 0), loops: true as const, gainDb: -3 }]
    : [];
  return {
    ok: true,
    show: { ...rest, title: plan.title, slides: [slide], cues },
    colours: menuColours(ground.shows[0]),
    lengthMs,
    roundMs,
  };
}

/** The slides of all films in one show, in the disc's shape, so that a page can show pictures of any. */
export function together({ plan, shows, facts }: MenuGround): Show {
  const [first] = shows;
  const shaped = shows.map((show) => seenInShape(show, facts, plan.shape));
  return {
    ...first!,
    id: showId('menu'),
    frame: { ...drawnSize(plan.standard, plan.shape), rate: STANDARDS[plan.standard].rate },
    focus: Object.assign({}, ...shows.map(({ focus }) => focus ?? {})) as NonNullable<Show['focus']>,
    slides: shaped.flatMap(({ slides }, film) => slides.map((slide) => ({ ...slide, id: idIn(film, slide.id) }))),
  };
}

/** A show's own id of a slide among those of all films. */
export const idIn = (film: number, id: string) => slideId(`${film}-${id}`.slice(0, 40));

type PageSlide = { readonly ok: true; readonly slide: Slide } | { readonly ok: false; readonly sentence: string };

export function laid(
  all: Show,
  { facts, studio }: MenuGround,
  mount: Mount,
  fit: MountFit,
  look: Look,
  chosen: readonly Slide[],
  filled: (subjects: readonly { readonly slide: Slide }[]) => readonly (number | null)[],
  said: Readonly<Record<string, string>> = {},
): PageSlide {
  let counted = 0;
  const newId = () => `menu-${(counted += 1)}`;
  const ground = groundOf(
    all,
    chosen.map(({ id }) => id),
    newId,
  );
  const run = { fit, filled: filled(ground.subjects) };
  const done = withMount(ground, { mount, look, facts, studio, dealt: { runs: [run], left: [] }, said, newId });
  if (!done.ok) return done;
  const slide = done.show.slides.find(({ id }) => id === done.slideIds[0]);
  return slide ? { ok: true, slide } : { ok: false, sentence: `“${mount.name}” could not be laid.` };
}

/** The fit of a mount that a menu has: of one slide, with as many pictures as there are for it; null when there is none. */
export function menuFit(
  mount: Mount,
  frame: Pick<Show['frame'], 'widthPx' | 'heightPx'>,
  look: Look,
  pictures: number,
): MountFit | null {
  const usable = mount.fits(frame, look).filter((fit) => fit.slides.length === 1 && takesOf(fit) <= pictures);
  return usable.toSorted((one, other) => takesOf(other) - takesOf(one))[0] ?? null;
}

function firstPage(ground: MenuGround, all: Show, page: MenuPage, stage: Stage, colours: ScreeningLook): PageSlide {
  const { mount, plan } = ground;
  const free = freePlace(plan);
  const pictured = all.slides.filter((slide) => picturesOf(slide).length > 0);
  const small = { ...all, frame: { ...all.frame, ...sizeOfPlace(all.frame, free) } };
  const narrow = menuFit(mount, small.frame, stageOf(small.frame, stage), pictured.length);
  const simple = narrow !== null && isSimpleDesign(narrow.slides[0]!);
  const region = simple ? small : all;
  const fit = simple ? narrow : menuFit(mount, all.frame, stage, pictured.length);
  if (!fit)
    return {
      ok: false,
      sentence: `“${mount.name}” cannot be a menu: it has more than one slide, or takes more pictures than there are.`,
    };
  const count = takesOf(fit);
  const chosen = Array.from({ length: count }, (_, at) => pictured[Math.floor((at * pictured.length) / count)]!);
  const said: Record<string, string> = {};
  for (const part of ['title', 'subtitle'] as const) {
    const field = fit.words.find((one) => one.part === part && one.from !== 'own');
    if (field) said[field.name] = part === 'title' ? plan.title : plan.words;
  }
  const made = laid(
    region,
    ground,
    mount,
    fit,
    stage,
    chosen,
    (subjects) => chosen.map((slide) => firstOf(subjects, slide)),
    said,
  );
  if (!made.ok) return made;
  return {
    ok: true,
    slide: {
      ...made.slide,
      backing: plain(colours.ground),
      layers: [
        ...(simple ? inPlace(made.slide, all.frame, free) : [asCard(made.slide, free)]),
        ...page.buttons.map((button, index) => label(stage, `button-${index + 1}`, button, colours.letters)),
      ],
    },
  };
}

export const firstOf = (subjects: readonly { readonly slide: Slide }[], slide: Slide): number | null => {
  const found = subjects.findIndex((subject) => subject.slide.id === slide.id);
  return found < 0 ? null : found;
};

/** What the buttons leave. */
function freePlace({ menu }: DiscPlan): Place {
  if (menu.buttons === 'below') return { left: 0, right: 1, top: 0, bottom: 1 - ROW_HEIGHT };
  return menu.buttons === 'right'
    ? { left: 0, right: 1 - COLUMN_WIDTH, top: 0, bottom: 1 }
    : { left: COLUMN_WIDTH, right: 1, top: 0, bottom: 1 };
}

/** A page of pictures, its words below each, on the darker colour of the plumage. */
function picturePage(ground: MenuGround, all: Show, page: MenuPage, stage: Stage, colours: ScreeningLook): PageSlide {
  const entries = page.buttons.filter(({ of }) => of !== null);
  const pictureOf = (button: MenuButton): Slide | null => {
    const { film, chapter } = button.of!;
    const id = idIn(film, ground.films[film]!.chapters[chapter]!.slideId);
    const slide = all.slides.find((one) => one.id === id);
    return slide && picturesOf(slide).length > 0 ? slide : null;
  };
  const chosen = [...new Set(entries.flatMap((button) => pictureOf(button) ?? []))];
  const boxOf = ({ place }: MenuButton) =>
    edges(place.left, place.top, place.right, place.bottom - (place.bottom - place.top) * LABEL_SHARE);
  const mount = shipped({
    id: 'disc-pictures',
    name: 'Pictures to choose from',
    shelf: 'Menus',
    description: '',
    posterMs: 0,
    fits: () => [
      {
        name: 'pictures',
        windows: entries.map((_, index) => ({ name: `Picture ${index + 1}`, takes: 'picture' as const })),
        slides: [
          designed({
            lengthMs: 8000,
            transition: { kind: 'cut' },
            backing: plain(colours.ground),
            layers: [
              words(stage, 'title', {
                title: page.title,
                across: ['left', 0.06],
                down: ['middle', 0.115],
                width: 0.88,
                room: 0.12,
                size: 0.075,
                colour: colours.letters,
                come: null,
              }),
              ...entries.flatMap((button, index): Layer[] => [
                form(`ground-${index + 1}`, { kind: 'rectangle' }, colours.rule, boxOf(button)),
                picture(`picture-${index + 1}`, index + 1, boxOf(button)),
                below(stage, `label-${index + 1}`, button, colours.letters),
              ]),
              ...page.buttons
                .filter(({ of }) => of === null)
                .map((button, index) => label(stage, `step-${index + 1}`, button, colours.letters)),
            ],
          }),
        ],
      },
    ],
  });
  const fit = mount.fits(all.frame, stage)[0]!;
  // Nothing but words: nothing is dealt, and the design stands as it is.
  if (chosen.length === 0)
    return {
      ok: true,
      slide: { ...fit.slides[0]!, layers: fit.slides[0]!.layers.filter(({ kind }) => kind !== 'picture') },
    };
  return laid(all, ground, mount, fit, stage, chosen, (subjects) =>
    entries.map((button) => {
      const slide = pictureOf(button);
      return slide && firstOf(subjects, slide);
    }),
  );
}

/** Words of a button, with room for what lights up before them. */
function label(stage: Stage, id: string, { label: says, place }: MenuButton, colour: string): Layer {
  const pad = 0.03;
  return words(stage, id, {
    title: says,
    across: ['left', place.left + pad],
    down: ['middle', (place.top + place.bottom) / 2],
    width: place.right - place.left - pad,
    room: place.bottom - place.top - 0.02,
    size: 0.07,
    colour,
    come: null,
  });
}

function below(stage: Stage, id: string, { label: says, place }: MenuButton, colour: string): Layer {
  const height = (place.bottom - place.top) * LABEL_SHARE;
  return words(stage, id, {
    title: says,
    across: ['left', place.left],
    down: ['middle', place.bottom - height / 2],
    width: place.right - place.left,
    room: height * 0.9,
    size: 0.046,
    colour,
    come: null,
  });
}

/** Clips are seen and not heard: a menu has music of its own. */
const quiet = (layer: Layer): Layer => (layer.kind === 'clip' ? { ...layer, soundGainDb: -60 } : layer);
const unmoved = (layer: Layer): Layer => (layer.kind === 'picture' ? { ...layer, move: { kind: 'still' } } : layer);
