import { describe, expect, it } from '@jest/globals';
import { applyEdit, type ShowEdit } from './edit';
import { layerId, showId, slideId } from './ids';
import type { Layer } from './layer';
import { blankSlide } from './new-slide';
import { emptyShow, type Show } from './show';

const solid = (id: string): Layer => ({ kind: 'solid', id: layerId(id), colour: '#000000' });
const group = (id: string, ...layers: Layer[]): Layer => ({ kind: 'group', id: layerId(id), layers });
const show: Show = {
  ...emptyShow(showId('s'), ''),
  slides: [
    {
      ...blankSlide(3000, '#000000', () => 's'),
      layers: [solid('a'), group('g', solid('b'), group('h', solid('c'))), solid('d')],
    },
  ],
};
/** “a g(b h(c)) d” */
const told = (layers: readonly Layer[]): string =>
  layers.map((layer) => (layer.kind === 'group' ? `${layer.id}(${told(layer.layers)})` : layer.id)).join(' ');
const ids = (text: string) => text.split(' ').map(layerId);
const place = (...runs: [layers: string, into: string | null, above: string | null][]): ShowEdit => ({
  kind: 'place-layers',
  slideId: slideId('s'),
  runs: runs.map(([layers, into, above]) => ({
    layerIds: ids(layers),
    into: into === null ? null : layerId(into),
    aboveId: above === null ? null : layerId(above),
  })),
});

describe('layers in a pile', () => {
  it.each<[string, ShowEdit, string]>([
    ['are moved to the bottom', place(['d', null, null]), 'd a g(b h(c))'],
    ['into a group, above one of its layers', place(['d a', 'g', 'b']), 'g(b d a h(c))'],
    ['out of a group', place(['c', null, 'a']), 'a c g(b h()) d'],
    ['with their group, and out of it at once', place(['g', null, null], ['b', null, 'd']), 'g(h(c)) a d b'],
    ['into a group that is moved itself', place(['g', null, 'd'], ['a', 'h', 'c']), 'd g(b h(c a))'],
    ['to the top when their place has gone', place(['a', null, 'gone']), 'g(b h(c)) d a'],
    ['to the top when a group would lie in itself', place(['g', 'h', null]), 'a d g(b h(c))'],
    [
      'are removed, in groups too',
      { kind: 'remove-layers', slideId: slideId('s'), layerIds: ids('a c') },
      'g(b h()) d',
    ],
    [
      'are removed with all that they hold',
      { kind: 'remove-layers', slideId: slideId('s'), layerIds: ids('g b') },
      'a d',
    ],
    [
      'are added where they are told',
      {
        kind: 'add-layers',
        slideId: slideId('s'),
        runs: [{ into: layerId('h'), aboveId: null, layers: [solid('x')] }],
      },
      'a g(b h(x c)) d',
    ],
  ])('%s, and come back exactly', (_name, edit, after) => {
    const result = applyEdit(show, edit);
    if (!result.ok) throw new Error(result.sentence);
    expect(told(result.show.slides[0]!.layers)).toBe(after);
    const back = applyEdit(result.show, result.inverse);
    expect(back.ok && back.show).toEqual(show);
  });
});
