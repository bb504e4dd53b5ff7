import type { AssetFacts, FactsById } from '../show/asset-facts';
import type { ShowEdit } from '../show/edit';
import type { ClipLayer, PictureLayer } from '../show/layer';
import type { SlideId } from '../show/ids';
import { partsOfTurn, straightened, WHOLE_CROP } from './crop';
import { cropEdit } from './crop-edit';

interface LayerOnSlide {
  readonly slideId: SlideId;
  readonly layer: PictureLayer | ClipLayer;
}

/** Less than this cannot be seen. */
const LEVEL_DEGREES = 0.1;

/** By how many degrees a picture would have to be straightened, clockwise, to hang level; null when it does, or when nothing sure is known. */
export function levelBy({ crop }: PictureLayer | ClipLayer, facts: AssetFacts | undefined): number | null {
  const tilt = facts?.kind === 'picture' ? facts.focus?.tilt : undefined;
  if (tilt === undefined) return null;
  const now = -partsOfTurn((crop ?? WHOLE_CROP).turnDegrees).straighten;
  return Math.abs(now + tilt) < LEVEL_DEGREES ? null : -tilt;
}

/** The edit that hangs pictures level, those of which that is known; null when there are none. */
export function levelEdit(layers: readonly LayerOnSlide[], facts: FactsById): ShowEdit | null {
  const askew = layers.filter(({ layer }) => levelBy(layer, facts.get(layer.assetId)) !== null);
  return cropEdit(askew, facts, (layer, picture) =>
    straightened(layer.crop ?? WHOLE_CROP, 0 - levelBy(layer, facts.get(layer.assetId))!, picture),
  );
}
