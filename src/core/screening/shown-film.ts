import type { FilmChapter } from '../film/chapters';
import type { ScreeningSettings } from './screening-settings';

/** A film as the page shows it. */
export interface ShownFilm {
  readonly id: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly bitsASecond: number;
}

/** What the page of a screening knows: plain data for the browser. */
export interface Shown {
  readonly token: string;
  readonly title: string;
  readonly chapters: readonly FilmChapter[];
  readonly settings: Pick<ScreeningSettings, 'mayTake' | 'guestBook' | 'counts' | 'call'>;
  readonly lengthMs: number;
  /** The finest first. */
  readonly films: readonly ShownFilm[];
  readonly languages: readonly { readonly tag: string; readonly name: string }[];
}

/** Qualities of one film may differ by a frame. */
const SAME_MS = 100;

/** Whether two films are qualities of one: of one shape and one length. */
export function isSameFilm(one: MadeFilm, other: MadeFilm): boolean {
  const shape = ({ spec }: MadeFilm) => spec.widthPx / spec.heightPx;
  return Math.abs(one.lengthMs - other.lengthMs) <= SAME_MS && Math.abs(shape(one) / shape(other) - 1) < 0.01;
}

interface MadeFilm {
  readonly lengthMs: number;
  readonly spec: { readonly widthPx: number; readonly heightPx: number };
}

/** “1080”, as people know qualities: by the shorter side. */
export function qualityName({ widthPx, heightPx }: Pick<ShownFilm, 'widthPx' | 'heightPx'>): string {
  return `${Math.min(widthPx, heightPx)} lines`;
}

/**
 * The film to begin with: the finest one that is not much finer than the window shows and that the line carries, else the lightest.
 *
 * @param shownPx how wide it is shown, in the screen’s pixels
 * @param lineBits what the line carries a second; null when that is not known
 */
export function filmFor(films: readonly ShownFilm[], shownPx: number, lineBits: number | null): ShownFilm {
  const carried = films.filter(({ bitsASecond }) => lineBits === null || bitsASecond < 0.8 * lineBits);
  const usable = carried.length > 0 ? carried : films.slice(-1);
  // The smallest that still fills the window; where none does, the largest.
  const filling = usable.filter(({ widthPx }) => widthPx >= 0.9 * shownPx);
  return (filling.length > 0 ? filling.at(-1) : usable[0])!;
}
