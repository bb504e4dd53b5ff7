import type { AssetFacts } from '../../core/show/asset-facts';
import type { StudioProfile } from '../../core/studio/studio-profile';
import type { ContactSheet } from '../assets/contact-sheet';

/** What is known of a studio's logo; undefined where it has none, or nobody looked at it yet. */
export async function logoFactsOf(
  sheet: Pick<ContactSheet, 'factsOf'>,
  { logo }: Pick<StudioProfile, 'logo'>,
): Promise<AssetFacts | undefined> {
  return logo === null ? undefined : (await sheet.factsOf([logo])).get(logo);
}
