import { describe, expect, it } from '@jest/globals';
import { aroundOf, disc, showOf, SMALL } from '../layers/slides.testing';
import type { Channels } from '../show/layer';
import { layerId } from '../show/ids';
import { isWithin, localOf, sightOf, sightsAt, type LayerSight } from './layer-sight';

const seen = (channels: Channels): LayerSight =>
  sightOf({ ...aroundOf(showOf([disc('d', { channels })])), frame: SMALL }, layerId('d'), 1000)!;

describe('where a layer is seen', () => {
  it('is its box in the frame, however it is turned', () => {
    const { corners, centre } = seen({ x: 0.5, y: 0.4, width: 0.5, height: 0.4 });
    expect(centre.x).toBeCloseTo(0.5, 6);
    expect(centre.y).toBeCloseTo(0.4, 6);
    expect(corners.map(({ x, y }) => [x, y].map((at) => Number(at.toFixed(6))))).toEqual([
      [0.25, 0.2],
      [0.75, 0.2],
      [0.75, 0.6],
      [0.25, 0.6],
    ]);
  });
  it.each([0, 30, 90, 200])(
    'has within it what lies in its box when it is turned by %i°, and nothing else',
    (turnDegrees) => {
      const sight = seen({ x: 0.45, y: 0.55, width: 0.4, height: 0.3, turnDegrees });
      let [inside, outside] = [0, 0];
      for (let x = 0.01; x < 1; x += 0.031)
        for (let y = 0.02; y < 1; y += 0.029) {
          const local = localOf(sight, { x, y })!;
          const lies = local.x >= 0 && local.x <= 1 && local.y >= 0 && local.y <= 1;
          if (lies) inside += 1;
          else outside += 1;
          expect([x, y, isWithin(sight, { x, y })]).toEqual([x, y, lies]);
        }
      expect(Math.min(inside, outside)).toBeGreaterThan(30);
    },
  );
  it('is nowhere for one that is not on the slide, and has no inside seen edge-on', () => {
    const around = aroundOf(showOf([disc('d')]));
    expect(sightOf(around, layerId('gone'), 0)).toBeNull();
    expect(sightsAt(around, 0).map(({ layer }) => layer.id)).toEqual(['d']);
    expect(localOf({ toFrame: [0, 0, 5, 0, 0, 5, 0, 0, 1] }, { x: 5, y: 5 })).toBeNull();
  });
});
