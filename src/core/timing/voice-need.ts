import { breathOf } from '../show/breath';
import type { FactsById } from '../show/asset-facts';
import type { Show, Slide } from '../show/show';
import { spokenMs } from '../sound/sound-spans';

/** How long a slide must last for what is spoken on it, breath and all; 0 without a voice that it waits for. */
export function voiceNeedMs(show: Pick<Show, 'breath'>, slide: Slide, facts: FactsById): number {
  const spoken = spokenMs(slide, facts);
  return spoken === 0 ? 0 : Math.ceil(spoken + breathOf(show, slide).afterMs);
}
