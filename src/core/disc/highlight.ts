import type { MenuButton, MenuPage } from './menu-pages';
import { LABEL_SHARE } from './menu-pages';

/** A rectangle of points, half-open. */
export interface Box {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** What is lit when a button is chosen. */
export interface MarkedRow {
  /** All of the button: what is lit lies in it. */
  readonly box: Box;
  readonly lit: readonly Box[];
}

const WIDTH = 720;
/** Televisions draw every other line at a time: thinner lines would flicker. */
const LINE = 6;
const SIDE = 8;

/**
 * What is lit for each button of a page, in points of the disc's frame: round a picture a frame, with words a bar before them and a line below. Everything begins and ends on an
 * even line, so that both halves of a picture on a television have the same.
 */
export function highlightRows(page: MenuPage, heightPx: number, letterboxed: boolean): MarkedRow[] {
  const lineAt = (share: number) => {
    const line = share * heightPx;
    return 2 * Math.round((letterboxed ? heightPx / 8 + line * 0.75 : line) / 2);
  };
  const pointAt = (share: number) => 2 * Math.round((share * WIDTH) / 2);
  return page.buttons.map((button) => {
    const { left, top, right, bottom } = button.place;
    const box = { x0: pointAt(left), x1: pointAt(right), y0: lineAt(top), y1: lineAt(bottom) };
    return { box, lit: button.shows === 'words' ? besideWords(box) : aroundPicture(button, box, lineAt) };
  });
}

function besideWords({ x0, y0, x1, y1 }: Box): Box[] {
  return [
    { x0, x1: x0 + SIDE, y0, y1 },
    { x0: x0 + SIDE, x1, y0: y1 - LINE, y1 },
  ];
}

function aroundPicture({ place }: MenuButton, { x0, y0, x1, y1 }: Box, lineAt: (share: number) => number): Box[] {
  const end = Math.min(y1, lineAt(place.bottom - (place.bottom - place.top) * LABEL_SHARE));
  return [
    { x0, x1, y0, y1: y0 + LINE },
    { x0, x1, y0: end - LINE, y1: end },
    { x0, x1: x0 + SIDE, y0: y0 + LINE, y1: end - LINE },
    { x0: x1 - SIDE, x1, y0: y0 + LINE, y1: end - LINE },
  ];
}

/** A page's highlights as points: 4 bytes each, all of one colour or clear. @param colour `#rrggbb` @param only of one button; of all when it is not said */
export function highlightPicture(
  page: MenuPage,
  heightPx: number,
  letterboxed: boolean,
  colour: string,
  only?: number,
): { readonly widthPx: number; readonly heightPx: number; readonly rgba: Uint8Array } {
  const rgba = new Uint8Array(WIDTH * heightPx * 4);
  const [red, green, blue] = [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16)) as [
    number,
    number,
    number,
  ];
  for (const [index, { lit }] of highlightRows(page, heightPx, letterboxed).entries()) {
    if (only !== undefined && index !== only) continue;
    for (const { x0, y0, x1, y1 } of lit)
      for (let y = y0; y < y1; y += 1)
        for (let x = x0; x < x1; x += 1) rgba.set([red, green, blue, 255], (y * WIDTH + x) * 4);
  }
  return { widthPx: WIDTH, heightPx, rgba };
}
