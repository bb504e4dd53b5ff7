import { isMoving } from '../keys/edit-keys';
import type { Light } from '../show/light';

/** How bright a picture is and what the light on it was like, as it is seen. */
export interface LightMeasure {
  /** Middle of its luma, 0…1, gamma-encoded; what is blown or drowned is left out. */
  readonly level: number;
  /** Colour of the light, as what it makes of grey: red, green and blue, gamma-encoded; only their proportions say something. */
  readonly light: readonly [red: number, green: number, blue: number];
}

/** Parts of its light that even out what the camera did differently. */
export interface EvenedLight {
  readonly exposure: number;
  readonly temperature: number;
  readonly tint: number;
  /** It would have taken more than these can do. */
  readonly short: boolean;
}

/** The norm of “shades of grey”, between the mean (1) and the brightest (infinity): Finlayson and Trezzi 2004 found 6 the best. */
const NORM = 6;
/** More is no difference of exposure but another picture. */
const MOST_STOPS = 2;
const LEFT_OUT = 0.02;

/** @param rgba four bytes a pixel, gamma-encoded. Null where there is nothing to measure: all of it black or white. */
export function measureLight(rgba: Uint8ClampedArray): LightMeasure | null {
  const counts = new Uint32Array(256);
  const sums = [0, 0, 0];
  let seen = 0;
  for (let at = 0; at < rgba.length; at += 4) {
    const [r, g, b] = [rgba[at]!, rgba[at + 1]!, rgba[at + 2]!];
    const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    if (Math.max(r, g, b) > 255 * (1 - LEFT_OUT) || luma < 255 * LEFT_OUT) continue;
    counts[Math.round(luma)]! += 1;
    sums[0]! += (r / 255) ** NORM;
    sums[1]! += (g / 255) ** NORM;
    sums[2]! += (b / 255) ** NORM;
    seen += 1;
  }
  if (seen === 0) return null;
  let passed = 0;
  const middle = counts.findIndex((count) => (passed += count) * 2 >= seen);
  const [red, green, blue] = sums.map((sum) => (sum / seen) ** (1 / NORM)) as [number, number, number];
  return { level: middle / 255, light: [red, green, blue] };
}

/**
 * What brings a picture to the level and the light of another that was taken in the same light: the reverse of how `tone.ts` takes them, whose gains on red,
 * green and blue are 1 + T/4, 1 − 0.15 t and 1 − T/4, and whose luma is multiplied by 2^(stops/2.2).
 *
 * @param own measured without exposure, temperature and tint of its own
 */
export function evenedLight(own: LightMeasure, aim: LightMeasure): EvenedLight {
  const warmth = aim.light[0] / aim.light[2] / (own.light[0] / own.light[2]);
  const temperature = held((4 * (warmth - 1)) / (warmth + 1), 1);
  const green = (of: LightMeasure) => of.light[1] / Math.sqrt(of.light[0] * of.light[2]);
  const sides = Math.sqrt((1 + temperature.value / 4) * (1 - temperature.value / 4));
  const tint = held((1 - (green(aim) / green(own)) * sides) / 0.15, 1);
  const exposure = held(2.2 * Math.log2(aim.level / own.level), MOST_STOPS);
  return {
    exposure: exposure.value,
    temperature: temperature.value,
    tint: tint.value,
    short: exposure.short || temperature.short || tint.short,
  };
}

/** The light with these parts replaced; parts that do nothing are left out, and so is light that does nothing. */
export function withEvened(light: Light | undefined, evened: EvenedLight): Light | null {
  const { exposure: _e, temperature: _t, tint: _i, ...rest } = light ?? {};
  const parts = (['exposure', 'temperature', 'tint'] as const).flatMap((name) =>
    evened[name] === 0 ? [] : [[name, evened[name]] as const],
  );
  const next: Light = { ...rest, ...Object.fromEntries(parts) };
  return Object.keys(next).length === 0 ? null : next;
}

/** Without what evening out replaces: how it is measured. */
export function unevened(light: Light | undefined): Light | undefined {
  return withEvened(light, { exposure: 0, temperature: 0, tint: 0, short: false }) ?? undefined;
}

/** Whether it goes from key to key in what evening out would replace: then it is left as it is. */
export function isKeyedLight(light: Light | undefined): boolean {
  return [light?.exposure, light?.temperature, light?.tint].some(isMoving);
}

function held(value: number, most: number): { value: number; short: boolean } {
  const rounded = Math.round(1000 * Math.min(most, Math.max(-most, value))) / 1000;
  return { value: rounded === 0 ? 0 : rounded, short: Math.abs(value) > most };
}
