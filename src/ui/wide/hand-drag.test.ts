import { describe, expect, it } from '@jest/globals';
import { localOf, sightsAt } from '../../core/frame/layer-sight';
import { aroundOf, disc, picture, showOf } from '../../core/layers/slides.testing';
import { layerId } from '../../core/show/ids';
import {
  angleAbout,
  boundsOfAll,
  caughtTurn,
  nextUnderHand,
  pulledCrop,
  pulledSize,
  seenAt,
  turnBetween,
  underHand,
} from './hand-drag';

const sights = sightsAt(
  aroundOf(
    showOf([
      picture('base'),
      { kind: 'group', id: layerId('g'), layers: [disc('in', { channels: { x: 0.5, width: 0.4, height: 0.4 } })] },
      disc('top', { channels: { x: 0.5, width: 0.2, height: 0.2 } }),
      disc('gone', { channels: { x: 0.5, width: 0.2, height: 0.2 }, hidden: true }),
    ]),
  ),
  0,
);
const free = ({ layer }: (typeof sights)[number]) => !layer.hidden && !layer.locked;

describe('what lies under a hand', () => {
  it('is the nearest first, of a group the whole before what is in it, and nothing that is hidden', () => {
    expect(underHand(sights, { x: 0.5, y: 0.5 }, free)).toEqual(['top', 'g', 'in', 'base']);
    expect(underHand(sights, { x: 0.35, y: 0.5 }, free)).toEqual(['g', 'in', 'base']);
    expect(underHand(sights, { x: 0.05, y: 0.5 }, free)).toEqual(['base']);
  });
  it('is reached by clicking again, round and round', () => {
    const found = underHand(sights, { x: 0.5, y: 0.5 }, free);
    const clicks = [1, 2, 3, 4, 5].reduce<string[]>(
      (chosen) => [...chosen, nextUnderHand(found, new Set(chosen.slice(-1).map(layerId)))!],
      ['top'],
    );
    expect(clicks).toEqual(['top', 'g', 'in', 'base', 'top', 'g']);
    expect(nextUnderHand([], new Set())).toBeNull();
  });
  it('has its own directions, whatever it is turned and tilted by', () => {
    const [leaning] = sightsAt(
      aroundOf(showOf([disc('d', { channels: { width: 0.3, height: 0.3, turnDegrees: 40, tiltYDegrees: 30 } })])),
      0,
    );
    for (const [u, v] of [
      [0, 0],
      [1, 0.5],
      [0.3, 0.8],
    ]) {
      const back = localOf(leaning!, seenAt(leaning!, u!, v!))!;
      expect([back.x, back.y]).toEqual([expect.closeTo(u!, 9), expect.closeTo(v!, 9)]);
    }
  });
  it('is bounded by all of it together', () => {
    const box = boundsOfAll(sights.filter(({ layer }) => layer.id === 'in' || layer.id === 'top'))!;
    expect([box.left, box.top, box.right, box.bottom].map((value) => Math.round(value * 1000) / 1000)).toEqual([
      0.3, 0.3, 0.7, 0.7,
    ]);
    expect(boundsOfAll([])).toBeNull();
  });
});

describe('a handle that is pulled', () => {
  const size = { width: 0.4, height: 0.2, says: 'both' as const };
  it('sizes about the middle, both sides alike at a corner, one at a side', () => {
    expect(pulledSize(size, { u: 1, v: 1 }, { x: 1.5, y: 1.5 }, true)).toEqual({ width: 0.8, height: 0.4 });
    expect(pulledSize(size, { u: 1, v: 1 }, { x: 1.5, y: 1 }, false)).toEqual({ width: 0.8, height: 0.2 });
    expect(pulledSize(size, { u: 1, v: 0.5 }, { x: 0.75, y: 0.9 }, true)).toEqual({ width: 0.2, height: 0.2 });
    expect(pulledSize(size, { u: 0, v: 0 }, { x: 0.5, y: 0.5 }, true).width).toBeGreaterThan(0);
  });
  it('turns by the short way round, and rests upright, level and half way between', () => {
    expect(turnBetween(170, -170)).toBe(20);
    expect(turnBetween(-170, 170)).toBe(-20);
    expect([caughtTurn(1.4), caughtTurn(43.2), caughtTurn(10), caughtTurn(181)]).toEqual([0, 45, 10, 180]);
    expect(angleAbout({ x: 0.5, y: 0.5 }, { x: 0.5, y: 0.9 }, 16 / 9)).toBeCloseTo(90, 9);
    expect(angleAbout({ x: 0.5, y: 0.5 }, { x: 0.5 + 0.09, y: 0.5 + 0.16 }, 16 / 9)).toBeCloseTo(45, 9);
  });
  it('crops a side and always leaves something', () => {
    const crop = { left: 0.1, top: 0, right: 0.2, bottom: 0 };
    expect(pulledCrop(crop, 'left', { x: 0.3, y: 0 })).toBe(0.3);
    expect(pulledCrop(crop, 'right', { x: 0.05, y: 0 })).toBeCloseTo(0.89, 9);
    expect(pulledCrop(crop, 'bottom', { x: 0, y: 1.4 })).toBe(0);
  });
});
