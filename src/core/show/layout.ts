import type { ShowEdit } from './edit';
import { cueId, type LayerId, type SlideId } from './ids';
import { everyLayer, type Channels, type ClipLayer, type Layer, type PictureLayer } from './layer';
import { wordsOf, type FrameShape, type Show, type Slide } from './show';
import { copyOfSlide, layersApart } from './new-slide';
import { spokenJoined, unspoken, withSpoken } from './spoken-over';

/** How several pictures share a frame. `large-first` gives the first one two thirds. */
export type Layout = 'side-by-side' | 'stacked' | 'large-first' | 'grid';

export const LAYOUT_NAMES: Readonly<Record<Layout, string>> = {
  'side-by-side': 'side by side',
  stacked: 'stacked',
  'large-first': 'first one large',
  grid: 'grid',
};
export const MOST_IN_A_LAYOUT = 12;

/** Where one picture stands: centre and size as shares of the frame. */
export interface Window {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Room between pictures, as a share of the frame's height. */
const GAP = 0.012;
const BETWEEN = '#171513';

/** Layouts that make sense for so many pictures. */
export function layoutsFor(count: number): Layout[] {
  if (count === 2) return ['side-by-side', 'stacked', 'large-first'];
  if (count === 3) return ['side-by-side', 'large-first', 'stacked'];
  return count < 7 ? ['grid', 'large-first', 'side-by-side'] : ['grid'];
}

/** Windows that fill the frame but for the gaps between them, in reading order. */
export function windowsOf(layout: Layout, count: number, frame: FrameShape): Window[] {
  const gapX = (GAP * frame.heightPx) / frame.widthPx;
  switch (layout) {
    case 'side-by-side':
      return row(0, 0, 1, 1, count, gapX);
    case 'stacked':
      return column(0, 0, 1, 1, count, GAP);
    case 'large-first': {
      const large = (2 / 3) * (1 - gapX);
      return [
        { x: large / 2, y: 0.5, width: large, height: 1 },
        ...column(large + gapX, 0, 1 - large - gapX, 1, count - 1, GAP),
      ];
    }
    case 'grid': {
      const perRow = Math.ceil(Math.sqrt(count));
      const rows = Math.ceil(count / perRow);
      // The short row comes last and its pictures are the wider for it.
      return column(0, 0, 1, 1, rows, GAP).flatMap((line, index) =>
        row(0, line.y - line.height / 2, 1, line.height, Math.min(perRow, count - index * perRow), gapX),
      );
    }
  }
}

function row(left: number, top: number, width: number, height: number, count: number, gap: number): Window[] {
  const each = (width - gap * (count - 1)) / count;
  return Array.from({ length: count }, (_, index) => ({
    x: left + each / 2 + index * (each + gap),
    y: top + height / 2,
    width: each,
    height,
  }));
}

function column(left: number, top: number, width: number, height: number, count: number, gap: number): Window[] {
  const each = (height - gap * (count - 1)) / count;
  return Array.from({ length: count }, (_, index) => ({
    x: left + width / 2,
    y: top + each / 2 + index * (each + gap),
    width,
    height: each,
  }));
}

/** The pictures and clips a slide shows, in reading order: those that lie on it; those in groups only where there are no others. */
export function picturesOf(slide: Slide): (PictureLayer | ClipLayer)[] {
  const isPicture = (layer: Layer): layer is PictureLayer | ClipLayer =>
    layer.kind === 'picture' || layer.kind === 'clip';
  const own = slide.layers.filter(isPicture);
  return own.length > 0 ? own : [...everyLayer(slide.layers)].filter(isPicture);
}

/** The slide with these pictures, laid out; everything else on it stays above them. One picture has the frame to itself. */
export function laidOut(
  slide: Slide,
  pictures: readonly (PictureLayer | ClipLayer)[],
  layout: Layout,
  frame: FrameShape,
): Slide {
  const before = new Set<LayerId>(picturesOf(slide).map((layer) => layer.id));
  const windows = pictures.length === 1 ? [null] : windowsOf(layout, pictures.length, frame);
  const placed = pictures.map((layer, index): Layer => inWindow(layer, windows[index] ?? null));
  const others = slide.layers.filter((layer) => !before.has(layer.id));
  return {
    ...slide,
    layers: [...placed, ...others],
    backing:
      pictures.length > 1 && slide.backing.kind === 'automatic'
        ? { kind: 'colour', colour: BETWEEN }
        : pictures.length === 1 && slide.backing.kind === 'colour' && slide.backing.colour === BETWEEN
          ? { kind: 'automatic' }
          : slide.backing,
  };
}

function inWindow(layer: PictureLayer | ClipLayer, window: Window | null): Layer {
  const { x: _x, y: _y, width: _width, height: _height, ...rest } = layer.channels ?? {};
  const channels: Channels = window ? { ...rest, ...window } : rest;
  const { channels: _before, ...bare } = layer;
  // A framing that was set for another shape of window would be stretched: the picture finds its own anew.
  const moved =
    bare.kind === 'picture' && bare.move.kind === 'set' ? { ...bare, move: { kind: 'automatic' as const } } : bare;
  return Object.keys(channels).length === 0 ? moved : { ...moved, channels };
}

/** The layout a slide's pictures stand in, as far as it is one of ours. */
export function layoutOf(slide: Slide, frame: FrameShape): Layout | null {
  const pictures = picturesOf(slide);
  const near = (channel: unknown, value: number) => typeof channel === 'number' && Math.abs(channel - value) < 0.002;
  return (
    (Object.keys(LAYOUT_NAMES) as Layout[]).find(
      (layout) =>
        pictures.length > 1 &&
        windowsOf(layout, pictures.length, frame).every((window, index) => {
          const channels = pictures[index]!.channels ?? {};
          return (
            near(channels.x, window.x) &&
            near(channels.y, window.y) &&
            near(channels.width, window.width) &&
            near(channels.height, window.height)
          );
        }),
    ) ?? null
  );
}

/**
 * Puts the pictures of several slides on the first of them; the others go. The longest length and the first words there are stay.
 * Null when there is nothing to join, or when something would be lost: second words, groups and shapes. What is said over
 * them is said one after the other, and the slide lasts as long.
 */
export function joinSlides(show: Show, ids: readonly SlideId[], layout: Layout): ShowEdit | null {
  const gathered = gatheredSlide(show, ids);
  if (!gathered) return null;
  const { slide, pictures, goneIds } = gathered;
  if (goneIds.length === 0 || pictures.length < 2 || pictures.length > MOST_IN_A_LAYOUT) return null;
  return {
    kind: 'together',
    name: `put ${pictures.length} pictures on one slide`,
    edits: [
      { kind: 'remove-slides', slideIds: goneIds },
      { kind: 'put-slides', slides: [laidOut(slide, pictures, layout, show.frame)] },
    ],
  };
}

/**
 * Slides as one: the first of them with the words, the voices and the length of all, and every picture there is. Null when something would be lost: second
 * words, groups and shapes.
 */
export function gatheredSlide(
  show: Show,
  ids: readonly SlideId[],
): {
  readonly slide: Slide;
  readonly pictures: readonly (PictureLayer | ClipLayer)[];
  readonly goneIds: readonly SlideId[];
} | null {
  const chosen = show.slides.filter((slide) => ids.includes(slide.id));
  const first = chosen[0];
  if (!first) return null;
  const worded = chosen.filter((slide) => slide.layers.some((layer) => layer.kind === 'words')).length;
  if (worded > 1 || !chosen.every(isSimple)) return null;
  // Ids of layers differ within a slide only.
  const taken = new Set(first.layers.map(({ id }) => id));
  const others = chosen.slice(1).map((slide) => ({ ...slide, layers: layersApart(slide.layers, taken) }));
  const { lengthMs, ...spoken } = spokenJoined(chosen, (id, slide) => cueId(`${id}-${slide.id}`));
  const words = wordsOf(first) ? [] : others.flatMap((slide) => wordsOf(slide) ?? []).slice(0, 1);
  return {
    slide: withSpoken({ ...first, lengthMs, layers: [...first.layers, ...words] }, spoken),
    pictures: [first, ...others].flatMap(picturesOf),
    goneIds: chosen.slice(1).map((slide) => slide.id),
  };
}

/** Gives each picture of a slide a slide of its own again; words and narration stay with the first. Null when it has one picture or none. */
export function partSlide(show: Show, slide: Slide, newId: () => string): ShowEdit | null {
  const [first, ...others] = picturesOf(slide);
  if (!first || others.length === 0 || !isSimple(slide)) return null;
  const alone = laidOut(slide, [first], 'grid', show.frame);
  const parted = others.map((picture) =>
    copyOfSlide(unspoken(laidOut({ ...slide, layers: [picture] }, [picture], 'grid', show.frame)), newId),
  );
  return {
    kind: 'together',
    name: `give ${others.length + 1} pictures a slide each`,
    edits: [
      { kind: 'put-slides', slides: [alone] },
      { kind: 'add-slides', runs: [{ afterId: slide.id, slides: parted }] },
    ],
  };
}

/** Only pictures, clips and words, none of them in a group: what a layout can move about. */
export function isSimple(slide: Slide): boolean {
  return slide.layers.every((layer) => layer.kind === 'picture' || layer.kind === 'clip' || layer.kind === 'words');
}

/** Adds a picture or clip to a slide, beside what is there. Null when it is full or built of more than pictures and words. */
export function addToSlide(show: Show, slide: Slide, layer: PictureLayer | ClipLayer): ShowEdit | null {
  const pictures = [...picturesOf(slide), layer];
  if (pictures.length > MOST_IN_A_LAYOUT || !isSimple(slide)) return null;
  const before = layoutOf(slide, show.frame);
  const layout = before && layoutsFor(pictures.length).includes(before) ? before : layoutsFor(pictures.length)[0]!;
  return {
    kind: 'together',
    name: 'put a picture beside',
    edits: [
      {
        kind: 'put-slides',
        slides: [laidOut({ ...slide, layers: [...slide.layers, layer] }, pictures, layout, show.frame)],
      },
    ],
  };
}
