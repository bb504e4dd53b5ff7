import type { FactsById } from '../show/asset-facts';
import type { MixPart } from './mix-plan';

/** A sound longer than this takes too much room when it is unpacked as a whole: players have it in pieces. */
export const LONGEST_WHOLE_MS = 600_000;
/** How long a piece is; the last is shorter. */
export const PIECE_MS = 60_000;

/** What a mix plan plays of one piece of a long sound; `fromMs` counts from where that begins. */
export interface PiecePart extends MixPart {
  /** Which piece, from 0. */
  readonly piece: number;
}

/** The parts that are played from whole sounds, and the others piece by piece, rising in time. What is played at a tempo of its own is made from the whole. */
export function inPieces(
  parts: readonly MixPart[],
  facts: FactsById,
): { readonly whole: MixPart[]; readonly pieces: PiecePart[] } {
  const isLong = ({ assetId, tempo }: MixPart) => {
    const known = facts.get(assetId);
    return tempo === undefined && known !== undefined && known.kind !== 'picture' && known.lengthMs > LONGEST_WHOLE_MS;
  };
  return {
    whole: parts.filter((part) => !isLong(part)),
    pieces: parts
      .filter(isLong)
      .flatMap(piecesOf)
      .sort((a, b) => a.startMs - b.startMs),
  };
}

function piecesOf(part: MixPart): PiecePart[] {
  const speed = part.speed ?? 1;
  const endMs = part.fromMs + part.lengthMs * speed;
  const first = Math.floor(part.fromMs / PIECE_MS);
  return Array.from({ length: Math.ceil(endMs / PIECE_MS) - first }, (_, at): PiecePart => {
    const piece = first + at;
    const fromMs = Math.max(part.fromMs, piece * PIECE_MS);
    const toMs = Math.min(endMs, (piece + 1) * PIECE_MS);
    return {
      ...part,
      piece,
      fromMs: fromMs - piece * PIECE_MS,
      startMs: part.startMs + (fromMs - part.fromMs) / speed,
      lengthMs: (toMs - fromMs) / speed,
    };
  });
}
