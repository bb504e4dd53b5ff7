import { beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import type { FramePlan } from '../../core/frame/frame-plan';
import { planFrame, prepareShow } from '../../core/frame/plan-frame';
import type { AssetFacts } from '../../core/show/asset-facts';
import { assetId, layerId, showId, slideId } from '../../core/show/ids';
import { emptyShow, type Show, type Slide } from '../../core/show/show';
import { EIGHT_WAYS, FOUR_WAYS, IRIS_SHAPES, PATTERN_NAMES, type TransitionOverTime } from '../../core/show/transition';
import { storeFor } from '../../server/films/draw-segment';
import { openNodeDrawing, type NodeDrawing } from '../../server/films/node-drawing';
import type { PictureReader } from '../picture-reader';
import { i420Of } from '../planes/surface';
import { wipeMap } from '../plates/wipe-maps';
import type { PlateStore } from '../plates/plate-store';
import { createPainter, type Painter } from './paint-frame';

// Looked up once: under the test runner every look at a global takes long.
const { abs, max, min, round } = Math;

const FRAME = { widthPx: 384, heightPx: 216 };
const [FIRST, SECOND] = [assetId('1'.repeat(64)), assetId('2'.repeat(64))];
const LENGTH = 1000;
let drawing: NodeDrawing;
let store: PlateStore;
let painter: Painter;
beforeAll(async () => {
  drawing = await openNodeDrawing();
  const files = new Map([
    [FIRST, 'demo/files/PE_0463.jpg'],
    [SECOND, 'demo/files/PE_0426.jpg'],
  ]);
  const reader: PictureReader = {
    async readPicture(id, widthPx, heightPx) {
      return {
        widthPx,
        heightPx,
        hasTransparency: false,
        rgba: new Uint8Array(
          await sharp(files.get(id)!).resize(widthPx, heightPx, { fit: 'fill' }).ensureAlpha().raw().toBuffer(),
        ),
      };
    },
    readClipFrame: () => Promise.reject(new Error('there is no clip here')),
  };
  store = storeFor(drawing, reader, 1 << 28);
  painter = createPainter(drawing.kernels, FRAME.widthPx, FRAME.heightPx);
});

const facts = new Map<typeof FIRST, AssetFacts>(
  [FIRST, SECOND].map((id) => [
    id,
    {
      kind: 'picture',
      widthPx: 3000,
      heightPx: 2000,
      hasTransparency: false,
      takenAt: null,
      camera: null,
      brightness: 0.5,
    },
  ]),
);
function planAt(transition: TransitionOverTime | { kind: 'cut' }, ms: number): FramePlan {
  const slide = (id: string, asset: typeof FIRST, comes: Slide['transition']): Slide => ({
    id: slideId(id),
    lengthMs: 4000,
    transition: comes,
    backing: { kind: 'automatic' },
    sounds: [],
    layers: [{ kind: 'picture', id: layerId(`l${id}`), assetId: asset, move: { kind: 'still' } }],
  });
  const show: Show = {
    ...emptyShow(showId('x'), ''),
    slides: [slide('a', FIRST, { kind: 'cut' }), slide('b', SECOND, transition)],
  };
  return planFrame(prepareShow(show, facts), 4000 + ms, FRAME)!;
}
async function drawn(transition: TransitionOverTime | { kind: 'cut' }, ms: number): Promise<Uint8Array> {
  const plan = planAt(transition, ms);
  await store.prepare(plan);
  return i420Of(drawing.kernels, painter.paint(plan, store));
}
const apart = (a: Uint8Array, b: Uint8Array) => a.reduce((sum, value, at) => sum + abs(value - b[at]!), 0) / a.length;

/** What a frame is when all of it is one colour. */
const evenness = (frame: Uint8Array) => {
  const luma = frame.subarray(0, (frame.length * 2) / 3);
  return Math.max(...luma) - Math.min(...luma);
};

const timed = { lengthMs: LENGTH, easing: 'linear' } as const;
const all: TransitionOverTime[] = [
  { kind: 'dissolve', ...timed },
  { kind: 'dip', ...timed, colour: '#d8371f' },
  { kind: 'burn', ...timed },
  { kind: 'blur-through', ...timed },
  { kind: 'mosaic', ...timed },
  ...EIGHT_WAYS.map((direction) => ({ kind: 'wipe' as const, ...timed, direction })),
  { kind: 'clock', ...timed, direction: 'anticlockwise' },
  ...IRIS_SHAPES.map((shape) => ({ kind: 'iris' as const, ...timed, shape })),
  { kind: 'iris', ...timed, direction: 'close' },
  ...FOUR_WAYS.map((direction) => ({ kind: 'blinds' as const, ...timed, direction })),
  { kind: 'checks', ...timed, seed: 4 },
  ...PATTERN_NAMES.map((pattern) => ({ kind: 'pattern' as const, ...timed, pattern })),
  { kind: 'pattern', ...timed, pattern: { assetId: SECOND }, inverted: true },
  ...(['push', 'slide-over', 'slide-off', 'page-turn', 'card-turn', 'cube-turn'] as const).flatMap((kind) =>
    FOUR_WAYS.map((direction) => ({ kind, ...timed, direction })),
  ),
  { kind: 'slide-apart', ...timed },
  { kind: 'slide-apart', ...timed, direction: 'down' },
  { kind: 'zoom-through', ...timed },
  { kind: 'zoom-through', ...timed, direction: 'out' },
  { kind: 'zoom-blur', ...timed },
  { kind: 'zoom-blur', ...timed, direction: 'out' },
];
const named = all.map(
  (transition) =>
    [
      `${transition.kind} ${'direction' in transition ? transition.direction : ''}${'shape' in transition ? transition.shape : ''}${'pattern' in transition ? JSON.stringify(transition.pattern).slice(0, 14) : ''}`,
      transition,
    ] as const,
);

const MIXES = new Set([
  'dissolve',
  'dip',
  'wipe',
  'clock',
  'iris',
  'blinds',
  'checks',
  'pattern',
  'mosaic',
  'blur-through',
]);

describe.each(named)('the transition %s', (_, transition) => {
  it('begins with the leaving slide, ends with the coming one, and in between goes steadily from the one to the other', async () => {
    const [leaving, coming] = [await drawn({ kind: 'cut' }, -1), await drawn({ kind: 'cut' }, 2000)];
    expect(await drawn(transition, 0)).toEqual(leaving);
    const near = [await drawn(transition, 1), await drawn(transition, LENGTH - 1)] as const;
    // A page that has all but gone still throws its shadow.
    expect(apart(near[0], leaving)).toBeLessThan(3);
    expect(apart(near[1], coming)).toBeLessThan(3);
    const [early, middle, late] = [
      await drawn(transition, 250),
      await drawn(transition, 520),
      await drawn(transition, 750),
    ];
    expect(apart(middle, leaving)).toBeGreaterThan(4);
    expect(apart(middle, coming)).toBeGreaterThan(4);
    if (MIXES.has(transition.kind)) {
      expect(apart(early, leaving)).toBeLessThan(apart(early, coming));
      expect(apart(late, coming)).toBeLessThan(apart(late, leaving));
    } else {
      // Where pictures move, a hundredth of the way moves them a little.
      for (const from of [200, 400, 600, 790])
        expect(apart(await drawn(transition, from), await drawn(transition, from + 10))).toBeLessThan(9);
    }
    for (const frame of [early, middle, late])
      expect(frame.subarray(0, FRAME.widthPx * FRAME.heightPx).every((value) => value >= 14 && value <= 237)).toBe(
        true,
      );
  });
});

describe('a dip', () => {
  it('is its colour alone in the middle, and neither picture', async () => {
    for (const colour of ['#000000', '#d8371f']) {
      expect(evenness(await drawn({ kind: 'dip', ...timed, colour }, LENGTH / 2))).toBeLessThanOrEqual(1);
      expect(evenness(await drawn({ kind: 'dip', ...timed, colour }, LENGTH / 4))).toBeGreaterThan(20);
      expect(evenness(await drawn({ kind: 'dip', ...timed, colour }, (3 * LENGTH) / 4))).toBeGreaterThan(20);
    }
  });
});

describe('a wipe’s map', () => {
  it('changes as much of the frame in every moment: patterns are evened out', () => {
    for (const pattern of PATTERN_NAMES) {
      const map = wipeMap({ kind: 'pattern', pattern, inverted: false }, FRAME);
      for (const share of [0.2, 0.5, 0.8])
        expect(abs(map.filter((value) => value < share * 32767).length / map.length - share)).toBeLessThan(0.03);
    }
  });
  it.each(['card-turn', 'cube-turn', 'zoom-through'] as const)('%s never leaves the screen empty', async (kind) => {
    for (const direction of kind === 'zoom-through' ? (['in', 'out'] as const) : FOUR_WAYS)
      for (const share of [0.3, 0.45, 0.5, 0.55, 0.7]) {
        const frame = await drawn({ kind, ...timed, direction } as TransitionOverTime, share * LENGTH);
        const luma = frame.subarray(0, (frame.length * 2) / 3);
        // Pictures, in focus or out of it: neither one colour nor black where the card has turned its edge to the eye.
        expect(luma.reduce((sum, value) => sum + value, 0) / luma.length).toBeGreaterThan(30);
        expect(evenness(frame)).toBeGreaterThan(25);
      }
  });
  it('goes the way it is told', () => {
    const at = (direction: (typeof EIGHT_WAYS)[number], x: number, y: number) =>
      wipeMap({ kind: 'wipe', direction }, FRAME)[y * FRAME.widthPx + x]!;
    expect(at('right', 10, 100)).toBeLessThan(at('right', 370, 100));
    expect(at('up', 100, 10)).toBeGreaterThan(at('up', 100, 200));
    expect(at('down-left', 370, 10)).toBeLessThan(at('down-left', 10, 200));
  });
  it('mixes by its formula within rounding, and is whole at both ends', () => {
    const { kernels } = drawing;
    const count = 512;
    const [a, b, to, map] = [
      kernels.allocate(count),
      kernels.allocate(count),
      kernels.allocate(count),
      kernels.allocate(2 * count),
    ];
    new Uint8Array(kernels.memory.buffer).fill(30, a, a + count).fill(220, b, b + count);
    const values = new Int16Array(kernels.memory.buffer, map, count);
    for (let at = 0; at < count; at += 1) values[at] = round((at * 32767) / (count - 1));
    for (const border of [66, 3000, 20_000, 32_767])
      for (const progress of [0, 0.1, 0.5, 0.93, 1]) {
        const moment = round(progress * (32767 + border));
        kernels.mixByMap(to, a, b, count, map, count, count, 1, moment, border);
        const got = new Uint8Array(kernels.memory.buffer, to, count);
        got.forEach((value, at) =>
          expect(abs(value - (30 + 190 * min(1, max(0, (moment - values[at]!) / border))))).toBeLessThanOrEqual(1),
        );
      }
  });
});
