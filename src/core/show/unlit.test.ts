import { expect, it } from '@jest/globals';
import { assetId, layerId, showId } from './ids';
import type { Layer } from './layer';
import { slideFromAsset } from './new-slide';
import { emptyShow } from './show';
import { unlit } from './unlit';

it('takes the light off every picture, in groups too, and leaves slides without any as they are', () => {
  const asset = assetId('a'.repeat(64));
  const facts = {
    kind: 'picture',
    widthPx: 3000,
    heightPx: 2000,
    hasTransparency: false,
    takenAt: null,
    camera: null,
    brightness: 0.5,
  } as const;
  let counted = 0;
  const plain = slideFromAsset(asset, facts, 5000, () => `n${(counted += 1)}`);
  const own = plain.layers[0]!;
  const lit: Layer = { ...own, light: { exposure: 1 } } as Layer;
  const group: Layer = { kind: 'group', id: layerId('g'), layers: [lit] };
  const show = {
    ...emptyShow(showId('s'), 'S'),
    slides: [plain, { ...plain, layers: [lit] }, { ...plain, layers: [group] }],
  };
  const { slides } = unlit(show);
  expect(slides[0]).toBe(plain);
  expect(slides[1]!.layers).toEqual([own]);
  expect(slides[2]!.layers).toEqual([{ ...group, layers: [own] }]);
});
