import { levelBy, levelEdit } from '../../motion/level';
import { pictureAt } from '../calmed-move';
import { allOf, called, picturesOf } from '../helpers';
import type { SnagKind } from '../snag';

/** Less is seen by nobody who does not look for it. */
const LEAST_DEGREES = 0.8;

export const askew: SnagKind = {
  title: 'Pictures that hang askew',
  advice: 'Straighten it on the bench, under Crop.',
  place: 'arrange',
  *find(look) {
    for (const place of picturesOf(look.prepared)) {
      const { layer } = place;
      const by = levelBy(layer, look.prepared.facts.get(layer.assetId));
      // What somebody turned by hand hangs as they want it.
      if (by === null || Math.abs(by) < LEAST_DEGREES || (layer.crop?.turnDegrees ?? 0) !== 0) continue;
      yield {
        grave: false,
        slideId: place.slide.id,
        layerId: layer.id,
        assetId: layer.assetId,
        of: layer.id,
        ...allOf(place),
        sentence: `${called(look, layer.assetId)} leans by ${Math.abs(by).toFixed(1)}° ${by < 0 ? 'clockwise' : 'anticlockwise'}.`,
      };
    }
  },
  fixes({ prepared }, { slideId, layerId }) {
    const at = slideId && layerId && pictureAt(prepared, slideId, layerId);
    const level = at ? levelEdit([{ slideId, layer: at.layer }], prepared.facts) : null;
    return level ? [{ name: 'Hang it level', edit: level }] : [];
  },
};
