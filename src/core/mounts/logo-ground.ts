import { contrast } from '../light/contrast';
import type { AssetFacts } from '../show/asset-facts';
import type { Look } from './mount';

/**
 * Whether a logo that can be seen through reads better on another ground than on the usual one. The colour that reads worst on a ground decides, of those it is
 * made of.
 *
 * @param logo what is known of its file
 * @param usual `#rrggbb`, as `other`
 */
export function readsBetterOn(other: string, usual: string, logo: AssetFacts | undefined): boolean {
  if (logo?.kind !== 'picture' || !logo.hasTransparency) return false;
  const colours = logo.colours ?? (logo.meanColour ? [logo.meanColour] : []);
  const worstOn = (ground: string) => Math.min(...colours.map((colour) => contrast(colour, ground)));
  return colours.length > 0 && worstOn(other) > worstOn(usual);
}

/** The look a logo is shown in: mounts lay it on paper, and on ink where it reads better there. */
export function lookBehindLogo(look: Look, logo: AssetFacts | undefined): Look {
  return readsBetterOn(look.palette.ink, look.palette.paper, logo) ? { ...look, logoOn: 'ink' } : look;
}
