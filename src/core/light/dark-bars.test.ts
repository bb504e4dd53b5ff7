import { describe, expect, it } from '@jest/globals';
import { darkBars } from './dark-bars';

const [WIDTH, HEIGHT] = [320, 240];
/** A made-up scene, brighter than black nearly everywhere, with a little noise. */
const scene = (x: number, y: number) => 90 + 60 * Math.sin(x / 17) * Math.cos(y / 23) + ((x * 31 + y * 17) % 7);
/** A night: dark at the top, slowly brighter, with lights near the bottom. */
const night = (x: number, y: number) => 6 + y / 9 + (y > 180 && (x * 7 + y * 3) % 40 < 6 ? 150 : 0);
const picture = (of: (x: number, y: number) => number) =>
  Array.from({ length: WIDTH * HEIGHT }, (_, at) => of(at % WIDTH, Math.floor(at / WIDTH)));
const noisy = (level: number) => (x: number, y: number) => level + ((x * 13 + y * 7) % 5);
const framed = (bar: (x: number, y: number) => number, { left = 0, top = 0, right = 0, bottom = 0 }) =>
  picture((x, y) => (x < left || x >= WIDTH - right || y < top || y >= HEIGHT - bottom ? bar(x, y) : scene(x, y)));

describe('dark bars', () => {
  it.each([
    ['above and below', { top: 30, bottom: 30 }],
    ['left and right', { left: 44, right: 40 }],
    ['all around', { left: 20, right: 20, top: 16, bottom: 18 }],
  ])('are found %s, all of them, and at most two lines more', (_, bars) => {
    const found = darkBars(framed(noisy(9), bars), WIDTH, HEIGHT)!;
    for (const [side, of] of [
      ['left', WIDTH],
      ['right', WIDTH],
      ['top', HEIGHT],
      ['bottom', HEIGHT],
    ] as const) {
      const wanted = (bars as Record<string, number>)[side] ?? 0;
      expect(found[side] * of).toBeGreaterThanOrEqual(wanted);
      expect(found[side] * of).toBeLessThanOrEqual(wanted === 0 ? 0 : wanted + 2);
    }
  });
  it('are not seen in a picture without any', () => expect(darkBars(picture(scene), WIDTH, HEIGHT)).toBeNull());
  it('are not seen in a night sky', () => expect(darkBars(picture(night), WIDTH, HEIGHT)).toBeNull());
  it('are not seen in a picture that is all black', () =>
    expect(
      darkBars(
        picture(() => 0),
        WIDTH,
        HEIGHT,
      ),
    ).toBeNull());
  it('a single one is taken when it is black, not when it is merely dark', () => {
    expect(
      darkBars(
        framed(() => 0, { bottom: 40 }),
        WIDTH,
        HEIGHT,
      )!.bottom * HEIGHT,
    ).toBeGreaterThanOrEqual(40);
    expect(darkBars(framed(noisy(24), { bottom: 40 }), WIDTH, HEIGHT)).toBeNull();
  });
  it('a hairline is left alone', () =>
    expect(
      darkBars(
        framed(() => 0, { left: 2, right: 2 }),
        WIDTH,
        HEIGHT,
      ),
    ).toBeNull());
});
