import { describe, expect, it } from '@jest/globals';
import { ASSETS, edited, picture, showOf } from '../layers/slides.testing';
import { layerId, slideId } from './ids';
import { joinSlides } from './layout';

describe('slides whose layers have the same names', () => {
  const show = showOf(
    [picture('below')],
    [
      picture('below', { assetId: ASSETS[1]! }),
      picture('above', { assetId: ASSETS[2]!, mask: { by: 'brightness', cuts: [layerId('below')] } }),
    ],
  );
  it('are joined, each layer with a name of its own, masks on what they cut, and undone exactly', () => {
    const { show: joined, inverse } = edited(show, joinSlides(show, [slideId('1'), slideId('2')], 'grid')!);
    const { layers } = joined.slides[0]!;
    expect(layers.map((layer) => 'assetId' in layer && layer.assetId)).toEqual(ASSETS.slice(0, 3));
    expect(layers.map(({ id }) => id)).toEqual(['below', 'below-2', 'above']);
    expect(layers[2]!.mask).toMatchObject({ cuts: ['below-2'] });
    expect(edited(joined, inverse).show).toEqual(show);
  });
});
