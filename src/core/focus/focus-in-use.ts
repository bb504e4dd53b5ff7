import { cropOn, placeOnCrop } from '../motion/crop';
import type { ClipFacts, PictureFacts } from '../show/asset-facts';
import type { ClipLayer, PictureLayer } from '../show/layer';
import { around, onPicture, shareWithin, type Box } from './box';
import { focusOf } from './focus-of';
import type { Focus, FocusRing } from './focus-facts';

const PICTURE: Box = { left: 0, top: 0, width: 1, height: 1 };
/** What a crop leaves so little of is gone. */
const LEAST_LEFT = 0.5;

/** What a layer’s picture or clip is about, on what its crop leaves of it; null when nothing is known or nothing of it is left. */
export function focusInUse(
  layer: Pick<PictureLayer | ClipLayer, 'crop'>,
  facts: PictureFacts | ClipFacts,
  rings: readonly FocusRing[] | undefined,
): Focus | null {
  const focus = focusOf(facts.focus, rings, facts.widthPx / facts.heightPx);
  if (!focus || !layer.crop) return focus;
  const crop = cropOn(facts, layer.crop);
  const moved = (box: Box): Box =>
    around(
      [
        [box.left, box.top],
        [box.left + box.width, box.top],
        [box.left, box.top + box.height],
        [box.left + box.width, box.top + box.height],
      ].map(([x, y]) => {
        const place = placeOnCrop(crop, { x: x!, y: y! }, facts);
        return { left: place.x, top: place.y, width: 0, height: 0 };
      }),
    );
  const about = moved(focus.about);
  if (shareWithin(about, PICTURE) < LEAST_LEFT) return null;
  return {
    ...focus,
    about: onPicture(about),
    whole: focus.whole
      .map(moved)
      .filter((box) => shareWithin(box, PICTURE) >= LEAST_LEFT)
      .map(onPicture),
  };
}
