import type { AssetFacts } from '../show/asset-facts';

/** How long a file sounds; 0 for a picture and for one that is not known. */
export function soundLengthMs(facts: AssetFacts | undefined): number {
  return facts && facts.kind !== 'picture' ? facts.lengthMs : 0;
}
