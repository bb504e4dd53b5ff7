import {
  list,
  anything,
  kinds,
  maybe,
  number,
  object,
  oneOf,
  orNull,
  text,
  truth,
  whole,
  type Schema,
} from '../../core/schema/schema';
import type { AssetFacts } from '../../core/show/asset-facts';
import { MAIN_COLOURS } from '../../core/light/main-colours';
import { BAND_PIECE } from '../../core/sound/band/band-schema';

export const COUNT = whole(0, 1e12);
export const LENGTH = number(0, 1e12);
export const NAME = text(4096);

/** What is known about a file, as routes answer it. */
export const FACTS: Schema = kinds<AssetFacts>({
  picture: {
    widthPx: COUNT,
    heightPx: COUNT,
    hasTransparency: truth,
    takenAt: orNull(text(40)),
    camera: orNull(NAME),
    brightness: number(0, 1),
    tonePoints: maybe(object<{ black: unknown; white: unknown }>({ black: number(0, 1), white: number(0, 1) })),
    bars: maybe(anything),
    caption: maybe(NAME),
    place: maybe(NAME),
    rating: maybe(number(-1, 5)),
    meanColour: maybe(text(7)),
    colours: maybe(list(text(7), MAIN_COLOURS)),
    likeness: maybe(text(200)),
    focus: maybe(anything),
    raw: maybe(truth),
  },
  clip: {
    widthPx: COUNT,
    heightPx: COUNT,
    lengthMs: LENGTH,
    hasSound: truth,
    takenAt: orNull(text(40)),
    hdr: maybe(oneOf(['pq', 'hlg'])),
    framesPerSecond: maybe(number(0, 100_000)),
    uneven: maybe(truth),
    listening: maybe(anything),
    focus: maybe(anything),
  },
  sound: {
    lengthMs: LENGTH,
    title: orNull(NAME),
    artist: orNull(NAME),
    genre: maybe(NAME),
    band: maybe(BAND_PIECE),
    listening: maybe(anything),
  },
});
