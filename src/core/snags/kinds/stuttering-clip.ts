import { seenLayers } from '../../show/layer';
import { CLIP_FRAMES_PER_SECOND } from '../../frame/frame-plan';
import { ownClipRate } from '../../timing/clip-rate';
import { framesPerSecond } from '../../timing/frame-rate';
import { allOf, called, slidesOf } from '../helpers';
import type { SnagKind, SnagLook } from '../snag';

/** Below this, movement falls apart into pictures. */
const FEWEST = 18;
const NEAR = 0.01;

/** The clips whose rate is known, with the frames a second they are played at. */
function* clipsOf({ prepared }: SnagLook) {
  for (const place of slidesOf(prepared))
    for (const layer of seenLayers(place.slide.layers)) {
      const known = layer.kind === 'clip' ? prepared.facts.get(layer.assetId) : undefined;
      if (layer.kind !== 'clip' || known?.kind !== 'clip' || known.framesPerSecond === undefined) continue;
      const byOwn = ownClipRate(known) !== null;
      yield { place, layer, uneven: known.uneven === true, byOwn, rate: known.framesPerSecond * (layer.speed ?? 1) };
    }
}

/** Whether each frame of one is seen for as many frames of the other, as every other. */
function goesInto(clip: number, film: number): boolean {
  const ratio = clip >= film ? clip / film : film / clip;
  return Math.abs(ratio - Math.round(ratio)) <= NEAR * ratio;
}

export const stutteringClip: SnagKind = {
  title: 'Clips that stutter',
  advice: 'Make the film at as many frames a second as the clip has, or bring the clip at as many as the film.',
  place: 'gather',
  *find(look) {
    const film = framesPerSecond(look.prepared.show.frame.rate);
    for (const { place, layer, rate, uneven, byOwn } of clipsOf(look)) {
      const slow = rate < FEWEST;
      if (!slow && !uneven && goesInto(rate, film) && (byOwn || goesInto(rate, CLIP_FRAMES_PER_SECOND))) continue;
      yield {
        grave: false,
        slideId: place.slide.id,
        layerId: layer.id,
        assetId: layer.assetId,
        of: layer.id,
        ...allOf(place),
        sentence: slow
          ? `${called(look, layer.assetId)} shows only ${rate.toFixed(0)} pictures a second.`
          : uneven
            ? `The frames of ${called(look, layer.assetId)} come unevenly, about ${rate.toFixed(0)} a second.`
            : `${called(look, layer.assetId)} has ${rounded(rate)} frames a second, which do not go evenly into the film’s ${rounded(film)}.`,
      };
    }
  },
};

const rounded = (rate: number) => String(Math.round(100 * rate) / 100);
