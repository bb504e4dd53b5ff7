/** Frames are drawn no wider than this; a larger window shows them enlarged. */
export const WIDEST_DRAWN_PX = 2560;
const NARROWEST_DRAWN_PX = 320;
/** Shares of the window's width that are drawn while a machine cannot keep up. */
const SMALLER = [1, 0.75, 0.5, 0.375] as const;

/** @param windowPx pixels of the screen the frame fills. @param slow how often drawing was too slow. @returns a width for the kernels: a multiple of 16 */
export function widthFitting(windowPx: number, slow: number): number {
  const share = SMALLER[Math.min(slow, SMALLER.length - 1)]!;
  return Math.max(NARROWEST_DRAWN_PX, 16 * Math.round(Math.min(WIDEST_DRAWN_PX, windowPx * share) / 16));
}
