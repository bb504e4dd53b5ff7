import { between, keyTimes, type KeyMoment } from './channel';
import { curveOf } from './easing';

/** A colour (`#rrggbb`) that stays, or goes from key to key. */
export type ColourChannel = string | KeyedColour;

export interface KeyedColour {
  readonly keys: readonly ColourKey[];
  /** As of a channel of numbers. */
  readonly still?: string;
}

export interface ColourKey extends KeyMoment {
  readonly colour: string;
}

/**
 * The colour at an offset, held before the first key and after the last. Between two keys it is mixed in OKLab (B. Ottosson, 2020), where the way between two
 * colours looks even and does not pass through grey mud.
 *
 * @returns `#rrggbb`
 * @throws {RangeError} when there are no keys
 */
export function colourAt(channel: ColourChannel, offsetMs: number, seenMs: number): string {
  if (typeof channel === 'string') return channel;
  const { keys, still } = channel;
  if (still !== undefined) return still;
  const { from, to, progress } = between(keys, keyTimes(keys, seenMs), offsetMs);
  if (to === null) return keys[from]!.colour;
  return mixed(keys[from]!.colour, keys[to]!.colour, curveOf(keys[from]!.easing ?? 'settle')(progress));
}

/** What a colour begins with. */
export function firstColour(channel: ColourChannel | undefined, otherwise: string): string {
  return channel === undefined
    ? otherwise
    : typeof channel === 'string'
      ? channel
      : (channel.still ?? channel.keys[0]!.colour);
}

type Triple = readonly [number, number, number];

function mixed(one: string, other: string, share: number): string {
  if (share <= 0 || one === other) return one;
  if (share >= 1) return other;
  const [a, b] = [okLab(one), okLab(other)];
  return hex([0, 1, 2].map((k) => a[k]! + (b[k]! - a[k]!) * share) as unknown as Triple);
}

const toLinear = (value: number) => (value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4);
const toGamma = (value: number) => (value <= 0.0031308 ? 12.92 * value : 1.055 * value ** (1 / 2.4) - 0.055);

/** Of `#rrggbb`, in OKLab (Ottosson 2020): lightness 0…1, and how much green–red and blue–yellow. */
export function okLab(colour: string): Triple {
  const [r, g, b] = [1, 3, 5].map((at) => toLinear(parseInt(colour.slice(at, at + 2), 16) / 255)) as [
    number,
    number,
    number,
  ];
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}

/**
 * A colour at another lightness, of the same hue, as colourful as that allows on a page.
 *
 * @param colour `#rrggbb` @param lightness in OKLab, 0…1
 */
export function atLightness(colour: string, lightness: number): string {
  const [own, a, b] = okLab(colour);
  // What is lighter or darker carries less colour.
  const room = Math.min(1, Math.min(lightness, 1 - lightness) / Math.max(0.05, Math.min(own, 1 - own)));
  return hex([lightness, a * room, b * room]);
}

function hex([lightness, a, b]: Triple): string {
  const l = (lightness + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const m = (lightness - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const s = (lightness - 0.0894841775 * a - 1.291485548 * b) ** 3;
  const channels = [
    4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
    -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
    -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s,
  ].map((value) => Math.round(255 * Math.min(1, Math.max(0, toGamma(Math.max(0, value))))));
  return `#${channels.map((value) => value.toString(16).padStart(2, '0')).join('')}`;
}
