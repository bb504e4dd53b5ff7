import { channels, contrast, luminance } from '../light/contrast';
import type { Palette } from '../plumage/plumage';

/** A screening’s colours, by what they are for. */
export interface ScreeningLook {
  readonly ground: string;
  /** Reads on the ground. */
  readonly letters: string;
  /** Quieter, and still reads. */
  readonly soft: string;
  /** Lines and fields. */
  readonly rule: string;
  /** What can be pressed … */
  readonly accent: string;
  /** … and what is written on it. */
  readonly onAccent: string;
}

const USUAL: Palette = { ink: '#141210', paper: '#f1ebe0', accent: '#d8a24a', soft: '#8c8375' };

/** Below this, small letters do not read (WCAG 2.2, 1.4.3). */
const READS = 4.5;

/**
 * Films are seen in the dark: the darker of a studio’s ink and paper becomes the ground, darkened until its letters read, the lighter one the letters. An
 * accent that cannot be told from the ground is lightened until it can be.
 *
 * @param palette the studio’s own; none: the usual one
 */
export function screeningLook(palette: Palette = USUAL): ScreeningLook {
  const [dark, light] =
    luminance(palette.ink) <= luminance(palette.paper) ? [palette.ink, palette.paper] : [palette.paper, palette.ink];
  const ground = until(dark, '#000000', (colour) => contrast(colour, light) >= 9 && luminance(colour) < 0.06);
  const letters = until(light, '#ffffff', (colour) => contrast(colour, ground) >= 9);
  const accent = until(palette.accent, letters, (colour) => contrast(colour, ground) >= 3);
  return {
    ground,
    letters,
    soft: until(mixed(letters, ground, 0.35), letters, (colour) => contrast(colour, ground) >= READS + 1),
    rule: mixed(ground, letters, 0.18),
    accent,
    onAccent: [ground, '#ffffff', '#000000'].find((colour) => contrast(accent, colour) >= READS)!,
  };
}

function until(colour: string, towards: string, good: (colour: string) => boolean): string {
  for (let share = 0; share < 1; share += 0.05) {
    const tried = mixed(colour, towards, share);
    if (good(tried)) return tried;
  }
  return towards;
}

function mixed(one: string, other: string, share: number): string {
  const [from, to] = [channels(one), channels(other)];
  return `#${from
    .map((value, index) =>
      Math.round(value + (to[index]! - value) * share)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}
