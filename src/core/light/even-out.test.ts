import { describe, expect, it } from '@jest/globals';
import { evenedLight, isKeyedLight, measureLight, unevened, withEvened, type EvenedLight } from './even-out';

/** A made-up scene: greys, a warm field, a green one and a cold one. */
const SCENE = Array.from({ length: 4000 }, (_, at): [number, number, number] => {
  const light = 40 + ((at * 37) % 120);
  const kind = at % 5;
  if (kind === 0) return [light * 1.15, light, light * 0.8];
  if (kind === 1) return [light * 0.8, light * 1.1, light * 0.75];
  if (kind === 2) return [light * 0.8, light * 0.95, light * 1.1];
  return [light, light, light];
});

/** The scene as a camera would have it under other settings, by the same measures as `tone.ts`. */
function taken({ exposure, temperature, tint }: Omit<EvenedLight, 'short'>): Uint8ClampedArray {
  const gains = [1 + 0.25 * temperature, 1 - 0.15 * tint, 1 - 0.25 * temperature];
  const grey = 0.2126 * gains[0]! + 0.7152 * gains[1]! + 0.0722 * gains[2]!;
  const all = 2 ** (exposure / 2.2) / grey;
  return Uint8ClampedArray.from(
    SCENE.flatMap((rgb) => [...rgb.map((value, channel) => value * gains[channel]! * all), 255]),
  );
}

const AS_IT_IS = { exposure: 0, temperature: 0, tint: 0 };
const measure = (of: Omit<EvenedLight, 'short'>) => measureLight(taken(of))!;

describe('evening out', () => {
  it.each([
    { exposure: -0.6, temperature: 0, tint: 0 },
    { exposure: 0.5, temperature: 0, tint: 0 },
    { exposure: 0, temperature: 0.3, tint: 0 },
    { exposure: 0, temperature: -0.25, tint: 0.2 },
    { exposure: -0.4, temperature: 0.2, tint: -0.3 },
  ])('finds what undoes %j of another camera', (other) => {
    const found = evenedLight(measure(other), measure(AS_IT_IS));
    expect(found.short).toBe(false);
    // Taken back in the reverse order it is the same scene again, but for the rounding to bytes.
    const gains = (of: Omit<EvenedLight, 'short'>) => {
      const raw = [1 + 0.25 * of.temperature, 1 - 0.15 * of.tint, 1 - 0.25 * of.temperature];
      const grey = 0.2126 * raw[0]! + 0.7152 * raw[1]! + 0.0722 * raw[2]!;
      return raw.map((gain) => (gain / grey) * 2 ** (of.exposure / 2.2));
    };
    gains(other).forEach((gain, channel) => expect(Math.abs(gain * gains(found)[channel]! - 1)).toBeLessThan(0.02));
  });
  it('leaves alone what is the same already', () => {
    const found = evenedLight(measure(AS_IT_IS), measure(AS_IT_IS));
    expect(found).toEqual({ exposure: 0, temperature: 0, tint: 0, short: false });
  });
  it('says where it cannot go far enough', () => {
    const dark = measureLight(Uint8ClampedArray.from(SCENE.flatMap(() => [9, 9, 9, 255])))!;
    expect(evenedLight(dark, measure(AS_IT_IS))).toMatchObject({ exposure: 2, short: true });
  });
  it('measures nothing where all is black or white, and leaves out what is blown', () => {
    expect(measureLight(Uint8ClampedArray.from([0, 0, 0, 255, 255, 255, 255, 255]))).toBeNull();
    const half = measureLight(Uint8ClampedArray.from([128, 128, 128, 255, 255, 255, 255, 255, 255, 200, 100, 255]))!;
    expect(half.level).toBeCloseTo(128 / 255, 2);
  });
  it('replaces its three parts of a light and keeps the rest', () => {
    const light = { exposure: 1, temperature: 0.5, contrast: 0.2 };
    expect(withEvened(light, { exposure: -0.5, temperature: 0, tint: 0.1, short: false })).toEqual({
      exposure: -0.5,
      tint: 0.1,
      contrast: 0.2,
    });
    expect(unevened(light)).toEqual({ contrast: 0.2 });
    expect(withEvened({ exposure: 1 }, { exposure: 0, temperature: 0, tint: 0, short: false })).toBeNull();
  });
  it('knows a light that goes from key to key', () => {
    const at = { tied: 'start' as const, ms: 0 };
    const keyed = {
      keys: [
        { at, value: 0 },
        { at: { tied: 'end' as const, ms: 0 }, value: 1 },
      ],
    };
    expect(isKeyedLight({ exposure: keyed } as never)).toBe(true);
    expect(isKeyedLight({ contrast: keyed } as never)).toBe(false);
    expect(isKeyedLight(undefined)).toBe(false);
  });
});
