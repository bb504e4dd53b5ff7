import { describe, expect, it } from '@jest/globals';
import type { AssetFacts } from '../show/asset-facts';
import { assetId, layerId, showId, slideId } from '../show/ids';
import type { BoxLayer, Edge, Layer, PictureLayer, ShapeLayer } from '../show/layer';
import { emptyShow, type Show, type Slide } from '../show/show';
import type { LayerPlan } from './frame-plan';
import { inverse3, mapped, projected } from './matrix';
import { boxFaces } from './box-faces';
import { blankSlide } from '../show/new-slide';
import { sizesFor } from './picture-size';
import { planSlide, prepareShow } from './plan-frame';
import { facesEye, farToNear } from './space-order';
import { rotation, scaling, times4, translation, type Matrix4 } from './matrix';

const WIDE = assetId('1'.repeat(64));
const facts = new Map<typeof WIDE, AssetFacts>([
  [
    WIDE,
    {
      kind: 'picture',
      widthPx: 6000,
      heightPx: 4000,
      hasTransparency: false,
      takenAt: null,
      camera: null,
      brightness: 0.5,
    },
  ],
]);
const HD = { widthPx: 1600, heightPx: 900 };
const picture = (id: string, more: Partial<PictureLayer> = {}): PictureLayer => ({
  kind: 'picture',
  id: layerId(id),
  assetId: WIDE,
  move: { kind: 'still' },
  ...more,
});
const keyed = (from: number, to: number) => ({
  keys: [
    { at: { tied: 'start' as const, ms: 0 }, value: from, easing: 'linear' as const },
    { at: { tied: 'end' as const, ms: 0 }, value: to },
  ],
});

function planned(layers: readonly Layer[], offsetMs = 0): readonly LayerPlan[] {
  const slide: Slide = {
    id: slideId('s'),
    lengthMs: 4000,
    transition: { kind: 'cut' },
    backing: { kind: 'automatic' },
    sounds: [],
    layers,
  };
  const show: Show = { ...emptyShow(showId('x'), ''), slides: [slide] };
  return planSlide(prepareShow(show, facts), 0, offsetMs, HD).layers;
}
const corners = (plan: LayerPlan) =>
  [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ].map(([x, y]) => {
    const at = mapped(plan.toScreen, x!, y!);
    return [Math.round(at.x * 100) / 100, Math.round(at.y * 100) / 100];
  });
const middle = (plan: LayerPlan) => {
  const at = mapped(plan.toScreen, 0.5, 0.5);
  return [Math.round(at.x * 10) / 10, Math.round(at.y * 10) / 10];
};
const widthOf = (plan: LayerPlan) => {
  const [a, b] = corners(plan);
  return Math.hypot(b![0]! - a![0]!, b![1]! - a![1]!);
};

describe('where layers stand', () => {
  it('fills the frame without channels, and is then drawn the plain way', () => {
    const [plan] = planned([picture('a')]);
    expect(corners(plan!)).toEqual([
      [0, 0],
      [1600, 0],
      [1600, 900],
      [0, 900],
    ]);
    expect(plan!.plain).toBe(true);
  });
  it('keeps a picture’s shape when only its width is given', () => {
    const [plan] = planned([picture('a', { channels: { width: 0.3 } })]);
    expect(corners(plan!)).toEqual([
      [560, 290],
      [1040, 290],
      [1040, 610],
      [560, 610],
    ]);
  });
  it('turns clockwise, leans the top away, leans the right side away', () => {
    const of = (channels: PictureLayer['channels']) =>
      corners(planned([picture('a', { channels: { width: 0.3, ...channels } })])[0]!);
    expect(of({ turnDegrees: 90 })[0]).toEqual([960, 210]);
    const [a, b, c, d] = of({ tiltXDegrees: 40 }) as [number[], number[], number[], number[]];
    expect(b[0]! - a[0]!).toBeLessThan(c[0]! - d[0]!);
    const [e, f, g, h] = of({ tiltYDegrees: 40 }) as [number[], number[], number[], number[]];
    expect(g[1]! - f[1]!).toBeLessThan(h[1]! - e[1]!);
  });
  it('shows the back, the right way round, when it is turned away', () => {
    const [front] = planned([picture('a', { channels: { width: 0.3 } })]);
    const [back] = planned([picture('a', { channels: { width: 0.3, tiltYDegrees: 180 }, back: { assetId: WIDE } })]);
    expect(corners(back!)).toEqual(corners(front!));
  });
  it('flips across and down, within its box, and from behind the other way', () => {
    const of = (more: Partial<PictureLayer>) =>
      corners(planned([picture('a', { channels: { width: 0.3 }, ...more })])[0]!);
    const [a, b, c, d] = of({});
    expect(of({ flip: { across: true } })).toEqual([b, a, d, c]);
    expect(of({ flip: { down: true } })).toEqual([d, c, b, a]);
    expect(
      of({ flip: { across: true }, channels: { width: 0.3, tiltYDegrees: 180 }, back: { assetId: WIDE } }),
    ).toEqual([b, a, d, c]);
    expect(planned([picture('a', { flip: { across: true } })])[0]!.plain).toBe(false);
  });
  it('carries what is in a group, also what has no channels of its own', () => {
    const words: Layer = { kind: 'words', id: layerId('w'), title: 'Dusk', subtitle: '', place: 'centre' };
    const moved = { x: 0.25, y: 0.25, width: 0.5, height: 0.5 };
    const plans = planned(
      [
        { kind: 'group', id: layerId('g'), channels: moved, layers: [picture('p'), words] },
        { kind: 'group', id: layerId('h'), layers: [picture('q')] },
      ],
      2000,
    );
    expect(plans.map((plan) => [plan.content.kind, plan.plain, middle(plan)])).toEqual([
      ['picture', false, [400, 225]],
      ['words', false, [400, 225]],
      ['picture', true, [800, 450]],
    ]);
    expect(widthOf(plans[0]!)).toBeCloseTo(800, 5);
  });
  it('moves a picture by its own slide’s framing, whatever layers of other slides are called', () => {
    const framing = (x: number) => ({ x, y: 0.5, width: 0.4, height: 0.4, turnDegrees: 0 });
    const slide = (id: string, x: number): Slide => ({
      ...blankSlide(4000, '#000000', () => id),
      layers: [picture('same', { move: { kind: 'set', first: framing(x), last: framing(x) } })],
    });
    const prepared = prepareShow({ ...emptyShow(showId('x'), ''), slides: [slide('a', 0.3), slide('b', 0.7)] }, facts);
    expect([0, 1].map((index) => planSlide(prepared, index, 1000, HD).layers[0]!.content)).toMatchObject([
      { framing: { x: 0.3 } },
      { framing: { x: 0.7 } },
    ]);
  });
  it('moves a group’s layers as one, sizes and turns included', () => {
    const [plan] = planned([
      {
        kind: 'group',
        id: layerId('g'),
        channels: { x: 0.75, width: 0.5, height: 0.5 },
        layers: [picture('a', { channels: { x: 0, y: 0.5, width: 0.4 } })],
      },
    ]);
    expect(middle(plan!)).toEqual([800, 450]);
    expect(widthOf(plan!)).toBeCloseTo(320, 1);
  });
  it('leaves hidden layers and layers without opacity out', () => {
    expect(planned([picture('a', { hidden: true }), picture('b', { channels: { opacity: 0 } })])).toEqual([]);
  });
});

describe('tethers', () => {
  const leader = (more: Partial<PictureLayer> = {}) =>
    picture('lead', {
      channels: { x: keyed(0.2, 0.6), y: 0.5, width: keyed(0.2, 0.4), turnDegrees: keyed(0, 90) },
      ...more,
    });
  const follower = (tether: NonNullable<PictureLayer['tether']>) =>
    picture('follow', { channels: { x: 0.3, y: 0.5, width: 0.05 }, tether });
  const at = (
    tether: Partial<NonNullable<PictureLayer['tether']>>,
    offsetMs: number,
    order: 'before' | 'after' = 'after',
  ) => {
    const layers = [leader(), follower({ to: layerId('lead'), ...tether })];
    return planned(order === 'after' ? layers : layers.reverse(), offsetMs)[order === 'after' ? 1 : 0]!;
  };
  it('leave the follower where it is at the start', () => {
    expect(middle(at({ position: true, size: true, turn: true }, 0))).toEqual([480, 450]);
  });
  it('carry position with the follower’s own offset', () => {
    expect(middle(at({ position: true }, 4000))).toEqual([1120, 450]);
    expect(widthOf(at({ position: true }, 4000))).toBeCloseTo(80, 3);
  });
  it('grow the offset with the leader’s size', () => {
    expect(middle(at({ position: true, size: true }, 4000))).toEqual([1280, 450]);
    expect(widthOf(at({ position: true, size: true }, 4000))).toBeCloseTo(160, 3);
  });
  it('take the offset round with the leader’s turn', () => {
    expect(middle(at({ position: true, size: true, turn: true }, 4000))).toEqual([960, 770]);
  });
  it('do not mind which layer was made first', () => {
    expect(corners(at({ position: true, turn: true }, 2500, 'before'))).toEqual(
      corners(at({ position: true, turn: true }, 2500, 'after')),
    );
  });
  it('follow the picture itself while its move zooms, so that a mark on it stays on it', () => {
    const zoom: PictureLayer['move'] = {
      kind: 'set',
      first: { x: 0.5, y: 0.5, width: 1, height: 0.84375, turnDegrees: 0 },
      last: { x: 0.25, y: 0.5, width: 0.5, height: 0.421875, turnDegrees: 0 },
    };
    const layers = [
      picture('lead', { move: zoom }),
      picture('mark', {
        channels: { x: 0.25, y: 0.5, width: 0.05 },
        tether: { to: layerId('lead'), position: true, size: true },
      }),
    ];
    // A quarter from the left of the whole picture is where the last framing looks.
    expect(middle(planned(layers, 4000)[1]!)).toEqual([800, 450]);
    expect(widthOf(planned(layers, 4000)[1]!)).toBeCloseTo(160, 3);
  });
  it('carry opacity', () => {
    const layers = [
      picture('lead', { channels: { opacity: keyed(1, 0) } }),
      picture('f', { channels: { opacity: 0.8 }, tether: { to: layerId('lead'), opacity: true } }),
    ];
    expect(planned(layers, 2000)[1]!.opacity).toBeCloseTo(0.4, 3);
  });
});

describe('masks', () => {
  it('are not seen themselves and cut the layer below, other masks passed over', () => {
    const mask = (id: string): Layer => ({
      kind: 'solid',
      id: layerId(id),
      colour: '#ffffff',
      mask: { by: 'brightness', cuts: 'below' },
    });
    const plans = planned([picture('a'), picture('b'), mask('m'), mask('n')]);
    expect(plans.map((plan) => plan.masks.length)).toEqual([0, 2]);
  });
  it('cut named layers wherever they are, groups too, and stand outside them', () => {
    const plans = planned([
      {
        kind: 'solid',
        id: layerId('m'),
        colour: '#ffffff',
        channels: { x: 0.2 },
        mask: { by: 'transparency', inverted: true, feather: 0.01, cuts: [layerId('inner'), layerId('g')] },
      },
      {
        kind: 'group',
        id: layerId('g'),
        channels: { x: 0.8 },
        layers: [picture('inner', { channels: { width: 0.3 } })],
      },
    ]);
    expect(plans).toHaveLength(1);
    const [group] = plans;
    expect(group!.masks[0]).toMatchObject({ by: 'transparency', inverted: true, featherPx: 9 });
    expect(middle(group!.masks[0]!.layer)).toEqual([320, 450]);
    expect(group!.content.kind === 'group' && group!.content.layers[0]!.masks).toHaveLength(1);
  });
});

describe('depth', () => {
  const eye = { x: 0, y: 0, distance: 1000 };
  const plane = (
    name: string,
    x: number,
    y: number,
    z: number,
    tiltY = 0,
    side = 200,
  ): { name: string; box: Matrix4 } => ({
    name,
    box: times4(
      translation(x, y, z),
      times4(rotation(0, 0, tiltY), times4(scaling(side, side, 1), translation(-0.5, -0.5, 0))),
    ),
  });
  /** Faces turned to the eye of boxes that stand in a leaning circle. `stretch` makes them so large that they reach into each other. */
  const ringOfBoxes = (count: number, turned: number, stretch = 1): { name: string; box: Matrix4 }[] => {
    const side = (stretch * 1500) / Math.max(6, count);
    const faces = { kind: 'colour', colour: '#ffffff' } as const;
    return Array.from({ length: count }, (_, index) => {
      const angle = (index * 360) / count + turned;
      const around = times4(rotation(0, 24, 0), rotation(0, 0, angle));
      const box = times4(
        translation(0, 0, -200),
        times4(around, times4(translation(0, 0, 420), times4(scaling(side, side, 1), translation(-0.5, -0.5, 0)))),
      );
      const layer: BoxLayer = {
        kind: 'box',
        id: layerId(`b${index}`),
        depth: 0.3,
        faces: { front: faces, back: faces, left: faces, right: faces, top: faces, bottom: faces },
      };
      return boxFaces(layer, box, side).map((face) => ({ name: `${index} ${face.side}`, box: face.box }));
    })
      .flat()
      .filter((face) => facesEye(face.box, eye));
  };
  /** Places of the screen where what is drawn last is not what a ray from the eye meets first; those within a pixel of a side or of the next plane are passed over. */
  function wrongPlaces(planes: readonly { name: string; box: Matrix4 }[]): number {
    const pieces = farToNear(planes, (item) => item.box, eye).map(({ item, cuts }) => ({
      item,
      cuts,
    }));
    const backs = planes.map((item) => ({ item, back: inverse3(projected(item.box, eye)) }));
    let wrong = 0;
    for (let y = -440.5; y < 450; y += 37)
      for (let x = -790.5; x < 800; x += 37) {
        const met = backs.flatMap(({ item, back }) => {
          if (!back) return [];
          const at = mapped(back, x, y);
          const far = Math.max(Math.abs(at.x - 0.5), Math.abs(at.y - 0.5));
          return [{ item, nearness: at.w, inside: far <= 0.5, sure: Math.abs(far - 0.5) > 0.012 }];
        });
        const hits = met.filter((one) => one.inside).sort((a, b) => b.nearness - a.nearness);
        if (hits.length === 0 || met.some((one) => !one.sure)) continue;
        if (hits[1] && hits[0]!.nearness - hits[1].nearness < 2e-3) continue;
        const drawn = pieces.findLast(({ item, cuts }) => {
          const back = backs.find((one) => one.item === item)!.back!;
          const at = mapped(back, x, y);
          return (
            Math.max(Math.abs(at.x - 0.5), Math.abs(at.y - 0.5)) <= 0.5 &&
            cuts.every(({ a, b, c }) => a * x + b * y + c >= 0)
          );
        });
        if (drawn?.item !== hits[0]!.item) wrong += 1;
      }
    return wrong;
  }
  const order = (...planes: { name: string; box: Matrix4 }[]) =>
    farToNear(planes, (item) => item.box, eye)
      .map(({ item }) => item.name)
      .join(' ');

  it('draws what is behind first, in whatever order it was laid', () => {
    const planes = [plane('near', 0, 0, 300), plane('far', 0, 0, -300), plane('middle', 50, 20, 0)];
    expect([order(...planes), order(...planes.toReversed())]).toEqual(['far middle near', 'far middle near']);
  });
  it('is right where distances to the middles mislead: a small plane in front of a long leaning one', () => {
    const long = plane('long', 0, 0, 0, 60, 1200);
    // To the right the long plane leans away; the small one stands before it there, though farther from the eye than its middle.
    expect(order(plane('small', 200, 0, -150, 0, 60), long)).toBe('long small');
    expect(order(plane('small', 200, 0, -700, 0, 60), long)).toBe('small long');
  });
  it('keeps planes that lie in one plane as they lie in the pile', () => {
    expect(order(plane('below', 0, 0, 0), plane('above', 40, 10, 0))).toBe('below above');
    expect(order(plane('above', 40, 10, 0), plane('below', 0, 0, 0))).toBe('above below');
  });
  it('cuts planes that pass through each other where they cross', () => {
    const pieces = farToNear([plane('one', 0, 0, 0, 40), plane('other', 0, 0, 0, -40)], (item) => item.box, eye);
    expect(pieces.length).toBe(3);
    expect(wrongPlaces([plane('one', 0, 0, 0, 40), plane('other', 0, 0, 0, -40)])).toBe(0);
    expect(wrongPlaces(['a', 'b', 'c', 'd'].map((name, index) => plane(name, 0, 0, 0, index * 45 + 3)))).toBe(0);
  });
  it('opens a ring of planes that each cover the next', () => {
    // Three long strips, each leaning over the one after it.
    const strip = (name: string, turn: number) => ({
      name,
      box: times4(
        rotation(turn, 0, 0),
        times4(
          translation(0, 130, 0),
          times4(rotation(0, 0, 25), times4(scaling(900, 90, 1), translation(-0.5, -0.5, 0))),
        ),
      ),
    });
    const ring = [strip('a', 0), strip('b', 120), strip('c', 240)];
    expect(farToNear(ring, (item) => item.box, eye).length).toBeGreaterThan(3);
    expect(wrongPlaces(ring)).toBe(0);
  });
  it.each([4, 12, 36])('draws a turning ring of %d boxes as rays find it, at sixty moments', (count) => {
    let wrong = 0;
    for (let moment = 0; moment < 60; moment += 1) wrong += wrongPlaces(ringOfBoxes(count, moment * 6.1));
    expect(wrong).toBe(0);
  });
  it('draws boxes that pass through each other as rays find it', () => {
    let wrong = 0;
    for (let moment = 0; moment < 12; moment += 1) wrong += wrongPlaces(ringOfBoxes(12, moment * 29, 1.6));
    expect(wrong).toBe(0);
  });
  it('knows which side of a box is turned to the eye', () => {
    expect([facesEye(plane('a', 0, 0, 0).box, eye), facesEye(plane('a', 0, 0, 0, 120).box, eye)]).toEqual([
      true,
      false,
    ]);
  });
  it('shows at most three sides of a box, the front among them', () => {
    const face = { kind: 'colour', colour: '#ffffff' } as const;
    const box = (tiltY: number): Layer => ({
      kind: 'box',
      id: layerId('b'),
      depth: 0.3,
      channels: { width: 0.2, height: 0.3, tiltYDegrees: tiltY, tiltXDegrees: 20 },
      faces: { front: face, back: face, left: face, right: face, top: face, bottom: face },
    });
    for (const tiltY of [0, 30, 60, 200]) expect(planned([box(tiltY)]).length).toBeLessThanOrEqual(3);
    expect(planned([box(0)]).length).toBe(2);
  });
});

describe('sizesFor', () => {
  const size = { widthPx: 6000, heightPx: 4000 };
  it('keeps source pixels per frame pixel within 1.1…1.5 at every zoom, and changes size without a step', () => {
    let before: { first: number; share: number } | null = null;
    for (let shown = 1000; shown >= 100; shown *= 0.995) {
      const sizes = sizesFor(size, 1100, 1.1 * shown);
      const ratio = sizes[0]!.size.widthPx / shown;
      expect(ratio).toBeGreaterThan(1.08);
      expect(ratio).toBeLessThan(1.53);
      const share = sizes[1]?.share ?? 0;
      // When the first size gives way for good, the second had all but taken over.
      if (before && sizes[0]!.size.widthPx !== before.first) expect(before.share).toBeGreaterThan(0.9);
      before = { first: sizes[0]!.size.widthPx, share };
    }
  });
});

describe('the edge of a shape', () => {
  const outline = { width: 0.02, colour: '#b5472f', where: 'inside' } as const;
  const edgeOf = (shape: ShapeLayer['shape'], edge: Edge) =>
    planned([{ kind: 'shape', id: layerId('s'), shape, fill: { kind: 'colour', colour: '#ffffff' }, edge }])[0]!.edge;
  it.each([
    [{ kind: 'ellipse' } as const, { kind: 'ellipse' }],
    [{ kind: 'rectangle', radius: 0.2 } as const, { kind: 'rounded', radius: 0.2 }],
    [{ kind: 'rectangle' } as const, null],
    [
      { kind: 'polygon', sides: 4 } as const,
      { kind: 'free', path: 'M50.0000 0.0000L100.0000 50.0000L50.0000 100.0000L0.0000 50.0000Z' },
    ],
    [
      { kind: 'star', points: 5, depth: 0.4 } as const,
      { kind: 'free', path: expect.stringMatching(/^M50.0000 0.0000L61.\d+ 33.\d+L/) },
    ],
  ])('of %j is outlined and feathered along it, not along its box', (shape, along) => {
    expect(edgeOf(shape, { outline })!.outline).toMatchObject({ shape: along });
    expect(edgeOf(shape, { feather: 0.1 })!.stencil).toMatchObject({ shape: along });
  });
  it('is as it was said where it was said, and not cut twice for a shadow', () => {
    expect(edgeOf({ kind: 'ellipse' }, { outline, shape: { kind: 'rounded', radius: 0.1 } })!.outline!.shape).toEqual({
      kind: 'rounded',
      radius: 0.1,
    });
    const shadow = { x: 0, y: 0.01, softness: 0.02, colour: '#000000', opacity: 0.4 };
    expect(edgeOf({ kind: 'ellipse' }, { shadow })!.stencil).toBeNull();
  });
});
