import { heldInside } from '../motion/crop';
import type { Framing } from '../motion/framing';
import type { ShowEdit } from './edit';
import { moveOf, type Channels, type ClipLayer, type PictureLayer } from './layer';
import { isSimple, picturesOf, type Window } from './layout';
import type { FrameShape, Slide } from './show';

/** Where two or more windows lie against each other: a line across the frame that can be moved. */
export interface Border {
  /** `x`: between left and right. */
  readonly along: 'x' | 'y';
  /** The middle of the room between them, and how wide that is; shares of the frame's width for `x`, of its height for `y`. */
  readonly at: number;
  readonly gap: number;
  /** The stretch it runs over, across. */
  readonly from: number;
  readonly to: number;
  /** Windows on either side, by number. */
  readonly before: readonly number[];
  readonly after: readonly number[];
}

/** Windows farther apart than this do not lie against each other. */
const MOST_GAP = 0.12;
/** No window is made smaller than this. */
export const LEAST_WINDOW = 0.08;
/** Sides so near are one line. */
const SAME = 0.004;
export const MOST_ROOM_BETWEEN = 0.06;

/** The windows a slide's pictures are seen through; null where they do not all stand still as windows, side by side. */
export function windowsOn(slide: Slide): Window[] | null {
  const pictures = picturesOf(slide);
  if (pictures.length < 2 || !isSimple(slide)) return null;
  const windows = pictures.flatMap(({ channels }) => {
    const { x, y, width, height, turnDegrees = 0 } = channels ?? {};
    const all = [x, y, width, height];
    return turnDegrees === 0 && all.every((value) => typeof value === 'number')
      ? [{ x: x as number, y: y as number, width: width as number, height: height as number }]
      : [];
  });
  return windows.length === pictures.length ? windows : null;
}

const lowOf = (window: Window, along: 'x' | 'y') => window[along] - side(window, along) / 2;
const highOf = (window: Window, along: 'x' | 'y') => window[along] + side(window, along) / 2;
const side = (window: Window, along: 'x' | 'y') => (along === 'x' ? window.width : window.height);
const other = (along: 'x' | 'y') => (along === 'x' ? 'y' : 'x');

/** Every border between windows. Those that could not be moved by themselves without one window lying over another are one. */
export function bordersOf(windows: readonly Window[]): Border[] {
  return (['x', 'y'] as const).flatMap((along) => {
    const pairs = windows.flatMap((before, one) =>
      windows.flatMap((after, two) => (lieAgainst(before, after, along, windows) ? [[one, two] as const] : [])),
    );
    const groups: { before: Set<number>; after: Set<number> }[] = [];
    for (const [one, two] of pairs) {
      const mine = groups.filter(({ before, after }) => before.has(one) || after.has(two));
      const joined = {
        before: new Set([one, ...mine.flatMap((group) => [...group.before])]),
        after: new Set([two, ...mine.flatMap((group) => [...group.after])]),
      };
      groups.splice(0, groups.length, ...groups.filter((group) => !mine.includes(group)), joined);
    }
    return groups.flatMap(({ before, after }): Border[] => {
      const highs = [...before].map((index) => highOf(windows[index]!, along));
      const lows = [...after].map((index) => lowOf(windows[index]!, along));
      // Sides that are no one line are no border that could be moved.
      if (spread(highs) > SAME || spread(lows) > SAME) return [];
      const [end, start] = [Math.max(...highs), Math.min(...lows)];
      const all = [...before, ...after].map((index) => windows[index]!);
      return [
        {
          along,
          at: (end + start) / 2,
          gap: start - end,
          from: Math.min(...all.map((window) => lowOf(window, other(along)))),
          to: Math.max(...all.map((window) => highOf(window, other(along)))),
          before: [...before].sort((a, b) => a - b),
          after: [...after].sort((a, b) => a - b),
        },
      ];
    });
  });
}

/** Nothing but room lies between them. */
function lieAgainst(before: Window, after: Window, along: 'x' | 'y', all: readonly Window[]): boolean {
  const room = lowOf(after, along) - highOf(before, along);
  const across = other(along);
  const from = Math.max(lowOf(before, across), lowOf(after, across));
  const to = Math.min(highOf(before, across), highOf(after, across));
  if (room <= -SAME || room >= MOST_GAP || to - from <= SAME) return false;
  return !all.some(
    (third) =>
      third !== before &&
      third !== after &&
      highOf(third, along) > highOf(before, along) + SAME &&
      lowOf(third, along) < lowOf(after, along) - SAME &&
      Math.min(to, highOf(third, across)) - Math.max(from, lowOf(third, across)) > SAME,
  );
}

const spread = (values: readonly number[]) => Math.max(...values) - Math.min(...values);

/** The windows with a border elsewhere, as far as both sides leave room for. @param at as of a `Border` */
export function withBorderAt(windows: readonly Window[], border: Border, at: number): Window[] {
  const { along, before, after } = border;
  const most = Math.min(...after.map((index) => side(windows[index]!, along))) - LEAST_WINDOW;
  const least = LEAST_WINDOW - Math.min(...before.map((index) => side(windows[index]!, along)));
  const by = Math.min(Math.max(0, most), Math.max(Math.min(0, least), at - border.at));
  return pulled(windows, border, by, by);
}

/** The room between windows, in heights of the frame: that of their first border; null where none lie against each other. */
export function roomBetween(windows: readonly Window[], frame: FrameShape): number | null {
  const [first] = bordersOf(windows);
  return first ? (first.along === 'x' ? (first.gap * frame.widthPx) / frame.heightPx : first.gap) : null;
}

/** The windows with the same room at every border. @param room in heights of the frame */
export function withRoomBetween(windows: readonly Window[], frame: FrameShape, room: number): Window[] {
  return bordersOf(windows).reduce<Window[]>(
    (all, border) => {
      const wanted = border.along === 'x' ? (room * frame.heightPx) / frame.widthPx : room;
      const by = (wanted - border.gap) / 2;
      return pulled(all, border, -by, by);
    },
    [...windows],
  );
}

/** The sides at a border moved: those before it by one way, those after it by another. */
function pulled(
  windows: readonly Window[],
  { along, before, after }: Border,
  byBefore: number,
  byAfter: number,
): Window[] {
  const long = along === 'x' ? 'width' : 'height';
  return windows.map((window, index) => {
    if (before.includes(index))
      return { ...window, [along]: window[along] + byBefore / 2, [long]: window[long] + byBefore };
    if (after.includes(index))
      return { ...window, [along]: window[along] + byAfter / 2, [long]: window[long] - byAfter };
    return window;
  });
}

/**
 * The edit that puts a slide's pictures into other windows. What was framed by hand keeps its size and its middle: a wider window shows more of the picture, as
 * far as there is more.
 *
 * @returns null where all of them stand in those windows already
 * @param sizes of the pictures, as far as their crop leaves them; by number
 */
export function putIntoWindows(
  slide: Slide,
  windows: readonly Window[],
  sizes: readonly ({ readonly widthPx: number; readonly heightPx: number } | null)[],
  name: string,
): ShowEdit | null {
  const before = windowsOn(slide);
  const edits = picturesOf(slide).flatMap((layer, index): ShowEdit[] => {
    const [window, was] = [windows[index]!, before?.[index]];
    if (was && (['x', 'y', 'width', 'height'] as const).every((part) => was[part] === window[part])) return [];
    const address = { slideId: slide.id, layerId: layer.id };
    const channels: Channels = {
      x: held6(window.x),
      y: held6(window.y),
      width: held6(window.width),
      height: held6(window.height),
    };
    const framed = was && sizes[index] ? reframed(layer, was, window, sizes[index]) : null;
    return [
      { kind: 'set-channels', ...address, channels },
      ...(framed ? [{ kind: 'set-move' as const, ...address, move: framed }] : []),
    ];
  });
  return edits.length === 0 ? null : { kind: 'together', name, edits };
}

function reframed(
  layer: PictureLayer | ClipLayer,
  was: Window,
  is: Window,
  picture: { readonly widthPx: number; readonly heightPx: number },
) {
  const move = moveOf(layer);
  if (move.kind !== 'set') return null;
  const other = (framing: Framing): Framing =>
    heldInside(
      { ...framing, width: (framing.width * is.width) / was.width, height: (framing.height * is.height) / was.height },
      picture,
    );
  return {
    ...move,
    first: other(move.first),
    last: other(move.last),
    ...(move.middle && { middle: { ...move.middle, framing: other(move.middle.framing) } }),
  };
}

const held6 = (value: number) => Math.round(value * 1e6) / 1e6;
