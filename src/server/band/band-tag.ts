import { bandFault, compose } from '../../core/sound/band/compose';
import { BAND_PIECE } from '../../core/sound/band/band-schema';
import { BAND_METHOD } from '../../core/sound/band/piece';
import { heardInScore, type BandPiece } from '../../core/sound/band/piece-facts';
import type { ListeningFacts } from '../../core/sound/listening/listening-facts';
import { probe } from '../ffmpeg/run-ffmpeg';
import { parse } from '../schema/parse';

/** Where a file that the band made says so. */
export const BAND_TAG = 'TANAGER_BAND';
const LONGEST_TAG = 20_000;
/** A piece that was cut or drawn out by another program is no longer the one in its tag. */
const OFF_BY_MS = 60;

/** What the tags of a file say of how the band made it; null when they say nothing that can be believed. */
export function bandPieceIn(tags: Readonly<Record<string, string | undefined>>, lengthMs: number): BandPiece | null {
  const written = tags[BAND_TAG.toLowerCase()];
  if (written === undefined || written.length > LONGEST_TAG) return null;
  let said: unknown;
  try {
    said = JSON.parse(written);
  } catch {
    return null;
  }
  const parsed = parse<BandPiece>(BAND_PIECE, said);
  return parsed.ok && Math.abs(parsed.value.wishes.lengthMs - lengthMs) <= OFF_BY_MS ? parsed.value : null;
}

/** All tags of a sound: of the file, and of its stream, where Ogg has them; names in small letters. */
export async function tagsOf(file: string): Promise<Record<string, string | undefined>> {
  const { format, streams } = await probe(file);
  const all = { ...streams.find(({ codec_type }) => codec_type === 'audio')?.tags, ...format.tags };
  return Object.fromEntries(Object.entries(all).map(([name, value]) => [name.toLowerCase(), value]));
}

/** Beats and sections of a piece of the band, exact as its score has them; null when it was made by another method, or is not the band's at all. */
export function scoreOf(piece: BandPiece | null): Pick<ListeningFacts, 'beats' | 'sections'> | null {
  if (piece?.method !== BAND_METHOD || bandFault(piece.wishes) !== null) return null;
  return heardInScore(compose(piece.wishes));
}
