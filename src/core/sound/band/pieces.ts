import type { BandWishes } from './band-wishes';

/** A finished piece that ships with Tanager. */
export interface ShippedPiece {
  /** Of its file. */
  readonly name: string;
  readonly title: string;
  readonly wishes: BandWishes;
  /** As it is played. */
  readonly bpm: number;
}

/** By what right they are used; stands in the credits of a film. */
export const PIECE_LICENCE = 'Played by the Tanager house band; free to use in films of any kind';

const piece = (
  name: string,
  title: string,
  wishes: Omit<BandWishes, 'lengthMs'>,
  seconds: number,
  bpm: number,
): ShippedPiece => ({
  name,
  title,
  wishes: { ...wishes, lengthMs: 1000 * seconds },
  bpm,
});

/** The shelf of music that is there from the beginning; `scripts/pieces.mjs` plays them anew. */
export const PIECES: readonly ShippedPiece[] = [
  piece(
    'first-light',
    'First Light on the Sill',
    { style: 'quiet-piano', mood: 'warm', energy: 0.5, seed: 12 },
    96,
    72.4,
  ),
  piece('letters-kept', 'Letters Kept', { style: 'quiet-piano', mood: 'wistful', energy: 0.4, seed: 31 }, 118, 66.0),
  piece(
    'four-chairs',
    'Four Chairs by the Window',
    { style: 'string-quartet', mood: 'calm', energy: 0.5, seed: 8 },
    104,
    77.3,
  ),
  piece('over-the-stile', 'Over the Stile', { style: 'folk-guitar', mood: 'glad', energy: 0.65, seed: 5 }, 92, 111.5),
  piece(
    'square-at-noon',
    'The Square at Noon',
    { style: 'brass-band', mood: 'glad', energy: 0.7, seed: 21 },
    88,
    103.1,
  ),
  piece('last-tram', 'Last Tram but One', { style: 'jazz-trio', mood: 'playful', energy: 0.6, seed: 17 }, 100, 140.5),
  piece('slow-tide', 'Slow Tide', { style: 'ambient', mood: 'calm', energy: 0.4, seed: 3 }, 126, 54.4),
  piece('paper-boats', 'Paper Boats', { style: 'light-electronic', mood: 'warm', energy: 0.7, seed: 14 }, 94, 115.4),
  piece('under-the-quilt', 'Under the Quilt', { style: 'lullaby', mood: 'warm', energy: 0.35, seed: 9 }, 84, 86.2),
  piece('new-boots', 'New Boots', { style: 'march', mood: 'playful', energy: 0.7, seed: 26 }, 76, 130.6),
  piece('oranges', 'A Crate of Oranges', { style: 'latin', mood: 'glad', energy: 0.7, seed: 11 }, 90, 131.7),
  piece('long-aisle', 'The Long Aisle', { style: 'organ', mood: 'solemn', energy: 0.55, seed: 4 }, 98, 71.2),
  piece('drum-yard', 'The Drum Yard', { style: 'hand-drums', mood: 'playful', energy: 0.8, seed: 19 }, 72, 123.8),
];
