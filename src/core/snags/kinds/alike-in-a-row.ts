import { stacksOf } from '../../choosing/stacks';
import { takenAt } from '../../show/camera-clock';
import { layersOfPictures } from '../pictures-of-slide';
import { called, slidesOf } from '../helpers';
import type { SnagKind } from '../snag';

export const alikeInARow: SnagKind = {
  title: 'Two nearly alike in a row',
  advice: 'Keep the better of the two, or put something between them.',
  place: 'arrange',
  *find(look) {
    const { prepared } = look;
    const { show, facts } = prepared;
    const places = [...slidesOf(prepared)];
    for (const [at, place] of places.entries()) {
      const before = places[at - 1];
      const [own, other] = [onlyPicture(place.slide.layers), before && onlyPicture(before.slide.layers)];
      const [known, knownBefore] = [own && facts.get(own.assetId), other && facts.get(other.assetId)];
      if (!before || !own || !other || own.assetId === other.assetId) continue;
      if (known?.kind !== 'picture' || knownBefore?.kind !== 'picture') continue;
      const [stack] = stacksOf([
        { id: 'before', facts: knownBefore, takenAt: takenAt(knownBefore, show.clocks) },
        { id: 'own', facts: known, takenAt: takenAt(known, show.clocks) },
      ]);
      if (stack!.length < 2) continue;
      yield {
        grave: false,
        slideId: place.slide.id,
        assetId: own.assetId,
        fromMs: Math.max(before.span.startMs, place.span.startMs - 1500),
        toMs: Math.min(place.span.endMs, place.span.startMs + 2500),
        sentence: `${called(look, own.assetId)} is nearly the same as ${called(look, other.assetId)} before it.`,
      };
    }
  },
  fixes({ prepared }, { slideId }) {
    const index = prepared.show.slides.findIndex((slide) => slide.id === slideId);
    const [slide, before] = [prepared.show.slides[index], prepared.show.slides[index - 1]];
    if (!slide || !before) return [];
    return [
      { name: 'Leave this one out', edit: { kind: 'remove-slides', slideIds: [slide.id] } },
      { name: 'Leave the one before out', edit: { kind: 'remove-slides', slideIds: [before.id] } },
    ];
  },
};

/** The picture of a slide that shows no other. */
function onlyPicture(layers: Parameters<typeof layersOfPictures>[0]) {
  const pictures = layersOfPictures(layers);
  return pictures.length === 1 ? pictures[0]! : null;
}
