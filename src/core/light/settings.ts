import type { Light } from '../show/light';

/** A light that is taken at one press. */
export interface LightSetting {
  readonly name: string;
  readonly light: Light;
}

/** What is offered beside the print effects; each is made of nothing but what the sliders have. */
export const LIGHT_SETTINGS: readonly LightSetting[] = [
  { name: 'clear', light: { levels: 'automatic', vibrance: 0.2, sharpen: 0.25 } },
  { name: 'late sun', light: { temperature: 0.35, exposure: 0.15, vibrance: 0.25, highlights: -0.2 } },
  { name: 'early fog', light: { temperature: -0.25, contrast: -0.25, saturation: -0.25, shadows: 0.25 } },
  { name: 'deep', light: { contrast: 0.4, saturation: 0.2, shadows: -0.15, vignette: 0.25 } },
  { name: 'gentle', light: { contrast: -0.3, highlights: -0.35, shadows: 0.35, vibrance: 0.1 } },
  { name: 'silver', light: { blackAndWhite: 1, contrast: 0.3 } },
  { name: 'charcoal', light: { blackAndWhite: 1, contrast: 0.6, exposure: -0.4, vignette: 0.4 } },
  { name: 'album', light: { sepia: 0.8, contrast: -0.15, vignette: 0.35 } },
  { name: 'chalk', light: { paling: 0.45, saturation: -0.2 } },
];

/** A setting on a picture: what was done to the picture itself (red eyes, a print effect) stays. */
export function withSetting(light: Light | undefined, setting: LightSetting): Light {
  const { redEyes, print } = light ?? {};
  return { ...setting.light, ...(redEyes && { redEyes }), ...(print && { print }) };
}

/** Whether a light says what a setting says, beside what a setting leaves alone. */
export function isSetting(light: Light | undefined, setting: LightSetting): boolean {
  return light !== undefined && JSON.stringify(sorted(light)) === JSON.stringify(sorted(withSetting(light, setting)));
}

function sorted(light: Light): [string, unknown][] {
  return Object.entries(light).sort(([one], [other]) => (one < other ? -1 : 1));
}
