import { number, object, oneOf, text, whole, maybe, type Schema } from '../schema/schema';
import { LONGEST_FILM_MS } from '../show/limits';
import { seenInShape } from '../builds/in-shape';
import type { FactsById } from '../show/asset-facts';
import { isShapeName, type ShapeName } from '../show/shape';
import type { Show } from '../show/show';
import { FRAME_RATE, faultOfRate, rateName, type FrameRate } from '../timing/frame-rate';
import { showLengthMs } from '../timing/slide-span';
import { FORMAT_NAMES, formatOf, type FilmFormatName } from './film-formats';

export const QUALITIES = ['light', 'good', 'best'] as const;
export type FilmQuality = (typeof QUALITIES)[number];

/** All that is asked of a film of a show. */
export interface FilmSpec {
  /** What it is for, by the name of the purpose it came from; `by-hand` otherwise. */
  readonly purpose: string;
  readonly format: FilmFormatName;
  /** The show is laid out for this shape; the two sides have it but for what rounding to even numbers takes. */
  readonly shape: ShapeName;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly rate: FrameRate;
  readonly quality: FilmQuality;
  /** The file is to be no larger, and as good as that allows. */
  readonly mostBytes?: number;
  /** What pictures of a disc's film get, in thousands of bits a second; 6500 when it is not said. */
  readonly pictureKbits?: number;
  /** Only this stretch of the show. */
  readonly span?: FilmStretch;
}

export interface FilmStretch {
  readonly fromMs: number;
  readonly toMs: number;
}

export const LARGEST_FILM_PX = 3840;
export const SMALLEST_FILM_PX = 64;
const SIDE = whole(SMALLEST_FILM_PX, LARGEST_FILM_PX);
export const FEWEST_BYTES = 200_000;
/** Of a disc's film: what lies above cannot be read fast enough. */
const MOST_PICTURE_KBITS = 9000;
const FEWEST_PICTURE_KBITS = 1000;
export const USUAL_PICTURE_KBITS = 6500;

export const FILM_SPEC: Schema = object<FilmSpec>({
  purpose: text(40, 1),
  format: oneOf(FORMAT_NAMES),
  shape: text(11, 3),
  widthPx: SIDE,
  heightPx: SIDE,
  rate: FRAME_RATE,
  quality: oneOf(QUALITIES),
  mostBytes: maybe(whole(FEWEST_BYTES, 1e12)),
  pictureKbits: maybe(whole(FEWEST_PICTURE_KBITS, MOST_PICTURE_KBITS)),
  span: maybe(object<FilmStretch>({ fromMs: number(0, LONGEST_FILM_MS), toMs: number(0, LONGEST_FILM_MS) })),
});

/** A frame that is off its shape by no more than this would not be noticed. */
const SHAPE_SLACK = 0.02;

/** What is wrong with a film that is asked for, whatever the show, as a sentence; null when nothing is. */
export function faultOfSpec(spec: FilmSpec): string | null {
  const { format, shape, widthPx, heightPx, rate, mostBytes, span } = spec;
  if (!isShapeName(shape)) return `a shape is two numbers such as 16:9, and not very long, got ${shape}`;
  const [across, down] = shape.split(':').map(Number) as [number, number];
  if (widthPx % 2 !== 0 || heightPx % 2 !== 0) return 'both sides of a film must be even numbers of pixels';
  if (Math.abs((widthPx / heightPx) * (down / across) - 1) > SHAPE_SLACK)
    return `${widthPx} × ${heightPx} does not have the shape ${shape}`;
  if (mostBytes !== undefined && !formatOf(format).fitsSize) return `${formatOf(format).name} cannot be made to a size`;
  const { discRate } = formatOf(format);
  if (spec.pictureKbits !== undefined && discRate === undefined)
    return `${formatOf(format).name} is as large as its quality makes it, not by bits a second`;
  if (discRate !== undefined && (rate.frames !== discRate.frames || rate.seconds !== discRate.seconds))
    return `${formatOf(format).name} has ${rateName(discRate)} frames a second, got ${rateName(rate)}`;
  if (discRate !== undefined && shape !== '16:9' && shape !== '4:3')
    return `a video disc holds pictures of 16:9 or 4:3, got ${shape}`;
  if (span && span.toMs - span.fromMs < SHORTEST_SPAN_MS) return 'a stretch of a film must last half a second at least';
  return faultOfRate(rate);
}

export const SHORTEST_SPAN_MS = 500;

/** Why the film cannot be made of this show, as a sentence; null when it can. */
export function faultOfFilm(show: Show, spec?: FilmSpec): string | null {
  if (show.slides.length === 0) return 'The show has no slides yet. Lay some pictures into the order first.';
  const lengthMs = showLengthMs(show);
  const hours = LONGEST_FILM_MS / 3_600_000;
  if (lengthMs > LONGEST_FILM_MS)
    return `A film can last ${hours} hours at most, and this show lasts longer. Make it in parts: copy the show and keep some of its slides in each.`;
  if (!spec) return null;
  const { longestMs, name } = formatOf(spec.format);
  const [fromMs, toMs] = stretchOf(spec, lengthMs);
  if (spec.mostBytes !== undefined && (spec.mostBytes * 8000) / (toMs - fromMs) < LEAST_BITS_A_SECOND)
    return tooLongForSize(spec.mostBytes);
  if (fromMs >= lengthMs) return 'The stretch that was asked for begins after the show has ended.';
  return longestMs !== undefined && toMs - fromMs > longestMs
    ? `${name} can last ${longestMs / 1000} seconds at most. Choose a shorter stretch of the show.`
    : null;
}

/** Sound and picture together: with fewer nothing of the pictures is left. */
const LEAST_BITS_A_SECOND = 92_000;

export function tooLongForSize(mostBytes: number): string {
  return `This film is too long for ${(mostBytes / 1e6).toLocaleString('en', { maximumFractionDigits: 1 })} MB: nothing of its pictures would be left. Allow more, or make it shorter.`;
}

/** From when to when of the show the film goes. */
export function stretchOf({ span }: FilmSpec, lengthMs: number): readonly [fromMs: number, toMs: number] {
  return span ? [span.fromMs, Math.min(span.toMs, lengthMs)] : [0, lengthMs];
}

/**
 * The show laid out for the film's shape, its time counted in the film's frames.
 *
 * @param facts what is known of its files; what is not drawn can go without
 */
export function showForFilm<OfShow extends Show>(
  show: OfShow,
  { shape, rate }: Pick<FilmSpec, 'shape' | 'rate'>,
  facts: FactsById = new Map(),
): OfShow {
  const shaped = seenInShape(show, facts, shape);
  const { rate: own } = shaped.frame;
  return own.frames === rate.frames && own.seconds === rate.seconds
    ? shaped
    : { ...shaped, frame: { ...shaped.frame, rate } };
}
