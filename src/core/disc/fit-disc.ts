import { DISC_BYTES, MOST_BITS } from './disc-standard';

/** How good the pictures of a disc will be; by what is left for them. */
export type DiscQuality = 'as good as a disc can be' | 'good' | 'soft where much moves' | 'poor';

export interface DiscFit {
  /** What each film's pictures get, in thousands of bits a second. */
  readonly pictureKbits: number;
  readonly quality: DiscQuality;
  /** What the image will take at most. */
  readonly byteCount: number;
  readonly roomBytes: number;
  /** Why it cannot be made, as a sentence. */
  readonly fault: string | null;
}

export const SOUND_KBITS = 256;
/** Menus are short, and looked at for long. */
export const MENU_KBITS = 6000;
/** Players and recorded discs are at their best well below what the standard allows. */
const BEST_KBITS = 8000;
const LEAST_KBITS = 1800;
/** What packing takes: heads of packs, and what tells players where they are. */
const PACKING = 1.035;
/** Directories, structures that are there twice, and a little that the encoder may be over. */
const AROUND_BYTES = 12_000_000;
const LEFT_FREE = 0.985;

/** So that the encoder never gives out more than players can read. */
export const peakKbits = (pictureKbits: number): number =>
  Math.min(9000, Math.floor(MOST_BITS / 1000 / PACKING) - SOUND_KBITS, Math.max(pictureKbits + 1200, 4000));

/**
 * Chooses the bit rate by which films fit a disc.
 *
 * @param filmsMs how long all films last together
 * @param menusMs and all pages of the menu
 */
export function fitDisc(filmsMs: number, menusMs: number, layers: 1 | 2): DiscFit {
  const roomBytes = DISC_BYTES[layers];
  const menuBytes = (menusMs / 8) * (MENU_KBITS + SOUND_KBITS) * PACKING;
  const seconds = Math.max(1, filmsMs / 1000);
  const left = roomBytes * LEFT_FREE - AROUND_BYTES - menuBytes;
  const fitting = Math.floor((left * 8) / seconds / 1000 / PACKING - SOUND_KBITS);
  const pictureKbits = Math.max(LEAST_KBITS, Math.min(BEST_KBITS, fitting));
  const byteCount = Math.round(
    AROUND_BYTES + menuBytes + ((seconds * 1000 * (pictureKbits + SOUND_KBITS)) / 8) * PACKING,
  );
  const most = (left * 8) / (1000 * PACKING * (LEAST_KBITS + SOUND_KBITS));
  return {
    pictureKbits,
    quality: qualityOf(pictureKbits),
    byteCount,
    roomBytes,
    fault:
      fitting < LEAST_KBITS
        ? `These films last ${hours(seconds)} in all, and ${layers === 1 ? 'a disc of one layer' : 'a disc of two layers'} holds ${hours(most)} at most. ${layers === 1 ? 'Take a disc of two layers, or fewer films.' : 'Make two discs of them.'}`
        : null,
  };
}

function qualityOf(kbits: number): DiscQuality {
  if (kbits >= 6500) return 'as good as a disc can be';
  if (kbits >= 4200) return 'good';
  return kbits >= 2600 ? 'soft where much moves' : 'poor';
}

/** “1 h 12 min” */
function hours(seconds: number): string {
  const minutes = Math.floor(seconds / 60);
  return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')} min`;
}
