import type { Mount } from '../mount';
import { BUILDS, LOGOS } from './builds';
import { CARDS } from './cards';
import { CLOSERS } from './closers';
import { COLLAGES } from './collages';
import { OPENERS } from './openers';

/** The mounts that ship with the app. To add one is to add it to the file of its shelf. */
export const SHIPPED_MOUNTS: readonly Mount[] = [...OPENERS, ...CARDS, ...COLLAGES, ...BUILDS, ...CLOSERS, ...LOGOS];

export function shippedMount(id: string): Mount | null {
  return SHIPPED_MOUNTS.find((mount) => mount.id === id) ?? null;
}
