import { list, maybe, number, object, oneOf, truth, whole, type PartsOf, type Schema } from '../../schema/schema';
import type { BandOrder } from './band-order';
import type { BandPiece } from './piece-facts';
import {
  BAND_BPM,
  BAND_INSTRUMENTS,
  BAND_LENGTH_MS,
  BAND_MOODS,
  BAND_STYLES,
  MOST_BAND_MOMENTS,
  MOST_SEED,
  type BandMoment,
  type BandWishes,
} from './band-wishes';

const PARTS: PartsOf<Omit<BandWishes, 'lengthMs' | 'moments'>> = {
  style: oneOf(BAND_STYLES),
  mood: oneOf(BAND_MOODS),
  bpm: maybe(number(BAND_BPM.least, BAND_BPM.most)),
  energy: number(0, 1),
  seed: whole(0, MOST_SEED),
  without: maybe(list(oneOf(BAND_INSTRUMENTS), BAND_INSTRUMENTS.length, 1)),
  and: maybe(list(oneOf(BAND_INSTRUMENTS), BAND_INSTRUMENTS.length, 1)),
};

export const BAND_WISHES: Schema = object<BandWishes>({
  ...PARTS,
  lengthMs: whole(BAND_LENGTH_MS.least, BAND_LENGTH_MS.most),
  moments: maybe(
    list(
      object<BandMoment>({ atMs: number(0, BAND_LENGTH_MS.most), what: oneOf(['chapter', 'lingers']) }),
      MOST_BAND_MOMENTS,
      1,
    ),
  ),
});

export const BAND_ORDER: Schema = object<BandOrder>({ ...PARTS, turns: maybe(truth) });

export const BAND_PIECE: Schema = object<BandPiece>({ method: whole(1, 1000), wishes: BAND_WISHES });
