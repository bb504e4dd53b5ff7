import { contrast } from '../light/contrast';
import type { AssetFacts } from '../show/asset-facts';
import type { Look } from './mount';

/**
 * The look a logo is shown in: mounts lay it on paper, and on ink where it can be seen through and reads better there. The colour that reads worst on a ground
 * decides, of those it is made of.
 *
 * @param logo what is known of its file
 */
export function lookBehindLogo(look: Look, logo: AssetFacts | undefined): Look {
  if (logo?.kind !== 'picture' || !logo.hasTransparency) return look;
  const colours = logo.colours ?? (logo.meanColour ? [logo.meanColour] : []);
  const worstOn = (ground: string) => Math.min(...colours.map((colour) => contrast(colour, ground)));
  const { ink, paper } = look.palette;
  return colours.length > 0 && worstOn(ink) > worstOn(paper) ? { ...look, logoOn: 'ink' } : look;
}
