import { anchorOf } from '../show/words';
import type { LayerPlan } from './frame-plan';
import { boxToScreen } from './box-on-screen';
import { BARE } from './plan-layers';
import { pictureSizeFor } from './picture-size';
import type { PreparedShow } from './plan-frame';

/** From the frame's edge, as a share of its shorter side. */
const MARGIN = 0.045;
const WHOLE = { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };

/** The show's watermark, whole and in its own shape; none when there is none or its file is not there. */
export function planWatermark(
  { show, facts }: Pick<PreparedShow, 'show' | 'facts'>,
  frame: { readonly widthPx: number; readonly heightPx: number },
): LayerPlan[] {
  const known = show.watermark && facts.get(show.watermark.assetId);
  if (!show.watermark || known?.kind !== 'picture') return [];
  const { place, size, opacity, assetId } = show.watermark;
  const short = Math.min(frame.widthPx, frame.heightPx);
  const scale = (size * short) / Math.max(known.widthPx, known.heightPx);
  const [widthPx, heightPx] = [known.widthPx * scale, known.heightPx * scale];
  const [across, down] = anchorOf(place);
  const leftPx = MARGIN * short + (frame.widthPx - 2 * MARGIN * short - widthPx) * across;
  const topPx = MARGIN * short + (frame.heightPx - 2 * MARGIN * short - heightPx) * down;
  return [
    {
      ...BARE,
      content: {
        kind: 'picture',
        assetId,
        crop: null,
        framing: WHOLE,
        sizes: [{ size: pictureSizeFor(known, { first: WHOLE, last: WHOLE }, { widthPx }), share: 1 }],
        light: null,
      },
      plain: false,
      opacity,
      toScreen: boxToScreen(leftPx, topPx, widthPx, heightPx),
    },
  ];
}
