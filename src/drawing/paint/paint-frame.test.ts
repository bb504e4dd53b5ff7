import { beforeAll, describe, expect, it } from '@jest/globals';
import { NEUTRAL, type FramePlan, type LayerPlan, type SlidePlan } from '../../core/frame/frame-plan';
import { assetId, slideId } from '../../core/show/ids';
import { storeFor } from '../../server/films/draw-segment';
import { openNodeDrawing, type NodeDrawing } from '../../server/films/node-drawing';
import { createPainter } from './paint-frame';
import type { PlateStore } from '../plates/plate-store';
import type { PictureReader } from '../picture-reader';
import { fillWithBlur } from '../plates/blurred-backing';
import type { Pixels } from '../planes/picture-planes';
import { createSurface, i420Of, ycbcrOf } from '../planes/surface';

const RED = assetId('1'.repeat(64));
const BLUE = assetId('2'.repeat(64));
const BROKEN = assetId('3'.repeat(64));
const colours = new Map([
  [RED, [216, 55, 31]],
  [BLUE, [51, 112, 143]],
]);
const full = { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };

let drawing: NodeDrawing;
beforeAll(async () => {
  drawing = await openNodeDrawing();
});

function openStore(roomBytes = 1 << 26): { store: PlateStore; reads: string[] } {
  const reads: string[] = [];
  const reader: PictureReader = {
    async readPicture(id, widthPx, heightPx): Promise<Pixels> {
      reads.push(`${id[0]} ${widthPx}`);
      const colour = colours.get(id);
      if (!colour) throw new Error('The file is damaged.');
      return {
        widthPx,
        heightPx,
        hasTransparency: false,
        rgba: Uint8Array.from({ length: widthPx * heightPx * 4 }, (_, at) => [...colour, 255][at % 4]!),
      };
    },
    readClipFrame: (id, _frame, widthPx, heightPx) => reader.readPicture(id, widthPx, heightPx),
  };
  return { store: storeFor(drawing, reader, roomBytes), reads };
}

const layer = (content: LayerPlan['content']): LayerPlan => ({
  content,
  toScreen: [160, 0, 0, 0, 90, 0, 0, 0, 1],
  plain: true,
  cuts: [],
  crop: { left: 0, top: 0, right: 0, bottom: 0 },
  opacity: 1,
  blurPx: 0,
  blend: 'normal',
  edge: null,
  vignette: 0,
  masks: [],
});
const shown = (id: typeof RED, framing = full, widthPx = 200, heightPx = 112): LayerPlan =>
  layer({
    kind: 'picture',
    assetId: id,
    crop: null,
    framing,
    sizes: [{ size: { widthPx, heightPx }, share: 1 }],
    light: null,
  });

function slide(id: typeof RED, more: Partial<SlidePlan> = {}): SlidePlan {
  return { slideId: slideId('s'), backing: { kind: 'hidden' }, layers: [shown(id)], ...more };
}
const plan = (of: SlidePlan, incoming: FramePlan['incoming'] = null): FramePlan => ({
  widthPx: 160,
  heightPx: 90,
  slide: of,
  incoming,
  over: [],
});

async function painted(of: FramePlan, store = openStore().store): Promise<Uint8Array> {
  await store.prepare(of);
  const painter = createPainter(drawing.kernels, of.widthPx, of.heightPx);
  const i420 = i420Of(drawing.kernels, painter.paint(of, store));
  painter.close();
  return i420;
}

describe('paintFrame', () => {
  it('dissolves in proportion', async () => {
    const middle = await painted(
      plan(slide(RED), { slide: slide(BLUE), transition: { kind: 'dissolve' }, progress: 0.25 }),
    );
    const wanted = ycbcrOf('#d8371f').y * 0.75 + ycbcrOf('#33708f').y * 0.25;
    expect(Math.abs(middle[4000]! - wanted)).toBeLessThanOrEqual(1);
  });
  it('goes on without a picture that cannot be read, and says which', async () => {
    const { store } = openStore();
    const frame = await painted(plan(slide(BROKEN)), store);
    expect(new Set(frame.subarray(0, 160 * 90))).toEqual(new Set([ycbcrOf('#262422').y]));
    expect([...store.problems()].map(([id, error]) => [id, error.message])).toEqual([[BROKEN, 'The file is damaged.']]);
  });
  it('puts words over the picture only where they are', async () => {
    const here = { way: 'none', by: 'all', share: 1 } as const;
    const words = layer({
      kind: 'words',
      look: {
        title: 'Regatta',
        subtitle: '',
        place: 'bottom-left',
        style: {},
        unit: 'all',
        crawls: false,
        rolls: false,
      },
      passage: { entrance: here, exit: { ...here, share: 0 }, travel: null },
    });
    const [with_, without] = [
      await painted(plan(slide(RED, { layers: [...slide(RED).layers, words] }))),
      await painted(plan(slide(RED))),
    ];
    expect(Math.max(...with_.subarray(0, 160 * 90))).toBeGreaterThan(200);
    expect(with_.subarray(0, 160 * 30)).toEqual(without.subarray(0, 160 * 30));
  });
  it('stands a picture that does not fill the frame on a darker copy of itself', async () => {
    const framing = { ...full, width: 2, height: 2 };
    const frame = await painted(
      plan(
        slide(RED, {
          backing: {
            kind: 'blurred',
            crop: null,
            assetId: RED,
            clipFrame: null,
            aspect: 16 / 9,
            amount: 0.065,
            darkness: 0.38,
          },
          layers: [shown(RED, framing, 90, 50)],
        }),
      ),
    );
    const [corner, middle] = [frame[0]!, frame[45 * 160 + 80]!];
    expect(middle).toBe(ycbcrOf('#d8371f').y);
    expect(corner).toBeGreaterThan(30);
    expect(corner).toBeLessThan(middle - 15);
  });
  it('lights a picture that lies behind, sharp or blurred, and keeps its colour when it is blurred', async () => {
    const behind = (backing: SlidePlan['backing']) => painted(plan(slide(RED, { backing, layers: [] })));
    const light = (values: Partial<typeof NEUTRAL>) => ({
      light: { values: { ...NEUTRAL, ...values }, moves: false, sharpen: 0, print: null, redEyes: [] },
    });
    const sharp = (more: object) =>
      behind({ kind: 'picture', assetId: RED, framing: full, size: { widthPx: 160, heightPx: 90 }, ...more });
    const soft = (more: object) =>
      behind({
        kind: 'blurred',
        crop: null,
        assetId: RED,
        clipFrame: null,
        aspect: 16 / 9,
        amount: 0.05,
        darkness: 0,
        colour: 1,
        ...more,
      });
    const middle = 45 * 160 + 80;
    const v = 160 * 90 + 80 * 45 + 22 * 80 + 40;
    for (const drawn of [sharp, soft]) {
      const [plain, dark, grey] = [
        await drawn({}),
        await drawn(light({ exposure: -1 })),
        await drawn(light({ saturation: -1 })),
      ];
      expect(Math.abs(plain[middle]! - ycbcrOf('#d8371f').y)).toBeLessThan(3);
      expect(dark[middle]!).toBeLessThan(plain[middle]! - 15);
      expect(plain[v]!).toBeGreaterThan(170);
      expect(Math.abs(grey[v]! - 128)).toBeLessThan(4);
    }
    expect((await soft({}))[v]!).toBeGreaterThan((await soft({ colour: 0.75 }))[v]! + 8);
  });
  it.each<[string, Partial<LayerPlan>]>([
    ['by itself', {}],
    ['blurred first', { blurPx: 2 }],
    ['blended', { blend: 'multiply' }],
  ])('draws a layer only on its side of where it passes through another, %s', async (_name, more) => {
    const cut = { ...shown(RED), plain: false, cuts: [{ a: -1, b: 0, c: 80 }] };
    const on = (layers: readonly LayerPlan[]) =>
      painted(plan(slide(RED, { backing: { kind: 'colour', colour: '#c8c8c8' }, layers })));
    const row = (of: Uint8Array) => Array.from(of.subarray(45 * 160, 46 * 160));
    const [half, none] = [row(await on([{ ...cut, ...more }])), row(await on([]))];
    expect(half.slice(81)).toEqual(none.slice(81));
    expect(Math.max(...half.slice(10, 79))).toBeLessThan(Math.min(...none) - 40);
  });
  it('refuses a plan of another size', async () => {
    const painter = createPainter(drawing.kernels, 64, 36);
    expect(() => painter.paint(plan(slide(RED)), openStore().store)).toThrow('draws 64 × 36, got a plan for 160 × 90');
  });
});

describe('the picture store', () => {
  it('reads a picture once, also when asked twice at the same time', async () => {
    const { store, reads } = openStore();
    await Promise.all([store.prepare(plan(slide(RED))), store.prepare(plan(slide(RED)))]);
    await store.prepare(plan(slide(RED)));
    expect(reads).toEqual(['1 200']);
  });
  it('lets go of what was not used for longest when room runs out, and reads it again when needed', async () => {
    const { store, reads } = openStore(50_000);
    await store.prepare(plan(slide(RED)));
    await store.prepare(plan(slide(BLUE)));
    expect([store.isReady(plan(slide(RED))), store.isReady(plan(slide(BLUE)))]).toEqual([false, true]);
    await store.prepare(plan(slide(RED)));
    expect(reads).toEqual(['1 200', '2 200', '1 200']);
  });
  it('does not grow while pictures come and go', async () => {
    const { store } = openStore(200_000);
    for (let round = 0; round < 20; round += 1) await store.prepare(plan(slide(round % 2 ? RED : BLUE)));
    const before = drawing.kernels.memory.buffer.byteLength;
    for (let round = 0; round < 400; round += 1)
      await store.prepare(
        plan(slide(round % 2 ? RED : BLUE, { layers: [shown(RED, full, 100 + (round % 7) * 20, 60)] })),
      );
    expect(drawing.kernels.memory.buffer.byteLength).toBe(before);
  });
});

describe('fillWithBlur', () => {
  it('shows no steps in a dark gradient: every stretch of it has the mean it should', () => {
    const [widthPx, heightPx] = [192, 108];
    const rgba = Uint8Array.from({ length: widthPx * heightPx * 4 }, (_, at) =>
      at % 4 === 3 ? 255 : 20 + (24 * ((at >> 2) % widthPx)) / widthPx,
    );
    const surface = createSurface(drawing.kernels, 1280, 720);
    fillWithBlur(
      drawing.kernels,
      surface,
      { widthPx, heightPx, rgba, hasTransparency: false },
      { amount: 0.065, darkness: 0.38 },
    );
    const luma = i420Of(drawing.kernels, surface).subarray(0, 1280 * 720);
    // Means of 16-pixel columns in the middle: a stepped gradient stands still for 50 columns and then jumps by a level.
    const means = Array.from({ length: 60 }, (_, column) => {
      let sum = 0;
      for (let y = 0; y < 720; y += 1) for (let x = 0; x < 16; x += 1) sum += luma[y * 1280 + 160 + column * 16 + x]!;
      return sum / (720 * 16);
    });
    const steps = means.slice(1).map((mean, index) => mean - means[index]!);
    const even = (means.at(-1)! - means[0]!) / steps.length;
    expect(even).toBeGreaterThan(0.05);
    for (const step of steps) expect(Math.abs(step - even)).toBeLessThan(0.2);
  });
});
