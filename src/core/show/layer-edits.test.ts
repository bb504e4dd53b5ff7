import { describe, expect, it } from '@jest/globals';
import { applyEdit, type ShowEdit } from './edit';
import { editSentence } from './edit-sentence';
import { assetId, layerId, showId, slideId, type LayerId, type SlideId } from './ids';
import { everyLayer, type GroupLayer, type PictureLayer } from './layer';
import { assetIdsOf, emptyShow, mainLayerOf, type Show, type Slide } from './show';

const [A, B, C] = ['1', '2', '3'].map((digit) => assetId(digit.repeat(64))) as [
  ReturnType<typeof assetId>,
  ReturnType<typeof assetId>,
  ReturnType<typeof assetId>,
];
const picture = (id: string, asset = A, more: Partial<PictureLayer> = {}): PictureLayer => ({
  kind: 'picture',
  id: layerId(id),
  assetId: asset,
  move: { kind: 'still' },
  ...more,
});
const slide = (id: string, layers: Slide['layers'], more: Partial<Slide> = {}): Slide => ({
  id: slideId(id),
  lengthMs: 4000,
  transition: { kind: 'cut' },
  backing: { kind: 'automatic' },
  sounds: [],
  layers,
  ...more,
});
const group: GroupLayer = { kind: 'group', id: layerId('g'), layers: [picture('inner', B)] };
const show: Show = {
  ...emptyShow(showId('x'), ''),
  slides: [
    slide('one', [picture('p')]),
    slide('two', [
      group,
      {
        kind: 'words',
        id: layerId('w'),
        title: 'Boats',
        subtitle: '',
        place: 'top',
        style: { size: 0.1 },
        tether: { to: layerId('inner'), position: true },
      },
    ]),
    slide('three', []),
  ],
};

/** “two inner”: the layer of that name on slide two. */
function at(name: string): { slideId: SlideId; layerId: LayerId } {
  const [slideName, layer] = name.split(' ') as [string, string];
  return { slideId: slideId(slideName), layerId: layerId(layer) };
}

function done(edit: ShowEdit, on = show): { show: Show; inverse: ShowEdit } {
  const result = applyEdit(on, edit);
  if (!result.ok) throw new Error(result.reason);
  // Whatever an edit does, its inverse gives back.
  const back = applyEdit(result.show, result.inverse);
  expect(back.ok && back.show).toEqual(on);
  return result;
}

describe('edits of layers', () => {
  it('set a light, in groups too, and leave other slides as they are', () => {
    const { show: lit } = done({
      kind: 'set-light',
      lights: [{ slideId: slideId('two'), layerId: layerId('inner'), light: { exposure: 1 } }],
    });
    expect([...everyLayer(lit.slides[1]!.layers)].find((layer) => layer.id === 'inner')).toMatchObject({
      light: { exposure: 1 },
    });
    expect([lit.slides[0], lit.slides[2]]).toEqual([show.slides[0], show.slides[2]]);
    expect(lit.slides[0]).toBe(show.slides[0]);
  });
  it('set several at once and take them away again', () => {
    const lights = (['one p', 'two inner'] as const).map((name) => ({ ...at(name), light: { sepia: 1 } }));
    const { show: lit, inverse } = done({ kind: 'set-light', lights });
    expect(inverse).toEqual({
      kind: 'set-light',
      lights: [
        { ...at('one p'), light: null, by: null },
        { ...at('two inner'), light: null, by: null },
      ],
    });
    expect(done({ kind: 'set-light', lights: lights.map((entry) => ({ ...entry, light: null })) }, lit).show).toEqual(
      show,
    );
  });
  it('set an edge', () => {
    expect(
      done({ kind: 'set-edge', edges: [{ ...at('one p'), edge: { feather: 0.1 } }] }).show.slides[0]!.layers[0],
    ).toMatchObject({ edge: { feather: 0.1 } });
  });
  it('crop pictures, in groups too, with the moves they have under it', () => {
    const crop = { x: 0.5, y: 0.5, width: 0.5, height: 0.5, turnDegrees: 3 };
    const { show: cropped, inverse } = done({
      kind: 'set-crops',
      crops: (['one p', 'two inner'] as const).map((name) => ({ ...at(name), crop, move: { kind: 'automatic' } })),
    });
    expect([...everyLayer(cropped.slides[1]!.layers)].find((layer) => layer.id === 'inner')).toMatchObject({
      crop,
      move: { kind: 'automatic' },
    });
    expect(inverse).toMatchObject({
      crops: [
        { layerId: 'p', crop: null, move: { kind: 'still' } },
        { layerId: 'inner', crop: null },
      ],
    });
    expect(
      done({ kind: 'set-crops', crops: [{ ...at('one p'), crop: null, move: { kind: 'still' } }] }, cropped).show
        .slides[0]!.layers[0],
    ).toEqual(show.slides[0]!.layers[0]);
    expect(
      applyEdit(show, { kind: 'set-crops', crops: [{ ...at('two w'), crop, move: { kind: 'still' } }] }),
    ).toMatchObject({ ok: false, reason: 'layer-not-found' });
    expect(editSentence(inverse)).toBe('crop 2 pictures');
  });
  it('set everything on a slide', () => {
    expect(
      done({ kind: 'set-layers', slideId: slideId('three'), layers: [picture('new', C)] }).show.slides[2]!.layers,
    ).toHaveLength(1);
  });
  it('change what words say and keep the rest of their layer', () => {
    const { show: changed } = done({
      kind: 'set-words',
      slideId: slideId('two'),
      layerId: layerId('w'),
      words: { title: 'Pies', subtitle: '', place: 'top' },
    });
    expect(changed.slides[1]!.layers[1]).toEqual({
      kind: 'words',
      id: 'w',
      title: 'Pies',
      subtitle: '',
      place: 'top',
      tether: { to: 'inner', position: true },
      chosen: { words: 'hand' },
    });
  });
  it('bring back removed words with all there was to them', () => {
    done({ kind: 'set-words', slideId: slideId('two'), layerId: layerId('w'), words: null });
  });
  it.each([
    [{ kind: 'set-light', lights: [{ ...at('one ghost'), light: null }] }, 'layer-not-found'],
    [{ kind: 'set-edge', edges: [{ ...at('one ghost'), edge: null }] }, 'layer-not-found'],
    [{ kind: 'set-layers', slideId: slideId('ghost'), layers: [] }, 'slide-not-found'],
  ] as [ShowEdit, string][])('are refused for what is not there: %j', (edit, reason) => {
    expect(applyEdit(show, edit)).toMatchObject({ ok: false, reason });
  });
  it('say what they do', () => {
    expect(editSentence({ kind: 'set-light', lights: [{ ...at('one p'), light: null }] })).toBe('change the light');
    expect(
      editSentence({ kind: 'set-edge', edges: ['one p', 'one q'].map((name) => ({ ...at(name), edge: null })) }),
    ).toBe('change the edges of 2 pictures');
  });
});

describe('a show’s files', () => {
  it('are found wherever they are: in groups, on backs, on boxes, behind slides, in patterns', () => {
    const face = (asset: typeof A) => ({ kind: 'picture', assetId: asset }) as const;
    const plain = { kind: 'colour', colour: '#000000' } as const;
    const everywhere: Show = {
      ...show,
      slides: [
        slide('1', [{ kind: 'group', id: layerId('g'), layers: [picture('a', A, { back: { assetId: B } })] }]),
        slide('2', [
          {
            kind: 'box',
            id: layerId('b'),
            depth: 0.1,
            faces: { front: face(C), back: plain, left: plain, right: plain, top: plain, bottom: plain },
          },
        ]),
        slide('3', [], {
          backing: { kind: 'picture', assetId: assetId('4'.repeat(64)) },
          transition: { kind: 'pattern', lengthMs: 500, pattern: { assetId: assetId('5'.repeat(64)) } },
        }),
      ],
    };
    expect(assetIdsOf(everywhere).map((id) => id[0])).toEqual(['1', '2', '3', '4', '5']);
  });
  it('name a slide by its lowest picture, in groups too', () => {
    expect(mainLayerOf(show.slides[1]!)?.id).toBe('inner');
    expect(mainLayerOf(show.slides[2]!)).toBeNull();
  });
});
