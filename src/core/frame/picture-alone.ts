import { croppedSize } from '../motion/crop';
import { fillFraming } from '../motion/framing';
import type { AssetFacts } from '../show/asset-facts';
import type { SlideId } from '../show/ids';
import type { ClipLayer, PictureLayer } from '../show/layer';
import type { Show } from '../show/show';

/** Frames are a whole number of such steps wide. */
const STEP_PX = 16;
/** What is seen through a picture is neither bright nor dark. */
const SEEN_THROUGH = '#808080';

/**
 * A picture by itself as a show: all that its crop leaves, filling a frame of its own shape, in its light; without move, edge and whatever else lies on its
 * slide. For what is told of the picture itself, such as its histogram. A clip stands on its first frame.
 *
 * @param longPx the frame's longer side, about
 */
export function pictureAlone(
  show: Show,
  layer: PictureLayer | ClipLayer,
  facts: Exclude<AssetFacts, { kind: 'sound' }>,
  longPx: number,
): Show {
  const size = croppedSize(facts, layer.crop);
  const scale = longPx / Math.max(size.widthPx, size.heightPx);
  const widthPx = STEP_PX * Math.max(1, Math.round((size.widthPx * scale) / STEP_PX));
  const heightPx = 2 * Math.max(4, Math.round((widthPx * size.heightPx) / size.widthPx / 2));
  const whole = fillFraming(size.widthPx / size.heightPx, widthPx / heightPx);
  const { id, kind, assetId, light, crop, flip } = layer;
  const own = { id, assetId, ...(light && { light }), ...(crop && { crop }), ...(flip && { flip }) };
  const move = { kind: 'set' as const, first: whole, last: whole };
  const alone: PictureLayer | ClipLayer =
    kind === 'picture'
      ? { ...own, kind, move }
      : { ...own, kind, trimStartMs: layer.trimStartMs, soundGainDb: layer.soundGainDb, move };
  const { captionLook: _captions, watermark: _mark, plumage: _plumage, ...rest } = show;
  return {
    ...rest,
    frame: { ...show.frame, widthPx, heightPx },
    cues: [],
    slides: [
      {
        id: 'alone' as SlideId,
        lengthMs: 1000,
        transition: { kind: 'cut' },
        backing: { kind: 'colour', colour: SEEN_THROUGH },
        layers: [alone],
        sounds: [],
      },
    ],
  };
}
