import type { AssetId } from './ids';

const WINDOW_PREFIX = '0'.repeat(60);

/** Stands for a window's picture in the slides of a mount. @param number from 1 */
export function windowId(number: number): AssetId {
  return `${WINDOW_PREFIX}${number.toString(16).padStart(4, '0')}` as AssetId;
}

/** Which window an id stands for, from 1; null for a file. */
export function windowNumber(id: AssetId): number | null {
  return id.startsWith(WINDOW_PREFIX) ? parseInt(id.slice(WINDOW_PREFIX.length), 16) : null;
}

/** In a transition that is built of layers: what stands for the slide that leaves, and for the one that comes. */
export const LEAVING = windowId(1);
export const COMING = windowId(2);
