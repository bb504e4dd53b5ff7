import { expect, it } from '@jest/globals';
import { WIDEST_DRAWN_PX, widthFitting } from './frame-size';

it('draws for the very pixels of the window, in widths the kernels take, and no wider than is of use', () => {
  expect([1280, 1287, 390, 3840].map((px) => widthFitting(px, 0))).toEqual([1280, 1280, 384, WIDEST_DRAWN_PX]);
  expect(widthFitting(100, 0)).toBe(320);
});
it('draws less on a machine that cannot keep up, and no less than can be looked at', () => {
  expect([0, 1, 2, 3, 9].map((slow) => widthFitting(1920, slow))).toEqual([1920, 1440, 960, 720, 720]);
  expect(widthFitting(400, 9)).toBe(320);
});
