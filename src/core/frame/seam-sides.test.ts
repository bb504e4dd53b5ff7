import { describe, expect, it } from '@jest/globals';
import { slideId } from '../show/ids';
import { ASSETS, disc, picture, PICTURE, prepared, showOf } from '../layers/slides.testing';
import { sidesOfSeam } from './seam-sides';

const framing = { x: 0.4, y: 0.5, width: 0.5, height: 0.5, turnDegrees: 0 };
const ready = prepared(
  showOf(
    [picture('a', { move: { kind: 'set', first: framing, last: framing } })],
    [disc('only-a-disc')],
    [disc('behind'), picture('b', { assetId: ASSETS[2]! })],
  ),
);

describe('the two sides of a seam', () => {
  it('are what the slide before and the slide itself are about, as they move', () => {
    const { leaving, coming } = sidesOfSeam(ready, slideId('2'))!;
    expect(leaving.slide).toBe(ready.show.slides[0]);
    expect(coming.slide).toBe(ready.show.slides[1]);
    expect(leaving.facts).toEqual(PICTURE);
    expect(leaving.move).toMatchObject({ first: framing, last: framing });
    // Of what is no picture nothing is known.
    expect([coming.facts, coming.move]).toEqual([undefined, undefined]);
  });
  it('are looked for beneath and above other layers', () => {
    const { leaving, coming } = sidesOfSeam(ready, slideId('3'))!;
    expect(leaving.facts).toBeUndefined();
    expect(coming.facts).toEqual(PICTURE);
  });
  it('are none at the first slide, nor at one that is not in the show', () => {
    expect(sidesOfSeam(ready, slideId('1'))).toBeNull();
    expect(sidesOfSeam(ready, slideId('gone'))).toBeNull();
  });
});
