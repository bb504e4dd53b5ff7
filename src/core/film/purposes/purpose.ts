import type { FrameShape } from '../../show/show';
import type { ShapeName } from '../../show/shape';
import type { FilmSpec } from '../film-spec';

/** Something a film is made for. */
export interface PurposeRecord {
  /** For people. */
  readonly name: string;
  /** When to take it, in a few words. */
  readonly note: string;
  /** What is made for it. */
  spec(of: ShowForPurpose): Omit<FilmSpec, 'purpose'>;
}

/** What a purpose may ask of the show. */
export interface ShowForPurpose {
  readonly frame: FrameShape;
  readonly shape: ShapeName;
  readonly lengthMs: number;
  /** For purposes with a limit: what the person says, in bytes. */
  readonly mostBytes?: number;
}

/** Sides of a shape whose shorter one is so long; even. */
export function sides(shape: ShapeName, shortPx: number): { readonly widthPx: number; readonly heightPx: number } {
  const [across, down] = shape.split(':').map(Number) as [number, number];
  const longPx = 2 * Math.round((shortPx * Math.max(across, down)) / Math.min(across, down) / 2);
  return across > down ? { widthPx: longPx, heightPx: shortPx } : { widthPx: shortPx, heightPx: longPx };
}
