import type { Channel } from '../keys/channel';
import type { AssetFacts } from '../show/asset-facts';
import type { Light } from '../show/light';
import type { LightPlan, LightValues } from './frame-plan';

/** The light of a layer as numbers; null when it changes nothing (a vignette is drawn apart). */
export function lightAt(
  light: Light | undefined,
  at: (channel: Channel | undefined, usual: number) => number,
  facts: AssetFacts | undefined,
): LightPlan | null {
  if (!light) return null;
  const points =
    light.levels === 'automatic'
      ? facts?.kind === 'picture'
        ? (facts.tonePoints ?? null)
        : null
      : (light.levels ?? null);
  const values: LightValues = {
    exposure: at(light.exposure, 0),
    contrast: at(light.contrast, 0),
    highlights: at(light.highlights, 0),
    shadows: at(light.shadows, 0),
    temperature: at(light.temperature, 0),
    tint: at(light.tint, 0),
    saturation: at(light.saturation, 0),
    vibrance: at(light.vibrance, 0),
    black: points?.black ?? 0,
    white: points?.white ?? 1,
    blackAndWhite: at(light.blackAndWhite, 0),
    sepia: at(light.sepia, 0),
    paling: at(light.paling, 0),
    toneColour: light.tone?.colour ?? '#000000',
    toneAmount: at(light.tone?.amount, 0),
  };
  const moves = [
    light.exposure,
    light.contrast,
    light.highlights,
    light.shadows,
    light.temperature,
    light.tint,
    light.saturation,
    light.vibrance,
    light.blackAndWhite,
    light.sepia,
    light.paling,
    light.tone?.amount,
  ].some((channel) => typeof channel === 'object');
  const plan = { values, moves, sharpen: light.sharpen ?? 0, print: light.print ?? null, redEyes: light.redEyes ?? [] };
  return changesNothing(plan) ? null : plan;
}

function changesNothing(plan: LightPlan): boolean {
  const { values } = plan;
  const still = (
    [
      'exposure',
      'contrast',
      'highlights',
      'shadows',
      'temperature',
      'tint',
      'saturation',
      'vibrance',
      'black',
      'blackAndWhite',
      'sepia',
      'paling',
      'toneAmount',
    ] as const
  ).every((name) => values[name] === 0);
  return still && values.white === 1 && !plan.moves && plan.sharpen === 0 && !plan.print && plan.redEyes.length === 0;
}
