import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { isWithin, sightOf, sightsAt } from '../frame/layer-sight';
import { layerId } from '../show/ids';
import type { Channels, GroupLayer, Layer } from '../show/layer';
import { placedAt, sizeNow, sizeValues } from './stand';
import { withColumnKey, withValues } from './column-keys';
import { columnsOf } from './columns';
import { planFrame, prepareShow } from '../frame/plan-frame';
import { withHeldMove } from '../motion/held-move';
import { aroundOf, ASSETS, disc, FACTS, LENGTH_MS, PICTURE, picture, showOf, SMALL } from './slides.testing';

const held = (layer: Layer, group: Partial<GroupLayer>) =>
  showOf([picture('base'), { kind: 'group', id: layerId('g'), layers: [layer], ...group } as GroupLayer]);
const tilt: Channels = { tiltXDegrees: 25, tiltYDegrees: -30, turnDegrees: 15, x: 0.45 };

describe('a layer put where a hand is', () => {
  it.each([
    ['on the slide itself', {}],
    ['in a group that is moved, sized and turned', { channels: { x: 0.7, width: 0.5, height: 0.5, turnDegrees: 70 } }],
    ['in a group that leans', { channels: tilt }],
    [
      'in a space, seen by a camera that turns',
      { space: { distance: 1.6, x: 0.1, z: 0.2, tiltYDegrees: 10, turnDegrees: 5 } },
    ],
  ] satisfies [string, Partial<GroupLayer>][])('is seen exactly there, %s', (_name, group) => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        (x, y) => {
          const layer = disc('d', { channels: { width: 0.2, height: 0.2, z: 0.1 } });
          const place = placedAt(aroundOf(held(layer, group)), layer.id, 1000, { x, y })!;
          const there = withValues(layer, { 'channels/x': place.x, 'channels/y': place.y }, 1000, LENGTH_MS);
          const { centre } = sightOf(aroundOf(held(there, group)), layer.id, 1000)!;
          expect(Math.hypot(centre.x - x, centre.y - y)).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 25 },
    );
  });
  it('that follows another is put beside where that has led it', () => {
    const leader = disc('l', {
      channels: {
        width: 0.2,
        height: 0.2,
        x: {
          keys: [
            { at: { tied: 'start', ms: 0 }, value: 0.2, easing: 'linear' },
            { at: { tied: 'end', ms: 0 }, value: 0.8 },
          ],
        },
      },
    });
    const follower = disc('f', { tether: { to: layerId('l'), position: true, size: true } });
    const place = placedAt(aroundOf(showOf([leader, follower])), follower.id, 3000, { x: 0.5, y: 0.2 })!;
    const there = withValues(follower, { 'channels/x': place.x, 'channels/y': place.y }, 3000, LENGTH_MS);
    expect(sightOf(aroundOf(showOf([leader, there])), follower.id, 3000)!.centre.y).toBeCloseTo(0.2, 6);
  });
  it('is not to be had for one that is not there', () => {
    expect(placedAt(aroundOf(showOf([picture('p')])), layerId('gone'), 0, { x: 0.5, y: 0.5 })).toBeNull();
  });
});

describe('where layers are seen', () => {
  it('is a corner for each of theirs, and a point lies within or without', () => {
    const around = aroundOf(
      showOf([picture('base'), disc('d', { channels: { x: 0.25, y: 0.5, width: 0.2, height: 0.2 } })]),
    );
    const [base, small] = sightsAt(around, 0);
    expect(base!.corners[2]).toEqual({ x: 1, y: 1 });
    expect(small!.corners[0].x).toBeCloseTo(0.15, 9);
    expect([isWithin(small!, { x: 0.3, y: 0.55 }), isWithin(small!, { x: 0.5, y: 0.5 })]).toEqual([true, false]);
  });
  it('moves the other way when a camera looks aside, and nearer when it comes nearer', () => {
    const at = (space: NonNullable<GroupLayer['space']>) =>
      sightOf(aroundOf(held(disc('d'), { space })), layerId('d'), 0)!;
    const rest = at({});
    expect(at({ tiltYDegrees: 10 }).centre.x).toBeLessThan(rest.centre.x - 0.05);
    expect(at({ tiltXDegrees: 10 }).centre.y).toBeGreaterThan(rest.centre.y + 0.05);
    const width = ({ corners }: typeof rest) => corners[1].x - corners[0].x;
    expect(width(at({ z: 1 }))).toBeGreaterThan(1.5 * width(rest));
    const turned = at({ turnDegrees: 90, x: 0.2 }).centre;
    expect([turned.x, turned.y].map((value) => Math.round(value * 1000) / 1000)).toEqual([0.5, expect.any(Number)]);
    expect(Math.abs(turned.y - 0.5)).toBeGreaterThan(0.2);
  });
});

describe('the size of a layer', () => {
  const frame = { widthPx: 1920, heightPx: 1080 };
  it('of a picture that fills the frame begins as the print it is, and keeps its shape', () => {
    const size = sizeNow(picture('p'), FACTS, frame, 0, LENGTH_MS);
    expect(size).toEqual({ width: expect.closeTo(0.84375, 9), height: expect.closeTo(1, 9), says: 'width' });
    expect(sizeValues(size, size.width / 2, size.height / 2)).toEqual({ 'channels/width': size.width / 2 });
    expect(Object.keys(sizeValues(size, 0.5, 0.9))).toEqual(['channels/width', 'channels/height']);
  });
  it('of a picture whose framings were set keeps the frame’s shape, so that they are not stretched', () => {
    const framing = { x: 0.5, y: 0.5, width: 0.8, height: 0.675, turnDegrees: 0 };
    const set = picture('p', { move: { kind: 'set', first: framing, last: framing } });
    expect(sizeNow(set, FACTS, frame, 0, LENGTH_MS)).toEqual({ width: 1, height: 1, says: 'both' });
  });
  it('keyed for the first time changes nothing that is seen, also of a picture that does not fill the frame', () => {
    const upright = { ...PICTURE, widthPx: 2000, heightPx: 3000 };
    const of = (layer: Layer) => prepareShow(showOf([layer]), new Map([[ASSETS[0]!, upright]]));
    const own = picture('p', { move: { kind: 'automatic' } });
    const before = of(own);
    const held = withHeldMove(own, before.moves.get(before.show.slides[0]!.id)!.get(own.id));
    const size = columnsOf(held).find(({ id }) => id === 'size')!;
    const after = of(withColumnKey(held, size, 1000, LENGTH_MS));
    for (const ms of [0, 2000, 5000]) {
      const [one, other] = [before, after].map((show) => planFrame(show, ms, SMALL)!.slide.layers[0]!);
      expect(other!.content).toMatchObject({ framing: (one!.content as { framing: object }).framing });
      expect(other!.toScreen).toEqual(one!.toScreen);
    }
  });
  it('of anything else begins as the frame', () => {
    expect(sizeNow({ kind: 'solid', id: layerId('s'), colour: '#000000' }, FACTS, frame, 0, 1)).toEqual({
      width: 1,
      height: 1,
      says: 'both',
    });
  });
});

describe('a tether', () => {
  const leader = (channels: Channels) => disc('l', { channels: { width: 0.2, height: 0.2, ...channels } });
  const goes = (from: number, to: number) => ({
    keys: [
      { at: { tied: 'start' as const, ms: 0 }, value: from, easing: 'linear' as const },
      { at: { tied: 'end' as const, ms: 0 }, value: to },
    ],
  });
  const centreOf = (layers: Layer[], ms: number) => sightOf(aroundOf(showOf(layers)), layerId('f'), ms)!;
  it('of one direction leaves the other alone', () => {
    const moved = leader({ x: goes(0.3, 0.7), y: goes(0.3, 0.9) });
    const follow = (along?: 'x' | 'y') =>
      centreOf(
        [
          moved,
          disc('f', {
            channels: { x: 0.5, y: 0.5, width: 0.1, height: 0.1 },
            tether: { to: layerId('l'), position: true, ...(along && { along }) },
          }),
        ],
        LENGTH_MS,
      ).centre;
    expect([follow('x').x, follow('x').y].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0.9, 0.5]);
    expect([follow('y').x, follow('y').y].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0.5, 1.1]);
    expect([follow().x, follow().y].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0.9, 1.1]);
  });
  it('of tilt leans as its leader leans, and no further', () => {
    const leaned = leader({ tiltYDegrees: goes(10, 50) });
    const own = disc('f', { channels: { x: 0.5, width: 0.2, height: 0.2 } });
    const alone = centreOf([disc('f', { channels: { x: 0.5, width: 0.2, height: 0.2, tiltYDegrees: 40 } })], LENGTH_MS);
    const led = centreOf([leaned, { ...own, tether: { to: layerId('l'), tilt: true } }], LENGTH_MS);
    led.corners.forEach((corner, index) => {
      expect(corner.x).toBeCloseTo(alone.corners[index]!.x, 9);
      expect(corner.y).toBeCloseTo(alone.corners[index]!.y, 9);
    });
    expect(centreOf([leaned, { ...own, tether: { to: layerId('l'), tilt: true } }], 0).corners[0].x).toBeCloseTo(
      0.4,
      9,
    );
  });
});
