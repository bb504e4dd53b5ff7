import type { Light } from './light';

type Amount = Exclude<keyof Light, 'levels' | 'tone' | 'sharpen' | 'print' | 'redEyes'>;

/** The amounts of light that may go from key to key, with what people call them. */
export const LIGHT_AMOUNTS: readonly {
  readonly name: Amount;
  readonly called: string;
  readonly least: number;
  readonly most: number;
}[] = [
  { name: 'exposure', called: 'exposure', least: -4, most: 4 },
  { name: 'contrast', called: 'contrast', least: -1, most: 1 },
  { name: 'highlights', called: 'highlights', least: -1, most: 1 },
  { name: 'shadows', called: 'shadows', least: -1, most: 1 },
  { name: 'temperature', called: 'warmth', least: -1, most: 1 },
  { name: 'tint', called: 'tint', least: -1, most: 1 },
  { name: 'saturation', called: 'saturation', least: -1, most: 1 },
  { name: 'vibrance', called: 'vibrance', least: -1, most: 1 },
  { name: 'blackAndWhite', called: 'black and white', least: 0, most: 1 },
  { name: 'sepia', called: 'sepia', least: 0, most: 1 },
  { name: 'paling', called: 'paling', least: 0, most: 1 },
  { name: 'vignette', called: 'vignette', least: 0, most: 1 },
];
