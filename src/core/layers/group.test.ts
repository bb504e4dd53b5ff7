import { describe, expect, it } from '@jest/globals';
import { sightOf } from '../frame/layer-sight';
import { layerId } from '../show/ids';
import type { GroupLayer, Layer } from '../show/layer';
import { layerIn } from '../show/pile';
import { grouped, ungrouped, type Restacked } from './group';
import { aroundOf, disc, edited, ids, picture, seen, showOf, SMALL } from './slides.testing';

const nameOf = (id: string) => id;
const made = (result: Restacked) => {
  if (!result.ok) throw new Error(result.sentence);
  return result.edit;
};
const refusal = (result: Restacked) => (result.ok ? null : result.sentence);
const keys = (from: number, to: number) => ({
  keys: [
    { at: { tied: 'start' as const, ms: 500 }, value: from },
    { at: { tied: 'end' as const, ms: 500 }, value: to },
  ],
});
const moving = disc('moving', {
  channels: { x: keys(0.2, 0.8), y: keys(0.3, 0.6), width: 0.2, height: 0.3, turnDegrees: 20 },
});
const cutting = disc('cutting', {
  channels: { x: 0.6, width: 0.5, height: 0.9 },
  mask: { by: 'transparency', cuts: 'below' },
});
const pile: Layer[] = [
  picture('base'),
  moving,
  cutting,
  disc('top', { channels: { x: 0.8, width: 0.1, height: 0.2, opacity: 0.5 } }),
];

describe('grouping', () => {
  it.each([
    ['neighbours', ['base', 'moving']],
    ['what a mask above cuts', ['moving']],
    ['a mask with what it cuts', ['moving', 'cutting']],
    ['a mask alone', ['cutting']],
    ['all', ['base', 'moving', 'cutting', 'top']],
  ])('of %s changes no frame, and is undone exactly', (_name, chosen) => {
    const show = showOf(pile);
    const { show: after, inverse } = edited(
      show,
      made(grouped(show.slides[0]!, ids(...chosen), layerId('g'), 'Group')),
    );
    expect((layerIn(after.slides[0]!.layers, layerId('g')) as GroupLayer).layers.map(({ id }) => id)).toEqual(chosen);
    expect(seen(after)).toEqual(seen(show));
    expect(edited(after, inverse).show).toEqual(show);
  });
  it('is refused where another would change places, and for layers of different groups', () => {
    const [slide] = showOf(pile).slides;
    expect(refusal(grouped(slide!, ids('base', 'top'), layerId('g'), 'Group'))).toMatch(/Another layer lies between/);
    const [nested] = showOf([{ kind: 'group', id: layerId('h'), layers: [moving] }, picture('base')]).slides;
    expect(refusal(grouped(nested!, ids('moving', 'base'), layerId('g'), 'Group'))).toMatch(/different groups/);
    expect(refusal(grouped(slide!, ids(), layerId('g'), 'Group'))).toMatch(/Choose/);
  });
});

describe('taking a group apart', () => {
  const held = (
    group: Partial<GroupLayer>,
    inner: readonly Layer[] = [moving, disc('other', { channels: { x: 0.3, width: 0.2, height: 0.2 } })],
  ) =>
    showOf([picture('base'), { kind: 'group', id: layerId('g'), layers: inner, ...group } as GroupLayer, disc('top')]);
  it.each([
    ['does nothing', {}],
    ['moves its layers', { channels: { x: 0.4, y: 0.7, z: -0.2 } }],
    ['makes them smaller', { channels: { x: 0.3, width: 0.6, height: 0.6 } }],
    ['turns them', { channels: { x: 0.55, width: 0.8, height: 0.8, turnDegrees: 33 } }],
  ] satisfies [string, Partial<GroupLayer>][])('that %s changes no frame, and is undone exactly', (_name, group) => {
    const show = held(group);
    const { show: after, inverse } = edited(show, made(ungrouped(show.slides[0]!, layerId('g'), nameOf, show.frame)));
    expect(layerIn(after.slides[0]!.layers, layerId('g'))).toBeNull();
    expect(after.slides[0]!.layers.map(({ id }) => id)).toEqual(['base', 'moving', 'other', 'top']);
    expect(seen(after)).toEqual(seen(show));
    expect(edited(after, inverse).show).toEqual(show);
  });
  it.each([
    ['moves by keys', { channels: { x: keys(0.2, 0.7) } }, /keys of its own/],
    ['is faded as a whole', { channels: { opacity: 0.5 } }, /as a whole/],
    ['has a space', { space: {} }, /space and a camera/],
    ['leans', { channels: { tiltXDegrees: 20 } }, /leans/],
    ['is drawn wider', { channels: { width: 0.9, height: 0.4 } }, /one size/],
    ['follows', { tether: { to: layerId('base'), position: true } }, /follows another/],
  ] satisfies [string, Partial<GroupLayer>, RegExp][])(
    'that %s is refused with the reason',
    (_name, group, sentence) => {
      const show = held(group);
      expect(refusal(ungrouped(show.slides[0]!, layerId('g'), nameOf, show.frame))).toMatch(sentence);
    },
  );
  it('is refused where another layer follows it, and where a picture would lose what it fills', () => {
    const followed = held({});
    const show = {
      ...followed,
      slides: [
        {
          ...followed.slides[0]!,
          layers: [...followed.slides[0]!.layers, disc('f', { tether: { to: layerId('g'), size: true } })],
        },
      ],
    };
    expect(refusal(ungrouped(show.slides[0]!, layerId('g'), nameOf, show.frame))).toMatch(/“f” follows this group/);
    const filled = held({ channels: { width: 0.5, height: 0.5 } }, [picture('inside')]);
    expect(refusal(ungrouped(filled.slides[0]!, layerId('g'), nameOf, filled.frame))).toMatch(/size of its own/);
  });
});

describe('a mask kept out of its group', () => {
  it('stays where it is when the group moves', () => {
    const at = (x: number) =>
      aroundOf(
        showOf([
          { kind: 'group', id: layerId('g'), layers: [picture('p')], channels: { x } },
          disc('m', { mask: { by: 'transparency', cuts: [layerId('g')] } }),
        ]),
      );
    const [before, after] = [at(0.5), at(0.8)].map((around) => sightOf(around, layerId('m'), 1000)!.centre);
    expect(after).toEqual(before);
    expect(sightOf(at(0.8), layerId('p'), 1000)!.centre.x).toBeCloseTo(0.8, 9);
    expect(SMALL.widthPx).toBe(320);
  });
  it('gives the same frames in whatever order things were made', () => {
    const [base, glass, mask] = [picture('base'), disc('glass', { channels: { width: 0.8, height: 0.8 } }), disc('m')];
    const cuts = { mask: { by: 'transparency' as const, cuts: [layerId('glass')] } };
    const lay = (layer: Layer, aboveId: string | null) => ({
      kind: 'add-layers' as const,
      slideId: showOf([]).slides[0]!.id,
      runs: [{ into: null, aboveId: aboveId === null ? null : layerId(aboveId), layers: [layer] }],
    });
    const cut = {
      kind: 'set-layer-properties' as const,
      slideId: showOf([]).slides[0]!.id,
      layerId: layerId('m'),
      properties: cuts,
    };
    const orders = [
      [lay(base, null), lay(glass, 'base'), lay(mask, 'glass'), cut],
      [lay(mask, null), lay(base, null), lay(glass, 'base'), cut],
      [lay(glass, null), lay({ ...mask, ...cuts }, 'glass'), lay(base, null)],
      [lay(glass, null), lay(mask, 'glass'), cut, lay(base, null)],
    ];
    const frames = orders.map((edits) => seen(edits.reduce((show, edit) => edited(show, edit).show, showOf([]))));
    for (const other of frames.slice(1)) expect(other).toEqual(frames[0]);
  });
});
