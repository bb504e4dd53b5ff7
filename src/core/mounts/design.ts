import { windowId } from '../show/window-id';
import type { Channel, Key } from '../keys/channel';
import type { Easing } from '../keys/easing';
import { layerId, slideId } from '../show/ids';
import type {
  Channels,
  Edge,
  Gradient,
  GradientLayer,
  Layer,
  Move,
  PictureLayer,
  Shape as LayerShape,
  ShapeLayer,
  SolidLayer,
  WordsLayer,
} from '../show/layer';
import type { Backing, Slide } from '../show/show';
import type { Transition } from '../show/transition';
import type { WordsCome, WordsStyle, WordsUnit, WordsWay } from '../show/words';
import {
  type Look,
  type Mount,
  type MountFit,
  type MountWindow,
  type MountWords,
  type Shape,
  type Suits,
  type WordsFrom,
} from './mount';

/** What shipped mounts are drawn on: a frame of some shape, in a look. */
export interface Stage extends Look {
  /** Width over height. */
  readonly aspect: number;
  readonly isUpright: boolean;
  /** Lengths in shares of the frame's shorter side, as shares of its width and of its height. */
  readonly w: (shorts: number) => number;
  readonly h: (shorts: number) => number;
}

export function stageOf({ widthPx, heightPx }: Shape, look: Look): Stage {
  const short = Math.min(widthPx, heightPx);
  return {
    ...look,
    aspect: widthPx / heightPx,
    isUpright: widthPx < 0.9 * heightPx,
    w: (shorts) => (shorts * short) / widthPx,
    h: (shorts) => (shorts * short) / heightPx,
  };
}

/** A box by its centre, in shares of the frame. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A box by its edges. */
export const edges = (left: number, top: number, right: number, bottom: number): Box => ({
  x: (left + right) / 2,
  y: (top + bottom) / 2,
  width: right - left,
  height: bottom - top,
});

/** Keys from the slide's start: when, what, and how it goes on. */
export const keys = (...given: readonly (readonly [ms: number, value: number, easing?: Easing])[]): Channel => ({
  keys: given.map(([ms, value, easing]): Key => ({ at: { tied: 'start', ms }, value, ...(easing && { easing }) })),
});

/** A value that goes evenly from one to another all the time a slide is seen. */
export const drifting = (from: number, to: number): Channel => ({
  keys: [
    { at: { tied: 'stretch', share: 0 }, value: from, easing: 'linear' },
    { at: { tied: 'stretch', share: 1 }, value: to },
  ],
});

/** Comes out of nothing. */
export const appearing = (ms: number, overMs = 700): Channel => keys([ms, 0], [ms + overMs, 1]);

/** From beside to its place. */
export const arriving = (ms: number, from: number, to: number, overMs = 1100): Channel =>
  keys([ms, from, 'arrive'], [ms + overMs, to]);

interface Parts {
  readonly channels?: Channels;
  readonly edge?: Edge;
  readonly name?: string;
}

/** A picture of the person's, filling a box; the whole frame when none is given. */
export function picture(
  id: string,
  window: number,
  box: Box | null,
  { channels, move = { kind: 'automatic' }, ...parts }: Parts & { move?: Move; light?: PictureLayer['light'] } = {},
): PictureLayer {
  const all = { ...box, ...channels };
  return {
    kind: 'picture',
    id: layerId(id),
    assetId: windowId(window),
    move,
    ...(Object.keys(all).length > 0 && { channels: all }),
    ...parts,
  };
}

export const solid = (id: string, colour: string, box: Box | null = null, channels: Channels = {}): SolidLayer => ({
  kind: 'solid',
  id: layerId(id),
  colour,
  channels: { ...box, ...channels },
});

export const form = (
  id: string,
  shape: LayerShape,
  colour: string,
  box: Box,
  { channels, ...parts }: Parts = {},
): ShapeLayer => ({
  kind: 'shape',
  id: layerId(id),
  shape,
  fill: { kind: 'colour', colour },
  channels: { ...box, ...channels },
  ...parts,
});

/** A veil from nothing to a colour, so that words over a picture read. @param angle 90: downwards */
export function veil(
  id: string,
  colour: string,
  angle: number,
  opacity: number,
  box: Box | null = null,
  from = 0,
): GradientLayer {
  const gradient: Gradient<string> = {
    kind: 'linear',
    angleDegrees: angle,
    stops: [
      { at: from, colour, opacity: 0 },
      { at: from + (1 - from) * 0.55, colour, opacity: opacity * 0.62 },
      { at: 1, colour, opacity },
    ],
  };
  return { kind: 'gradient', id: layerId(id), gradient, ...(box && { channels: { ...box } }) };
}

/** How far words keep from the frame's edge where they are laid out, as a share of its shorter side. */
export const WORDS_MARGIN = 0.075;

interface WordsDraft {
  readonly title?: string;
  readonly subtitle?: string;
  /** Where the block stands: its left edge, its middle or its right edge across, and its upper edge, middle or lower edge down. */
  readonly across: readonly ['left' | 'centre' | 'right', number];
  readonly down: readonly ['top' | 'middle' | 'bottom', number];
  /** Widest line and tallest block, in shares of the frame. */
  readonly width: number;
  readonly room: number;
  /** Of the title, as a share of the frame's shorter side. */
  readonly size: number;
  readonly colour: string;
  readonly accent?: string;
  readonly style?: WordsStyle;
  readonly come?: WordsCome | null;
  readonly channels?: Channels;
  readonly name?: string;
}

/** Words in a look's letters. */
export function words(stage: Stage, id: string, draft: WordsDraft): WordsLayer {
  const { letters } = stage;
  const [side, at] = draft.across;
  const [level, height] = draft.down;
  const x =
    side === 'left' ? 0.5 + at - stage.w(WORDS_MARGIN) : side === 'right' ? at - 0.5 + stage.w(WORDS_MARGIN) : at;
  const y =
    level === 'top'
      ? 0.5 + height - stage.h(WORDS_MARGIN)
      : level === 'bottom'
        ? height - 0.5 + stage.h(WORDS_MARGIN)
        : height;
  const vertical = level === 'middle' ? '' : level;
  const horizontal = side === 'centre' ? '' : side;
  const place = [vertical, horizontal].filter(Boolean).join('-') || 'centre';
  return {
    kind: 'words',
    id: layerId(id),
    ...(draft.name && { name: draft.name }),
    title: draft.title ?? '',
    subtitle: draft.subtitle ?? '',
    place: place as WordsLayer['place'],
    style: {
      font: letters.title,
      subtitleFont: letters.text,
      weight: letters.weight,
      letterSpacing: letters.spacing,
      shadow: 'none',
      align: side,
      measure: Math.max(0.1, Math.min(1, draft.width)),
      room: draft.room,
      size: draft.size,
      colour: draft.colour,
      accent: draft.accent ?? draft.colour,
      ...draft.style,
    },
    ...(draft.come !== null && { come: draft.come ?? coming(900) }),
    channels: { x, y, ...draft.channels },
  };
}

export const coming = (atMs: number, way: WordsWay = 'rise', by: WordsUnit = 'line', lengthMs = 900): WordsCome => ({
  entrance: { way, by, atMs, lengthMs },
  exit: null,
});

interface SlideDraft {
  readonly lengthMs: number;
  readonly transition?: Transition;
  readonly backing?: Backing;
  readonly layers: readonly Layer[];
}

export const slide = ({
  lengthMs,
  transition = { kind: 'dissolve', lengthMs: 1000 },
  backing = { kind: 'automatic' },
  layers,
}: SlideDraft): Slide => ({ id: slideId('s'), lengthMs, transition, backing, layers, sounds: [] });

export const plain = (colour: string): Backing => ({ kind: 'colour', colour });

/** @param on the index of its slide */
export const field = (id: string, part: MountWords['part'], name: string, from: WordsFrom, on = 0): MountWords => ({
  slide: on,
  layerId: layerId(id),
  part,
  name,
  from,
});

export const windows = (...names: readonly string[]): MountWindow[] =>
  names.map((name) => ({ name, takes: 'picture' }));
/** Windows that are called by a number. */
export const numbered = (count: number, name = 'Picture'): MountWindow[] =>
  Array.from({ length: count }, (_, index) => ({
    name: count === 1 ? name : `${name} ${index + 1}`,
    takes: 'picture',
  }));

interface FitDraft {
  readonly name?: string;
  readonly suits?: Suits;
  readonly windows?: readonly MountWindow[];
  readonly slides: readonly Slide[];
  readonly words?: readonly MountWords[];
  readonly loupeOver?: string;
}

interface MountDraft extends Pick<Mount, 'id' | 'name' | 'shelf' | 'description' | 'posterMs'> {
  readonly goes?: Mount['goes'];
  fits(stage: Stage): readonly FitDraft[];
}

/** A mount that ships with the app. */
export const shipped = ({ fits, goes = 'before', ...draft }: MountDraft): Mount => ({
  ...draft,
  author: '',
  goes,
  fits: (frame, look) =>
    fits(stageOf(frame, look)).map((fit): MountFit => ({
      name: fit.name ?? nameOfFit(fit.windows?.length ?? 0),
      suits: fit.suits ?? 'any',
      windows: fit.windows ?? [],
      slides: fit.slides.map((one, index) => ({ ...one, id: slideId(`s${index + 1}`) })),
      words: fit.words ?? [],
      ...(fit.loupeOver && { loupeOver: layerId(fit.loupeOver) }),
    })),
});

const nameOfFit = (count: number) =>
  count === 0 ? 'without pictures' : count === 1 ? 'one picture' : `${count} pictures`;
