import { describe, expect, it } from '@jest/globals';
import { legibilityOf, luminanceAt, type LetteredFrame } from './legibility';

const [W, H] = [240, 80];

/** Bars as letters: 8 px wide, 40 high, 16 apart, in one grey on a ground that may differ from place to place. */
function lettered(letter: number, ground: (x: number, y: number) => number): LetteredFrame {
  const rgba = new Uint8ClampedArray(4 * W * H);
  const letters = new Uint8Array(W * H);
  for (let y = 0; y < H; y += 1)
    for (let x = 0; x < W; x += 1) {
      const isLetter = y >= 20 && y < 60 && x % 24 >= 8 && x % 24 < 16;
      letters[y * W + x] = isLetter ? 255 : 0;
      rgba.fill(isLetter ? letter : ground(x, y), 4 * (y * W + x), 4 * (y * W + x) + 3);
    }
  return { widthPx: W, heightPx: H, rgba, letters };
}

describe('legibility', () => {
  it.each([
    ['white on black', 255, 0, 21],
    ['black on white', 0, 255, 21],
    // By the formula of WCAG 2.2: (0.2159 + 0.05) / (0.0452 + 0.05).
    ['grey 128 on grey 60', 128, 60, 2.79],
    ['white on its own', 255, 255, 1],
    ['a grey that just passes for text', 118, 255, 4.54],
  ])('is the contrast of %s on an even ground', (_name, letter, ground, contrast) => {
    const found = legibilityOf(
      lettered(letter, () => ground),
      40,
    )!;
    expect(found.contrast).toBeCloseTo(contrast, 1);
    expect(found.busyness).toBeCloseTo(0, 5);
    expect(found.clear).toBeCloseTo(contrast, 1);
  });
  it('counts the poorest part of the words, not their average', () => {
    const half = legibilityOf(
      lettered(255, (x) => (x < W / 2 ? 0 : 230)),
      40,
    )!;
    expect(half.contrast).toBeLessThan(1.4);
  });
  it('does not count one bad letter among many', () => {
    const one = legibilityOf(
      lettered(255, (x) => (x < 24 ? 250 : 0)),
      40,
    )!;
    expect(one.contrast).toBeGreaterThan(15);
  });
  it('counts the poorest line, however small it is beside the others', () => {
    const title = lettered(255, (_x, y) => (y >= 66 ? 220 : 0));
    // A small line below: eight dashes, 3 px high.
    for (let y = 72; y < 75; y += 1)
      for (let x = 10; x < 90; x += 1) {
        const isLetter = x % 10 < 6;
        title.letters[y * W + x] = isLetter ? 255 : 0;
        (title.rgba as Uint8ClampedArray).fill(isLetter ? 255 : 220, 4 * (y * W + x), 4 * (y * W + x) + 3);
      }
    expect(legibilityOf(title, 20)!.contrast).toBeLessThan(1.5);
  });
  it('is worse on a restless ground of the same mean', () => {
    const even = legibilityOf(
      lettered(255, () => 90),
      40,
    )!;
    const restless = legibilityOf(
      lettered(255, (x, y) => (((x >> 1) + (y >> 1)) % 2 === 0 ? 0 : 128)),
      40,
    )!;
    expect(restless.busyness).toBeGreaterThan(20);
    expect(restless.clear).toBeLessThan(0.85 * restless.contrast);
    expect(even.clear).toBeCloseTo(even.contrast, 6);
  });
  it('only looks right about the letters: what lies farther away does not matter', () => {
    const near = legibilityOf(
      lettered(255, (_x, y) => (y < 8 || y > 72 ? 255 : 0)),
      40,
    )!;
    expect(near.contrast).toBeCloseTo(21, 0);
  });
  it('takes a colour by the light it gives, not by its largest part', () => {
    expect(luminanceAt([255, 0, 0], 0)).toBeCloseTo(0.2126, 4);
    expect(luminanceAt([0, 0, 255], 0)).toBeCloseTo(0.0722, 4);
  });
  it('says nothing of a frame without letters', () => {
    expect(legibilityOf({ ...lettered(255, () => 0), letters: new Uint8Array(W * H) }, 40)).toBeNull();
  });
});
