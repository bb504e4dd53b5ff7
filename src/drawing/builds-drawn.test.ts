import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { loupe, loupeNeedsMs, USUAL_LOUPE, type LoupePlan } from '../core/builds/loupe';
import { turnover, turnoverNeedsMs, USUAL_TURNOVER } from '../core/builds/turnover';
import { sightOf } from '../core/frame/layer-sight';
import { planFrame, prepareShow, surroundingsOf, type PreparedShow } from '../core/frame/plan-frame';
import { keyTimes } from '../core/keys/channel';
import { ASSETS, FACTS, picture, showOf } from '../core/layers/slides.testing';
import { layerId } from '../core/show/ids';
import type { GroupLayer, Layer } from '../core/show/layer';
import { storeFor } from '../server/films/draw-segment';
import { openNodeDrawing, type NodeDrawing } from '../server/films/node-drawing';
import { createPainter } from './paint/paint-frame';
import type { PictureReader } from './picture-reader';
import type { Pixels } from './planes/picture-planes';
import type { PlateStore } from './plates/plate-store';
import { pixelsOf } from './planes/surface';

const OTHER = ASSETS[1]!;
const WAVES_A_SIDE = { x: 22, y: 14 };

let drawing: NodeDrawing;
let store: PlateStore | null = null;
beforeAll(async () => {
  drawing = await openNodeDrawing();
});
afterAll(() => store?.close());

/** A picture of soft waves both ways, in which every place can be told from its neighbours; another of one colour. Read once at each size. */
const read = new Map<string, Pixels>();
const reader: PictureReader = {
  async readPicture(id, widthPx, heightPx) {
    const key = `${id} ${widthPx}`;
    if (!read.has(key)) read.set(key, painted(id === OTHER, widthPx, heightPx));
    return read.get(key)!;
  },
  readClipFrame: (id, _frame, widthPx, heightPx) => reader.readPicture(id, widthPx, heightPx),
};

function painted(plain: boolean, widthPx: number, heightPx: number): Pixels {
  const rgba = new Uint8Array(widthPx * heightPx * 4).fill(255);
  const wave = (at: number, of: number, count: number) => 48 * Math.sin((2 * Math.PI * count * (at + 0.5)) / of);
  const across = Array.from({ length: widthPx }, (_, x) => wave(x, widthPx, WAVES_A_SIDE.x));
  for (let y = 0, at = 0; y < heightPx; y += 1) {
    const down = 128 + wave(y, heightPx, WAVES_A_SIDE.y);
    for (let x = 0; x < widthPx; x += 1, at += 4) {
      rgba[at] = rgba[at + 1] = plain ? 200 : down + across[x]!;
      rgba[at + 2] = plain ? 20 : rgba[at]!;
    }
  }
  return { widthPx, heightPx, hasTransparency: false, rgba };
}

function ready(layers: readonly Layer[], lengthMs: number): PreparedShow {
  const show = showOf(layers);
  return prepareShow({ ...show, slides: [{ ...show.slides[0]!, lengthMs }] }, FACTS);
}

async function drawn(
  prepared: PreparedShow,
  ms: number,
  frame: { widthPx: number; heightPx: number },
): Promise<Uint8Array> {
  const plan = planFrame(prepared, ms, frame)!;
  store ??= storeFor(drawing, reader);
  await store.prepare(plan);
  const painter = createPainter(drawing.kernels, frame.widthPx, frame.heightPx);
  const { rgba } = pixelsOf(drawing.kernels, painter.paint(plan, store));
  return Uint8Array.from(rgba);
}

describe('a loupe as it is drawn at 1080p', () => {
  const frame = { widthPx: 1920, heightPx: 1080 };
  const plan: LoupePlan = {
    ...USUAL_LOUPE,
    beginMs: 0,
    restMs: 300,
    glideMs: 500,
    places: [
      [0.3, 0.4],
      [0.5, 0.6],
      [0.42, 0.45],
      [0.6, 0.5],
      [0.7, 0.62],
      [0.66, 0.4],
    ].map(([x, y]) => ({ x: x!, y: y! })),
  };
  const base = picture('crowd', {
    move: {
      kind: 'set',
      first: { x: 0.5, y: 0.5, width: 0.9, height: 0.759375, turnDegrees: 0 },
      last: { x: 0.52, y: 0.5, width: 0.75, height: 0.6328125, turnDegrees: 0 },
    },
  });
  const lengthMs = loupeNeedsMs(plan) + 200;
  const around = (layers: readonly Layer[]) => surroundingsOf(ready(layers, lengthMs), 0, frame);
  const glass = (zoom?: GroupLayer['channels']) => {
    const made = loupe(around([base]), base, plan, layerId('l'));
    if (!zoom) return made;
    return {
      ...made,
      layers: made.layers.map((layer) =>
        layer.kind === 'group' ? { ...layer, channels: { ...layer.channels, ...zoom } } : layer,
      ),
    };
  };
  /** By how many pixels what the loupe shows at its middle is off what lies there, measured by laying the one over the other. */
  const offBy = async (layers: readonly Layer[], ms: number): Promise<number> => {
    const [with_, without] = await Promise.all([
      drawn(ready(layers, lengthMs), ms, frame),
      drawn(ready([base], lengthMs), ms, frame),
    ]);
    const at = around(layers);
    const { centre } = sightOf(at, layerId('l-rim'), ms)!;
    const enlarges = sightOf(at, layerId('l-glass'), ms)!;
    const factor = enlarges.corners[1].x - enlarges.corners[0].x;
    const followed = sightOf(at, layerId('l'), ms)!;
    const scale = factor / (followed.corners[1].x - followed.corners[0].x);
    const [cx, cy] = [centre.x * frame.widthPx - 0.5, centre.y * frame.heightPx - 0.5];
    const value = (pixels: Uint8Array, x: number, y: number) => {
      const [ix, iy] = [Math.floor(x), Math.floor(y)];
      const [fx, fy] = [x - ix, y - iy];
      const spot = (dx: number, dy: number) => pixels[4 * ((iy + dy) * frame.widthPx + ix + dx)]!;
      return (spot(0, 0) * (1 - fx) + spot(1, 0) * fx) * (1 - fy) + (spot(0, 1) * (1 - fx) + spot(1, 1) * fx) * fy;
    };
    const error = (dx: number, dy: number) => {
      let sum = 0;
      for (let u = -36; u <= 36; u += 4)
        for (let v = -36; v <= 36; v += 4)
          sum += (value(with_, cx + u, cy + v) - value(without, cx + dx + u / scale, cy + dy + v / scale)) ** 2;
      return sum;
    };
    const least = (of: (d: number) => number) => {
      // The bottom of a parabola through three errors.
      const [a, b, c] = [of(-2), of(0), of(2)];
      return a + c - 2 * b === 0 ? 0 : (a - c) / (a + c - 2 * b);
    };
    return Math.hypot(
      least((d) => error(d, 0)),
      least((d) => error(0, d)),
    );
  };
  it('has at its middle what lies under its middle, within half a pixel, at thirty moments', async () => {
    const layers = [base, glass()];
    for (let index = 0; index < 30; index += 1) {
      const ms = 600 + (index / 29) * (loupeNeedsMs(plan) - 1200);
      expect(await offBy(layers, ms)).toBeLessThan(0.5);
    }
  }, 120_000);
  it('has it also while it enlarges more and more', async () => {
    const channel = {
      keys: [
        { at: { tied: 'start' as const, ms: 0 }, value: 1.5 },
        { at: { tied: 'end' as const, ms: 0 }, value: 4 },
      ],
    };
    expect(keyTimes(channel.keys, lengthMs)).toEqual([0, lengthMs]);
    const layers = [base, glass({ width: channel, height: channel })];
    for (const ms of [700, 1500, 2300, 3100, 3900]) expect(await offBy(layers, ms)).toBeLessThan(0.5);
  }, 60_000);
});

describe('a turnover as it is drawn', () => {
  const frame = { widthPx: 640, heightPx: 360 };
  const plan = { ...USUAL_TURNOVER, stepsBack: 0, back: OTHER };
  const layer = turnover(picture('p', { channels: { width: 0.6 } }), plan);
  const linear = {
    ...layer,
    channels: {
      ...layer.channels,
      tiltYDegrees: {
        keys: [
          { at: { tied: 'start' as const, ms: 0 }, value: 0, easing: 'linear' as const },
          { at: { tied: 'start' as const, ms: 1800 }, value: 180 },
        ],
      },
    },
  };
  /** Columns in which front and back are seen. The slide's ground is nearly black. */
  const seenAt = async (degrees: number) => {
    const rgba = await drawn(ready([linear], turnoverNeedsMs(plan)), degrees * 10, frame);
    const columns = { front: 0, back: 0 };
    for (let x = 0; x < frame.widthPx; x += 1) {
      const at = 4 * (180 * frame.widthPx + x);
      const [r, b] = [rgba[at]!, rgba[at + 2]!];
      // Colours are half as fine as brightness: at the sides of the picture they are mixed, and belong to neither.
      if (r > 60 && Math.abs(r - b) < 20) columns.front += 1;
      else if (r > 60 && r - b > 120) columns.back += 1;
    }
    return columns;
  };
  it('shows a thin front at 89°, nothing at 90°, a thin back at 91°', async () => {
    const [before, edge, after] = [await seenAt(89), await seenAt(90), await seenAt(91)];
    expect(before.front).toBeGreaterThan(1);
    expect(before.back).toBe(0);
    expect(edge).toEqual({ front: 0, back: 0 });
    expect(after.back).toBeGreaterThan(1);
    expect(after.front).toBe(0);
  });
  it('shows all of either side at its ends', async () => {
    const [first, last] = [await seenAt(0), await seenAt(180)];
    expect([first.back, last.front]).toEqual([0, 0]);
    expect(first.front).toBeGreaterThan(380);
    expect(last.back).toBeGreaterThan(380);
  });
});
