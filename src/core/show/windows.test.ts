import { describe, expect, it } from '@jest/globals';
import { planFrame, prepareShow } from '../frame/plan-frame';
import type { AssetFacts } from './asset-facts';
import { applyEdit, type ShowEdit } from './edit';
import { assetId, showId, type AssetId } from './ids';
import type { PictureLayer } from './layer';
import { laidOut, layoutsFor, picturesOf, windowsOf, type Window } from './layout';
import { slideFromAsset } from './new-slide';
import { comeOneByOne, letComeOneByOne } from './one-by-one';
import { emptyShow, type Show, type Slide } from './show';
import {
  bordersOf,
  LEAST_WINDOW,
  putIntoWindows,
  roomBetween,
  windowsOn,
  withBorderAt,
  withRoomBetween,
} from './windows';

const { frame } = emptyShow(showId('s'), 'S');
const facts: AssetFacts = {
  kind: 'picture',
  widthPx: 3000,
  heightPx: 2000,
  hasTransparency: false,
  takenAt: null,
  camera: null,
  brightness: 0.5,
};
const known = new Map<AssetId, AssetFacts>();
let counted = 0;
const picture = (): PictureLayer => {
  const id = assetId(String(known.size).padStart(64, '0'));
  known.set(id, facts);
  return slideFromAsset(id, facts, 6000, () => `n${(counted += 1)}`).layers[0] as PictureLayer;
};
const slideOf = (pictures: readonly PictureLayer[], layout = layoutsFor(pictures.length)[0]!): Slide =>
  laidOut(
    { ...slideFromAsset(pictures[0]!.assetId, facts, 6000, () => `n${(counted += 1)}`), layers: [...pictures] },
    pictures,
    layout,
    frame,
  );
const showOf = (slide: Slide): Show => ({ ...emptyShow(showId('s'), 'S'), slides: [slide] });
const after = (slide: Slide, edit: ShowEdit): Slide => {
  const show = showOf(slide);
  const result = applyEdit(show, edit);
  if (!result.ok) throw new Error(JSON.stringify(result));
  const back = applyEdit(result.show, result.inverse);
  expect(back).toMatchObject({ ok: true, show });
  return result.show.slides[0]!;
};
const overlap = (windows: readonly Window[]) =>
  windows.some((one, index) =>
    windows.some(
      (two, at) =>
        at > index &&
        Math.abs(one.x - two.x) < (one.width + two.width) / 2 - 1e-6 &&
        Math.abs(one.y - two.y) < (one.height + two.height) / 2 - 1e-6,
    ),
  );

describe('borders between windows', () => {
  it('are one between two, four in a grid of four, and one that all of a column share', () => {
    expect(bordersOf(windowsOf('side-by-side', 2, frame))).toMatchObject([
      { along: 'x', at: 0.5, before: [0], after: [1], from: 0, to: 1 },
    ]);
    expect(bordersOf(windowsOf('grid', 4, frame)).map(({ along, before, after }) => [along, before, after])).toEqual([
      ['x', [0], [1]],
      ['x', [2], [3]],
      ['y', [0], [2]],
      ['y', [1], [3]],
    ]);
    const large = bordersOf(windowsOf('large-first', 3, frame));
    expect(large.map(({ along, before, after }) => [along, before, after])).toEqual([
      ['x', [0], [1, 2]],
      ['y', [1], [2]],
    ]);
    expect(large[0]).toMatchObject({ from: 0, to: 1 });
    expect(large[1]!.from).toBeGreaterThan(0.6);
  });
  it('move with what lies on them, never letting windows overlap or vanish, wherever they are taken one after the other', () => {
    let dice = 7;
    const random = () => (dice = (dice * 16_807) % 2_147_483_647) / 2_147_483_647;
    for (const [layout, count] of [
      ['grid', 4],
      ['grid', 7],
      ['large-first', 4],
      ['side-by-side', 3],
    ] as const) {
      let windows = windowsOf(layout, count, frame);
      const whole = () => windows.reduce((sum, { width, height }) => sum + width * height, 0);
      const area = whole();
      for (let turn = 0; turn < 60; turn += 1) {
        const borders = bordersOf(windows);
        const border = borders[Math.floor(random() * borders.length)]!;
        windows = withBorderAt(windows, border, random() * 1.4 - 0.2);
        expect(overlap(windows)).toBe(false);
        expect(Math.min(...windows.flatMap(({ width, height }) => [width, height]))).toBeGreaterThan(
          LEAST_WINDOW - 1e-9,
        );
      }
      // What is between them stays as wide: no place is lost.
      expect(Math.abs(whole() - area)).toBeLessThan(0.02);
    }
  });
  it('go where they are put, the room between them as it was', () => {
    const windows = windowsOf('side-by-side', 2, frame);
    const [border] = bordersOf(windows);
    const [moved] = bordersOf(withBorderAt(windows, border!, 1 / 3));
    expect(moved!.at).toBeCloseTo(1 / 3, 9);
    expect(moved!.gap).toBeCloseTo(border!.gap, 9);
  });
  it('get the same room everywhere, as wide across as down', () => {
    const windows = withRoomBetween(windowsOf('grid', 6, frame), frame, 0.04);
    expect(roomBetween(windows, frame)).toBeCloseTo(0.04, 9);
    for (const { along, gap } of bordersOf(windows))
      expect(along === 'x' ? (gap * frame.widthPx) / frame.heightPx : gap).toBeCloseTo(0.04, 9);
    expect(overlap(windows)).toBe(false);
    expect(Math.min(...windows.map(({ x, width }) => x - width / 2))).toBeCloseTo(0, 9);
    expect(roomBetween([{ x: 0.2, y: 0.2, width: 0.1, height: 0.1 }], frame)).toBeNull();
  });
  it('are none between windows that lie apart, or have another between them', () => {
    const two = (apart: number): Window[] => [
      { x: 0.2, y: 0.5, width: 0.3, height: 0.6 },
      { x: 0.5 + apart, y: 0.5, width: 0.3, height: 0.6 },
    ];
    expect(bordersOf(two(0.1))).toHaveLength(1);
    expect(bordersOf(two(0.14))).toHaveLength(0);
    const third = { x: 0.4, y: 0.5, width: 0.05, height: 0.6 };
    expect(bordersOf([...two(0.1), third]).map(({ before, after }) => [before, after])).toEqual([
      [[0], [2]],
      [[2], [1]],
    ]);
  });
  it('are none on slides whose pictures move about, are turned, or lie in layers', () => {
    const slide = slideOf([picture(), picture()]);
    expect(windowsOn(slide)).toHaveLength(2);
    const [first, second] = picturesOf(slide);
    const keyed = { keys: [{ at: { tied: 'start' as const, ms: 0 }, value: 0.5 }] };
    expect(
      windowsOn({ ...slide, layers: [first!, { ...second!, channels: { ...second!.channels, x: keyed } }] }),
    ).toBeNull();
    expect(
      windowsOn({ ...slide, layers: [first!, { ...second!, channels: { ...second!.channels, turnDegrees: 4 } }] }),
    ).toBeNull();
    expect(windowsOn(slideOf([picture()]))).toBeNull();
  });
});

describe('pictures in other windows', () => {
  it('show more of what was framed by hand where a window grows, at the same size, and never past the picture', () => {
    const framed: PictureLayer = {
      ...picture(),
      move: {
        kind: 'set',
        first: { x: 0.5, y: 0.5, width: 0.2, height: 0.34, turnDegrees: 0 },
        last: { x: 0.9, y: 0.5, width: 0.19, height: 0.32, turnDegrees: 0 },
      },
    };
    const laid = slideOf([framed, picture()]);
    const slide = {
      ...laid,
      layers: laid.layers.map((layer, index) => (index === 0 ? { ...layer, move: framed.move } : layer)),
    } as Slide;
    const windows = windowsOn(slide)!;
    const next = withBorderAt(windows, bordersOf(windows)[0]!, 0.7);
    const result = after(slide, putIntoWindows(slide, next, [facts, facts], 'move a border')!);
    expect(windowsOn(result)![0]!.width).toBeCloseTo(next[0]!.width, 5);
    const { move } = picturesOf(result)[0] as PictureLayer;
    if (move.kind !== 'set') throw new Error('the framing is gone');
    const grown = next[0]!.width / windows[0]!.width;
    expect(move.first.width).toBeCloseTo(0.2 * grown, 5);
    expect(move.first.height).toBeCloseTo(0.34, 5);
    expect(move.last.x + move.last.width / 2).toBeLessThanOrEqual(1 + 1e-9);
  });
  it('are touched only where their window changes', () => {
    const slide = slideOf([picture(), picture(), picture(), picture()]);
    const windows = windowsOn(slide)!;
    const edit = putIntoWindows(
      slide,
      withBorderAt(windows, bordersOf(windows)[0]!, 0.6),
      [facts, facts, facts, facts],
      'move a border',
    );
    expect(edit?.kind === 'together' && edit.edits).toHaveLength(2);
    // A border that can go no farther is no edit at all.
    expect(putIntoWindows(slide, windows, [facts, facts, facts, facts], 'move a border')).toBeNull();
  });
  it('come one after the other, all of them before the slide is over, or together again', () => {
    const slide = slideOf([picture(), picture(), picture()]);
    expect(comeOneByOne(slide)).toBe(false);
    const parted = after(slide, letComeOneByOne(slide, true));
    expect(comeOneByOne(parted)).toBe(true);
    const seen = (momentMs: number) =>
      planFrame(prepareShow(showOf(parted), known), momentMs, { widthPx: 320, heightPx: 180 })!.slide.layers.length;
    expect([seen(100), seen(2000), seen(5000)]).toEqual([1, 2, 3]);
    const together = after(parted, letComeOneByOne(parted, false));
    expect(comeOneByOne(together)).toBe(false);
    expect(picturesOf(together).map(({ channels }) => channels?.opacity)).toEqual([undefined, undefined, undefined]);
  });
});
