import { describe, expect, it } from '@jest/globals';
import { skySide } from './sky';

const [WIDTH, HEIGHT] = [300, 200];
type Colour = readonly [number, number, number];
interface Drawn {
  readonly rgb: Uint8Array;
  readonly width: number;
  readonly height: number;
}

/** The same grain every time. */
function grain(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_103_515_245 + 12_345) % 2 ** 31;
    return state / 2 ** 31 - 0.5;
  };
}

function drawn(colourAt: (x: number, y: number, rough: number) => Colour, width = WIDTH, height = HEIGHT): Drawn {
  const rough = grain(7);
  const rgb = new Uint8Array(3 * width * height);
  // Blotches of several pixels: what is finer is gone in a small copy.
  const blotches = Array.from({ length: 61 * 61 }, rough);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1)
      rgb.set(
        colourAt(x, y, blotches[Math.floor(y / 5) * 61 + Math.floor(x / 5)]!).map((part) =>
          Math.max(0, Math.min(255, Math.round(part))),
        ),
        3 * (y * width + x),
      );
  return { rgb, width, height };
}

/** Turned by quarters, clockwise. */
function turned({ rgb, width, height }: Drawn, quarters: number): Drawn {
  if (quarters === 0) return { rgb, width, height };
  const to = new Uint8Array(rgb.length);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1)
      to.set(rgb.subarray(3 * (y * width + x), 3 * (y * width + x) + 3), 3 * (x * height + (height - 1 - y)));
  return turned({ rgb: to, width: height, height: width }, quarters - 1);
}

const meadow = (rough: number): Colour => [90 + 110 * rough, 110 + 110 * rough, 50 + 80 * rough];
const hills = (x: number) => 90 + 14 * Math.sin(x / 23) + 8 * Math.sin(x / 7);
/** Blue above, paler towards the hills. */
const clear = (y: number): Colour => [70 + 1.1 * y, 120 + 0.9 * y, 200 + 0.4 * y];
const landscape = drawn((x, y, rough) => (y < hills(x) ? clear(y) : meadow(rough)));

describe('the side on which the sky lies', () => {
  it.each([
    [0, 'top'],
    [1, 'right'],
    [2, 'bottom'],
    [3, 'left'],
  ] as const)('is found when a landscape is turned by %d quarters: %s', (quarters, side) => {
    expect(skySide(turned(landscape, quarters))).toBe(side);
  });
  it('is found with clouds, with a tree before it, and in an upright picture', () => {
    const cloud = (x: number, y: number) => Math.hypot((x - 200) / 60, (y - 35) / 16) < 1;
    const clouded = drawn((x, y, rough) =>
      y >= hills(x) ? meadow(rough) : cloud(x, y) ? ([236, 238, 242] as const) : clear(y),
    );
    const tree = drawn((x, y, rough) => (y >= hills(x) || (Math.abs(x - 60) < 12 && y > 4) ? meadow(rough) : clear(y)));
    const upright = drawn((x, y, rough) => (y < hills(x) ? clear(y) : meadow(rough)), 200, 300);
    for (const picture of [clouded, tree, upright])
      for (const [quarters, side] of ['top', 'right', 'bottom', 'left'].entries())
        expect(skySide(turned(picture, quarters))).toBe(side);
  });
  it.each<readonly [string, (x: number, y: number, rough: number) => Colour]>([
    ['a white wall', (x, _y, rough) => (x < 110 ? [228, 226, 222] : meadow(rough))],
    ['a grey sky', (x, y, rough) => (y < hills(x) ? [176, 178, 180] : meadow(rough))],
    [
      'a blue wall in falling light',
      (x, _y, rough) => (x < 110 ? [110 - 0.4 * x, 140 - 0.4 * x, 205 - 0.2 * x] : meadow(rough)),
    ],
    [
      'sky and its likeness in water',
      (_x, y, rough) => (Math.abs(y - 100) > 25 ? clear(y < 100 ? y : 200 - y) : meadow(rough)),
    ],
    ['sky above and a strip like it below', (_x, y, rough) => (y < 90 || y >= 178 ? clear(y % 178) : meadow(rough))],
    ['nothing but sky', (_x, y) => clear(y)],
    ['a shallow stretch of colours', (x) => [70 + 0.5 * x, 120 + 0.4 * x, 200 + 0.2 * x]],
    ['a sky that half the side shows', (x, y, rough) => (x < 150 && y < 90 ? clear(y) : meadow(rough))],
    ['leaves', (_x, _y, rough) => meadow(rough)],
    ['a night', (_x, y, rough) => [4 + 6 * rough, 6 + 6 * rough, 20 + y / 20]],
  ])('is not told of %s, however it lies', (_what, colourAt) => {
    for (const quarters of [0, 1, 2, 3]) expect(skySide(turned(drawn(colourAt), quarters))).toBeNull();
  });
  it('is not told of a picture of a few pixels', () => {
    expect(skySide(drawn(() => [80, 130, 220], 3, 2))).toBeNull();
  });
});
