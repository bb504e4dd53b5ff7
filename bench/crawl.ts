// What the eye would mind over time: crawl of fine detail under a slow zoom, and steps in dark gradients and long fades: npm run bench:crawl
import type { FramePlan } from '../src/core/frame/frame-plan';
import { planFrame, prepareShow } from '../src/core/frame/plan-frame';
import type { AssetFacts } from '../src/core/show/asset-facts';
import { assetId, layerId, showId, slideId } from '../src/core/show/ids';
import { emptyShow, type Show, type Slide } from '../src/core/show/show';
import { createPainter } from '../src/drawing/paint/paint-frame';
import type { PictureReader } from '../src/drawing/picture-reader';
import { i420Of } from '../src/drawing/planes/surface';
import { storeFor } from '../src/server/films/draw-segment';
import { openNodeDrawing } from '../src/server/films/node-drawing';
import sharp from 'sharp';

const FRAME = { widthPx: 640, heightPx: 360 };
const [SIDE_W, SIDE_H] = [6000, 4000];
const WALL = assetId('1'.repeat(64));
const FPS = 30;

/** A brick wall with a sign of fine lines: courses 40 pixels high, joints of 4, and under them lines that close up from 24 to 3 pixels. */
function wall(): Buffer {
  const rgb = Buffer.alloc(SIDE_W * SIDE_H * 3);
  for (let y = 0; y < SIDE_H; y += 1) {
    const course = Math.floor(y / 40);
    for (let x = 0; x < SIDE_W; x += 1) {
      const joint = y % 40 < 4 || (x + (course % 2) * 60) % 120 < 4;
      const sign = y > 1400 && y < 2600 && x > 1500 && x < 4500;
      const period = 24 - (21 * (x - 1500)) / 3000;
      const value = sign
        ? Math.sin((2 * Math.PI * x) / period) > 0
          ? 235
          : 25
        : joint
          ? 210
          : 120 + ((course * 37 + Math.floor((x + (course % 2) * 60) / 120) * 53) % 40);
      rgb.fill(value, 3 * (y * SIDE_W + x), 3 * (y * SIDE_W + x) + 3);
    }
  }
  return rgb;
}

const original = wall();
const reader: PictureReader = {
  async readPicture(_id, widthPx, heightPx) {
    const { data } = await sharp(original, { raw: { width: SIDE_W, height: SIDE_H, channels: 3 } })
      .resize(widthPx, heightPx, { fit: 'fill', kernel: 'lanczos3' })
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return { widthPx, heightPx, hasTransparency: false, rgba: new Uint8Array(data) };
  },
  readClipFrame: () => Promise.reject(new Error('there is no clip here')),
};
const facts = new Map<typeof WALL, AssetFacts>([
  [
    WALL,
    {
      kind: 'picture',
      widthPx: SIDE_W,
      heightPx: SIDE_H,
      hasTransparency: false,
      takenAt: null,
      camera: null,
      brightness: 0.5,
    },
  ],
]);
const drawing = await openNodeDrawing();
const slide = (id: string, more: Partial<Slide>): Slide => ({
  id: slideId(id),
  lengthMs: 8000,
  transition: { kind: 'cut' },
  backing: { kind: 'colour', colour: '#000000' },
  sounds: [],
  layers: [],
  ...more,
});
const showOf = (...slides: Slide[]): Show => ({ ...emptyShow(showId('crawl'), 'Crawl'), slides });

async function lumas(show: Show, fromFrame: number, count: number, frame = FRAME): Promise<Uint8Array[]> {
  const store = storeFor(drawing, reader, 1 << 29);
  const painter = createPainter(drawing.kernels, frame.widthPx, frame.heightPx);
  const prepared = prepareShow(show, facts);
  const out: Uint8Array[] = [];
  for (let index = 0; index < count; index += 1) {
    const plan: FramePlan = planFrame(prepared, ((fromFrame + index) * 1000) / FPS, frame)!;
    await store.prepare(plan);
    out.push(i420Of(drawing.kernels, painter.paint(plan, store)).slice(0, frame.widthPx * frame.heightPx));
  }
  painter.close();
  store.close();
  return out;
}

/** The same frames drawn four times as large each way and averaged. */
async function supersampled(show: Show, fromFrame: number, count: number): Promise<Float64Array[]> {
  const large = { widthPx: 4 * FRAME.widthPx, heightPx: 4 * FRAME.heightPx };
  return (await lumas(show, fromFrame, count, large)).map((luma) =>
    Float64Array.from({ length: FRAME.widthPx * FRAME.heightPx }, (_, at) => {
      let sum = 0;
      const [x0, y0] = [4 * (at % FRAME.widthPx), 4 * Math.floor(at / FRAME.widthPx)];
      for (let dy = 0; dy < 4; dy += 1)
        for (let dx = 0; dx < 4; dx += 1) sum += luma[(y0 + dy) * large.widthPx + x0 + dx]!;
      return sum / 16;
    }),
  );
}

/** Mean change of a pixel from frame to frame: what a still eye sees flicker. */
function flicker(frames: readonly ArrayLike<number>[]): number {
  let sum = 0;
  for (let index = 1; index < frames.length; index += 1)
    for (let at = 0; at < frames[index]!.length; at += 1)
      sum += Math.abs(frames[index]![at]! - frames[index - 1]![at]!);
  return sum / (frames.length - 1) / frames[0]!.length;
}

/** Contrast of fine detail: mean difference of neighbours. */
function sharpness(frame: ArrayLike<number>): number {
  let sum = 0;
  for (let at = 1; at < frame.length; at += 1) sum += Math.abs(frame[at]! - frame[at - 1]!);
  return sum / frame.length;
}

const zooms: [string, number, number][] = [
  ['a slow zoom, 1 → 1.2', 0.9, 0.75],
  ['through two sizes, 1 → 2.2', 0.95, 0.43],
];
process.stdout.write(
  'zoom over a brick wall and fine lines (8 s)      flicker ÷ 4 × 4 supersampled      sharpness, least ÷ most\n',
);
for (const [name, first, last] of zooms) {
  const framing = (width: number) => ({
    x: 0.5,
    y: 0.5,
    width,
    height: (width * (SIDE_W / SIDE_H)) / (FRAME.widthPx / FRAME.heightPx),
    turnDegrees: 0,
  });
  const show = showOf(
    slide('a', {
      layers: [
        {
          kind: 'picture',
          id: layerId('w'),
          assetId: WALL,
          move: { kind: 'set', first: framing(first), last: framing(last) },
        },
      ],
    }),
  );
  const ours = await lumas(show, 100, 30);
  const theirs = await supersampled(show, 100, 8);
  const whole = (await Promise.all([30, 60, 90, 120, 150, 180, 210].map((at) => lumas(show, at, 1)))).map(([frame]) =>
    sharpness(frame!),
  );
  const large = (await Promise.all([30, 60, 90, 120, 150, 180, 210].map((at) => supersampled(show, at, 1)))).map(
    ([frame]) => sharpness(frame!),
  );
  const steady = whole.map((value, index) => value / large[index]!);
  process.stdout.write(
    `${name.padEnd(52)}${(flicker(ours) / flicker(theirs)).toFixed(2).padStart(6)}${(Math.min(...steady) / Math.max(...steady)).toFixed(2).padStart(32)}\n`,
  );
}

/** Largest difference of the mean of 16-pixel columns from an even rise, in levels: a visible step is one or nearly. */
function worstStep(luma: Uint8Array, frame: { widthPx: number; heightPx: number }): number {
  const columns = Math.floor(frame.widthPx / 16);
  const means = Array.from({ length: columns }, (_, column) => {
    let sum = 0;
    for (let y = 0; y < frame.heightPx; y += 1)
      for (let x = 0; x < 16; x += 1) sum += luma[y * frame.widthPx + column * 16 + x]!;
    return sum / (16 * frame.heightPx);
  });
  const even = (means.at(-1)! - means[0]!) / (columns - 1);
  return Math.max(...means.slice(1).map((mean, index) => Math.abs(mean - means[index]! - even)));
}

const dark: Slide['backing'] = {
  kind: 'gradient',
  gradient: {
    kind: 'linear',
    stops: [
      { at: 0, colour: '#0a0a0a' },
      { at: 1, colour: '#202020' },
    ],
  },
};
const HD = { widthPx: 1280, heightPx: 720 };
const [still] = await lumas(showOf(slide('a', { backing: dark })), 30, 1, HD);
const fade = showOf(
  slide('a', { lengthMs: 12_000 }),
  slide('b', { lengthMs: 12_000, backing: dark, transition: { kind: 'dissolve', lengthMs: 5000 } }),
);
const fading = await lumas(fade, 12 * FPS + 20, 110, HD);
process.stdout.write(
  `\na dark gradient: worst step ${worstStep(still!, HD).toFixed(2)} levels; in a fade of 5 s, over all its frames ${Math.max(...fading.map((luma) => worstStep(luma, HD))).toFixed(2)} levels (one is a visible band)\n`,
);
process.exit(0);
