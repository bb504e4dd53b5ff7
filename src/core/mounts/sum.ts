import { seedOf } from '../motion/seed';
import { stableText } from '../stable-text';
import { isHeld } from '../show/chosen';
import { mapped } from '../show/pile';
import type { Slide } from '../show/show';

/** A short sum of how a slide looks, apart from what its fillable words say, how long it lasts and how it comes: equal as long as no hand changed the design. */
export function sumOf(slide: Slide): string {
  const fillable = new Set((slide.mounted?.words ?? []).map(({ layerId, part }) => `${layerId} ${part}`));
  const layers = mapped(slide.layers, (layer) => {
    const { chosen: _chosen, bare: _bare, ...rest } = layer;
    if (rest.kind !== 'words') return rest as typeof layer;
    return {
      ...rest,
      title: fillable.has(`${layer.id} title`) ? '' : rest.title,
      subtitle: fillable.has(`${layer.id} subtitle`) ? '' : rest.subtitle,
    } as typeof layer;
  });
  const text = stableText([layers, slide.backing]);
  return [0, 1].map((salt) => Math.floor(seedOf(text, salt) * 2 ** 32).toString(36)).join('');
}

/** Whether a hand changed what a mount laid, or how it comes or how long it lasts, beside filling in its words. */
export function isChangedByHand(slide: Slide): boolean {
  if (!slide.mounted) return false;
  return isHeld(slide, 'transition') || isHeld(slide, 'length') || slide.mounted.sum !== sumOf(slide);
}
