import { list, number, object, type Schema } from '../schema/schema';
import type { FocusRing } from './focus-facts';

/** More than these are a crowd, and a crowd is one ring. */
export const MOST_RINGS = 12;

export const RING: Schema = object<FocusRing>({ x: number(0, 1), y: number(0, 1), radius: number(0.01, 0.75) });
export const RINGS: Schema = list(RING, MOST_RINGS);
