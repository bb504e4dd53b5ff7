import { describe, expect, it } from '@jest/globals';
import type { ShowEdit } from './edit';
import { assetId, cueId, layerId, showId, slideId } from './ids';
import { songAfter } from './placed-sound';
import { emptyShow, type Show } from './show';
import { collide } from './touched';

const show: Show = {
  ...emptyShow(showId('s'), 'Regatta'),
  slides: ['a', 'b'].map((name) => ({
    id: slideId(name),
    lengthMs: 5000,
    transition: { kind: 'cut' },
    backing: { kind: 'automatic' },
    sounds: [],
    layers: [
      {
        kind: 'picture',
        id: layerId(`picture-${name}`),
        assetId: assetId('a'.repeat(64)),
        move: { kind: 'automatic' },
      },
    ],
  })),
};
const length = (name: string): ShowEdit => ({
  kind: 'set-lengths',
  lengths: [{ slideId: slideId(name), lengthMs: 3000 }],
});
const light = (name: string): ShowEdit => ({
  kind: 'set-light',
  lights: [{ slideId: slideId(name), layerId: layerId(`picture-${name}`), light: { exposure: 1 } }],
});
const words = (name: string): ShowEdit => ({
  kind: 'set-words',
  slideId: slideId(name),
  layerId: layerId('w'),
  words: { title: 'Dusk', subtitle: '', place: 'top' },
});
const remove = (name: string): ShowEdit => ({ kind: 'remove-slides', slideIds: [slideId(name)] });
const put = (name: string): ShowEdit => ({
  kind: 'put-slides',
  slides: show.slides.filter((slide) => slide.id === name),
});
const added = (name: string): ShowEdit => ({
  kind: 'add-slides',
  runs: [{ afterId: slideId('a'), slides: [{ ...show.slides[0]!, id: slideId(name) }] }],
});
const layerAdded = (name: string): ShowEdit => ({
  kind: 'add-layers',
  slideId: slideId(name),
  runs: [{ into: null, aboveId: null, layers: [{ ...show.slides[0]!.layers[0]!, id: layerId('new') }] }],
});
const soundAdded = (name: string | null): ShowEdit => ({
  kind: 'add-sounds',
  slideId: name === null ? null : slideId(name),
  runs: [{ afterId: null, sounds: [songAfter(cueId('new'), assetId('c'.repeat(64)), 0)] }],
});

describe('two windows that wrote without knowing of each other', () => {
  it.each<[string, ShowEdit, ShowEdit]>([
    ['the length of the same slide', length('a'), length('a')],
    ['the same words', words('a'), words('a')],
    ['the light of the same picture', light('a'), light('a')],
    ['the light of a picture, and its whole slide', light('b'), put('b')],
    ['a removed slide, and its words', remove('a'), words('a')],
    [
      'all layers of a slide, and the light of one',
      { kind: 'set-layers', slideId: slideId('a'), layers: [] },
      light('a'),
    ],
    ['the whole show, and its title', { kind: 'set-content', content: show }, { kind: 'rename-show', title: 'Dusk' }],
    [
      'a step of several edits, one of them the same',
      { kind: 'together', name: 'do two', edits: [length('b'), words('a')] },
      words('a'),
    ],
    [
      'the same mark',
      { kind: 'set-marks', marks: [{ assetId: assetId('b'.repeat(64)), mark: 'keep' }] },
      { kind: 'set-marks', marks: [{ assetId: assetId('b'.repeat(64)), mark: null }] },
    ],
    ['a new slide, and the whole show', added('n'), { kind: 'set-content', content: show }],
    [
      'a new layer, and all layers of its slide',
      layerAdded('a'),
      { kind: 'set-layers', slideId: slideId('a'), layers: [] },
    ],
    ['a new layer, and its whole slide', layerAdded('b'), put('b')],
    ['a new layer, and the removal of its slide', layerAdded('a'), remove('a')],
    ['a new song, and all songs', soundAdded(null), { kind: 'set-cues', cues: [] }],
    ['a new sound of a slide, and its whole slide', soundAdded('b'), put('b')],
  ])('collide over %s, whoever came first', (_name, one, other) => {
    expect([collide([one], [other]), collide([other], [one])]).toEqual([true, true]);
  });
  it.each<[string, ShowEdit, ShowEdit]>([
    ['lengths of two slides', length('a'), length('b')],
    ['the length and the words of one slide', length('a'), words('a')],
    ['the light of one and the removal of another', light('a'), remove('b')],
    ['a new slide and any other work', { kind: 'add-slides', runs: [{ afterId: null, slides: [] }] }, remove('b')],
    ['two new slides', added('n'), added('m')],
    ['new layers of two slides', layerAdded('a'), layerAdded('b')],
    ['a new layer and the light of another', layerAdded('a'), light('a')],
    ['a new song and a sound of a slide', soundAdded(null), soundAdded('a')],
    ['a new slide and the removal of another', added('n'), remove('b')],
    ['title and pace', { kind: 'rename-show', title: 'Dusk' }, { kind: 'set-default-length', lengthMs: 4000 }],
  ])('do not collide over %s', (_name, one, other) => {
    expect([collide([one], [other]), collide([other], [one])]).toEqual([false, false]);
  });
});
