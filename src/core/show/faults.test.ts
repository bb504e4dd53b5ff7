import { describe, expect, it } from '@jest/globals';
import { applyEdit, type ShowEdit } from './edit';
import { faultOfShow } from './faults';
import { assetId, layerId, showId, slideId } from './ids';
import type { Layer } from './layer';
import { blankSlide } from './new-slide';
import { isReadable, readable } from './readable';
import { emptyShow, type Show, type Slide } from './show';

const asset = assetId('a'.repeat(64));
const picture = (id: string, more: Partial<Layer> = {}): Layer =>
  ({ kind: 'picture', id: layerId(id), assetId: asset, move: { kind: 'still' }, ...more }) as Layer;
const solid = (id: string, more: Partial<Layer> = {}): Layer =>
  ({ kind: 'solid', id: layerId(id), colour: '#000000', ...more }) as Layer;
const slide = (id: string, layers: readonly Layer[] = []): Slide => ({
  ...blankSlide(3000, '#000000', () => id),
  layers,
});
const show = (...slides: Slide[]): Show => ({ ...emptyShow(showId('s'), ''), slides });
const many = <Made>(count: number, make: (index: number) => Made): Made[] =>
  Array.from({ length: count }, (_, index) => make(index));

describe('what a show as a whole must be', () => {
  it.each<[string, Show, RegExp]>([
    ['slides that can be told apart', show(slide('a'), slide('a')), /same id/],
    ['no more slides than can be shown', show(...many(10_001, (index) => slide(`s${index}`))), /10,000 slides at most/],
    [
      'no more layers than can be drawn',
      show(
        slide(
          'a',
          many(501, (index) => solid(`l${index}`)),
        ),
      ),
      /500 layers at most/,
    ],
    ['a title that can be read at a glance', { ...show(), title: 'x'.repeat(301) }, /title can have 300 letters/],
    [
      'words that can be laid out',
      show(
        slide('a', [
          { kind: 'words', id: layerId('w'), title: '', subtitle: 'x'.repeat(10_001), place: 'top' } as Layer,
        ]),
      ),
      /below the first line can have 10,000 letters/,
    ],
    [
      'layers’ names that can be listed',
      show(slide('a', [solid('x', { name: 'x'.repeat(201) })])),
      /name can have 200/,
    ],
    [
      'no longer than three days',
      show(...many(4, (index) => ({ ...slide(`s${index}`), lengthMs: 24 * 3600_000 }))),
      /72 hours at most/,
    ],
    [
      'layers that can be told apart, in groups too',
      show(slide('a', [solid('x'), { kind: 'group', id: layerId('g'), layers: [solid('x')] }])),
      /same id, x/,
    ],
    [
      'tethers to what is there',
      show(slide('a', [solid('x', { tether: { to: layerId('gone') } })])),
      /tethered to gone/,
    ],
    [
      'masks of what is there',
      show(slide('a', [solid('x', { mask: { by: 'brightness', cuts: [layerId('gone')] } })])),
      /masks gone/,
    ],
    [
      'no ring of masks, a mask of what lies below it counted',
      show(
        slide('a', [
          solid('x', { mask: { by: 'brightness', cuts: [layerId('y')] } }),
          solid('y', { mask: { by: 'brightness', cuts: 'below' } }),
        ]),
      ),
      /in a ring/,
    ],
    [
      'groups no deeper than they can be followed',
      show(
        slide('a', [
          many(13, (index) => index).reduce<Layer>(
            (inner, index) => ({ kind: 'group', id: layerId(`g${index}`), layers: [inner] }),
            solid('x'),
          ),
        ]),
      ),
      /12 deep/,
    ],
    [
      'words that can be written',
      show(slide('a', [{ kind: 'words', id: layerId('w'), title: 'a\u0000b', subtitle: '', place: 'top' }])),
      /cannot be written/,
    ],
    [
      'a frame that is a picture',
      { ...show(), frame: { widthPx: 7680, heightPx: 16, rate: { frames: 30, seconds: 1 } } },
      /4 times as long/,
    ],
    [
      'no more marks than can be kept',
      {
        ...show(),
        marks: Object.fromEntries(many(50_001, (index) => [index.toString(16).padStart(64, '0'), 'keep' as const])),
      },
      /50,000 marks/,
    ],
    [
      'no more cameras than a show’s file can name',
      { ...show(), clocks: Object.fromEntries(many(101, (index) => [`camera ${index}`, 1000])) },
      /clocks of 100 cameras at most/,
    ],
    [
      'no more shapes of a layer than a show’s file can name',
      show(
        slide('a', [
          picture('p', { shapes: Object.fromEntries(many(21, (index) => [`${index + 1}:50`, { hidden: true }])) }),
        ]),
      ),
      /corrected for 20 shapes at most/,
    ],
  ])('has %s', (_name, broken, sentence) => {
    expect(faultOfShow(broken)).toMatch(sentence);
  });
  it('is asked only of what an edit changed', () => {
    const before = show(slide('fine'), slide('broken long ago', [solid('x', { tether: { to: layerId('gone') } })]));
    expect(faultOfShow({ ...before, title: 'New' }, before)).toBeNull();
    expect(faultOfShow({ ...before, slides: [...before.slides].reverse() }, before)).toBeNull();
  });
});

describe('edits that would make a show unsound', () => {
  const full = show(slide('a', [picture('p'), solid('x')]), slide('b'));
  it.each<[string, ShowEdit]>([
    [
      'the same slide moved twice',
      { kind: 'move-slides', runs: [{ afterId: slideId('b'), slideIds: [slideId('a'), slideId('a')] }] },
    ],
    [
      'a slide moved to two places and removed at once',
      {
        kind: 'together',
        name: 'all',
        edits: [
          {
            kind: 'move-slides',
            runs: [
              { afterId: null, slideIds: [slideId('a')] },
              { afterId: null, slideIds: [slideId('a')] },
            ],
          },
          { kind: 'remove-slides', slideIds: [slideId('a')] },
        ],
      },
    ],
    [
      'a layer placed twice and removed at once',
      {
        kind: 'together',
        name: 'all',
        edits: [
          {
            kind: 'place-layers',
            slideId: slideId('a'),
            runs: [{ into: null, aboveId: null, layerIds: [layerId('p'), layerId('p')] }],
          },
          { kind: 'remove-layers', slideId: slideId('a'), layerIds: [layerId('p')] },
        ],
      },
    ],
    [
      'a version with a slide twice',
      { kind: 'set-content', content: { ...full, slides: [full.slides[0]!, full.slides[0]!] } },
    ],
    [
      'a layer too many',
      { kind: 'set-layers', slideId: slideId('a'), layers: many(501, (index) => solid(`l${index}`)) },
    ],
    [
      'the clocks of more cameras than can be read again',
      { kind: 'set-clocks', clocks: many(101, (index) => ({ camera: `camera ${index}`, shiftMs: 1000 })) },
    ],
    [
      'a slide put in with a tether to nothing',
      { kind: 'put-slides', slides: [slide('a', [solid('x', { tether: { to: layerId('gone') } })])] },
    ],
    ['a title with a NUL', { kind: 'rename-show', title: 'a\u0000b' }],
    [
      'words in the place of a picture',
      {
        kind: 'set-words',
        slideId: slideId('a'),
        layerId: layerId('p'),
        words: { title: '', subtitle: '', place: 'top' },
      },
    ],
    [
      'a key beyond what its channel can be',
      {
        kind: 'set-key',
        slideId: slideId('a'),
        layerId: layerId('p'),
        channel: 'opacity',
        at: { tied: 'start', ms: 0 },
        key: { value: 7 },
        after: null,
      },
    ],
    [
      'a light on what has no tones',
      { kind: 'set-light', lights: [{ slideId: slideId('a'), layerId: layerId('x'), light: { exposure: 1 } }] },
    ],
  ])('are refused with a sentence: %s', (_name, edit) => {
    expect(applyEdit(full, edit)).toMatchObject({ ok: false, sentence: expect.stringMatching(/^[A-Z].+\.$/) });
  });
  it('may be so for a moment within a step', () => {
    const step: ShowEdit = {
      kind: 'together',
      name: 'tie and bring',
      edits: [
        {
          kind: 'set-layer-properties',
          slideId: slideId('a'),
          layerId: layerId('x'),
          properties: { tether: { to: layerId('new'), position: true } },
        },
        { kind: 'add-layers', slideId: slideId('a'), runs: [{ into: null, aboveId: null, layers: [solid('new')] }] },
      ],
    };
    expect(applyEdit(full, step).ok).toBe(true);
    expect(applyEdit(full, { ...step, edits: step.edits.slice(0, 1) }).ok).toBe(false);
  });
});

describe('removing layers', () => {
  const tied = show(
    slide('a', [
      picture('p'),
      { kind: 'words', id: layerId('w'), title: 'Dusk', subtitle: '', place: 'top' },
      solid('follows', { tether: { to: layerId('w'), position: true } }),
      solid('cuts', { mask: { by: 'transparency', cuts: [layerId('w'), layerId('p')] } }),
    ]),
  );
  it.each<[string, ShowEdit]>([
    ['as layers', { kind: 'remove-layers', slideId: slideId('a'), layerIds: [layerId('w')] }],
    ['as words', { kind: 'set-words', slideId: slideId('a'), layerId: layerId('w'), words: null }],
  ])('frees what was tied to them, and ties it again when they come back (%s)', (_name, edit) => {
    const result = applyEdit(tied, edit);
    if (!result.ok) throw new Error(result.sentence);
    const [, follows, cuts] = result.show.slides[0]!.layers;
    expect(follows!.tether).toBeUndefined();
    expect(cuts!.mask).toEqual({ by: 'transparency', cuts: ['p'] });
    const back = applyEdit(result.show, result.inverse);
    expect(back.ok && back.show).toEqual(tied);
  });
  it('leaves a mask that cuts nothing any more a mask', () => {
    const result = applyEdit(tied, {
      kind: 'remove-layers',
      slideId: slideId('a'),
      layerIds: [layerId('w'), layerId('p')],
    });
    expect(result.ok && result.show.slides[0]!.layers[1]!.mask).toEqual({ by: 'transparency', cuts: [] });
  });
});

describe('readable text', () => {
  it.each(['plain', 'line\nline\ttab', 'Ελλάς', 'שלום', '🎉 ok', ''])('takes %j', (text) => {
    expect([isReadable(text), readable(text)]).toEqual([true, text]);
  });
  it.each([
    ['a\u0000b', 'ab'],
    ['bell\u0007', 'bell'],
    ['half \ud83d of one', 'half  of one'],
    ['\udc00x', 'x'],
    ['none\uffff', 'none'],
  ])('cleans %j', (text, clean) => {
    expect([isReadable(text), readable(text)]).toEqual([false, clean]);
  });
});
