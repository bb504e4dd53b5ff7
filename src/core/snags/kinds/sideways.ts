import { quarterTurned, settledCrop, WHOLE_CROP } from '../../motion/crop';
import { cropEdit } from '../../motion/crop-edit';
import { pictureAt } from '../calmed-move';
import { allOf, called, picturesOf } from '../helpers';
import type { SnagKind } from '../snag';

export const sideways: SnagKind = {
  title: 'Pictures lying on their side',
  advice: 'Turn it by a quarter on the bench.',
  place: 'arrange',
  *find(look) {
    for (const place of picturesOf(look.prepared)) {
      const { layer } = place;
      const known = look.prepared.facts.get(layer.assetId);
      if (known?.kind !== 'picture' || !known.focus?.sideways || Math.abs(layer.crop?.turnDegrees ?? 0) > 45) continue;
      yield {
        grave: true,
        slideId: place.slide.id,
        layerId: layer.id,
        assetId: layer.assetId,
        of: layer.id,
        ...allOf(place),
        sentence: `${called(look, layer.assetId)} seems to lie on its side.`,
      };
    }
  },
  fixes({ prepared }, { slideId, layerId }) {
    const at = slideId && layerId && pictureAt(prepared, slideId, layerId);
    const known = at && prepared.facts.get(at.layer.assetId);
    if (!at || known?.kind !== 'picture' || !known.focus?.sideways) return [];
    const { sideways: way } = known.focus;
    const turned = cropEdit([{ slideId, layer: at.layer }], prepared.facts, (layer, picture) =>
      settledCrop(quarterTurned(layer.crop ?? WHOLE_CROP, picture, way === 'clockwise'), picture),
    );
    return turned ? [{ name: 'Turn it upright', edit: turned }] : [];
  },
};
