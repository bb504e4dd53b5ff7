import type { BeatGrid } from '../listening/listening-facts';
import type { Section } from '../listening/sections';
import { BAND_STYLE_NAMES, type BandWishes } from './band-wishes';
import { momentOfBeat, type Piece } from './piece';

/** What a file that the band made says of itself. */
export interface BandPiece {
  /** By which method it was made: see `BAND_METHOD`. */
  readonly method: number;
  readonly wishes: BandWishes;
}

export const BAND_ARTIST = 'Tanager house band';

const TONICS = ['C', 'D flat', 'D', 'E flat', 'E', 'F', 'G flat', 'G', 'A flat', 'A', 'B flat', 'B'];

/** What a piece is called where nobody has named it: “Quiet piano in F, no. 7”. */
export function titleOfPiece({ wishes, tonic, mode }: Piece): string {
  const isMinor = mode === 'minor' || mode === 'dorian';
  return `${BAND_STYLE_NAMES[wishes.style]} in ${TONICS[tonic % 12]!}${isMinor ? ' minor' : ''}, no. ${wishes.seed}`;
}

/** What listening would find out of a piece, known from its score. */
export function heardInScore(piece: Piece): { readonly beats: BeatGrid; readonly sections: readonly Section[] } {
  const { form, wishes } = piece;
  const barsMs = (bar: number) => momentOfBeat(form, bar * form.beatsABar);
  return {
    beats: {
      tempoBpm: Math.round(form.bpm * 10) / 10,
      beatsMs: form.beatsMs.map((atMs) => Math.round(atMs)),
      beatsABar: form.beatsABar,
      firsts: Array.from({ length: form.bars + 1 }, (_, bar) => bar * form.beatsABar),
      confidence: 1,
    },
    sections: form.sections.map(({ label, firstBar, energy }, index) => ({
      label,
      startMs: Math.round(barsMs(firstBar)),
      endMs: Math.round(
        index + 1 < form.sections.length ? barsMs(form.sections[index + 1]!.firstBar) : wishes.lengthMs,
      ),
      energy: Math.round(100 * energy) / 100,
    })),
  };
}
