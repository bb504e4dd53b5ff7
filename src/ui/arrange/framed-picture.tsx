import { factsInUse } from '../../core/motion/crop';
import type { PlannedMove } from '../../core/motion/automatic-move';
import type { Framing } from '../../core/motion/framing';
import type { ClipFacts, PictureFacts } from '../../core/show/asset-facts';
import type { ClipLayer, PictureLayer } from '../../core/show/layer';
import { CroppedPrint } from '../kit/cropped-print';
import { framedView, framingBox, type FramedView } from './framed-view';

interface FramedPictureProps {
  readonly layer: PictureLayer | ClipLayer;
  /** What is known of its whole file. */
  readonly facts: PictureFacts | ClipFacts;
  readonly move: PlannedMove | undefined;
  /** At most this large; narrower or lower when the picture with its framings is. */
  readonly widthPx: number;
  readonly heightPx: number;
  readonly large?: boolean;
  /** How it lies on the screen, when that must not follow the framings. */
  readonly view?: FramedView;
}

/** A picture with its framings drawn on it: the first as crop marks, the last as a closed frame. What a framing reaches beyond the picture is shown too. */
export function FramedPicture({
  layer,
  facts,
  move,
  widthPx: mostWidthPx,
  heightPx: mostHeightPx,
  large = false,
  view: given,
}: FramedPictureProps) {
  const picture = factsInUse(layer, facts);
  const view = given ?? framedView(picture, move, { widthPx: mostWidthPx, heightPx: mostHeightPx });
  const { scale, widthPx, heightPx } = view;
  const still = move !== undefined && move.first === move.last;
  const crop = layer.kind === 'picture' ? layer.crop : undefined;
  return (
    <span className="relative block overflow-hidden bg-surround" style={{ width: widthPx, height: heightPx }}>
      <span className="absolute block" style={{ left: -view.left * scale, top: -view.top * scale }}>
        <CroppedPrint
          assetId={layer.assetId}
          picture={facts}
          crop={crop}
          widthPx={picture.widthPx * scale}
          heightPx={picture.heightPx * scale}
          printPx={large || (crop && crop.width < 0.5) ? 960 : 320}
        />
      </span>
      {move && (
        <svg
          className="absolute inset-0"
          width={widthPx}
          height={heightPx}
          aria-hidden="true"
          fill="none"
          stroke="white"
          style={{ filter: 'drop-shadow(0 0 1.5px rgb(0 0 0 / 0.8))' }}
        >
          {!still && <path d={cropMarks(move.first)} transform={turnOf(move.first)} strokeWidth={large ? 2.5 : 2} />}
          <path d={closed(move.last)} transform={turnOf(move.last)} strokeWidth={large ? 2 : 1.5} />
        </svg>
      )}
    </span>
  );

  /** Held within what is shown, unless it is turned. */
  function box(framing: Framing): { x0: number; y0: number; x1: number; y1: number } {
    const { x, y, width, height } = framingBox(view, framing, picture);
    const inset = framing.turnDegrees === 0 ? 1.5 : -Infinity;
    return {
      x0: Math.max(x, inset),
      y0: Math.max(y, inset),
      x1: Math.min(x + width, widthPx - inset),
      y1: Math.min(y + height, heightPx - inset),
    };
  }

  function turnOf(framing: Framing): string | undefined {
    if (framing.turnDegrees === 0) return undefined;
    const { x, y, width, height } = framingBox(view, framing, picture);
    return `rotate(${framing.turnDegrees} ${x + width / 2} ${y + height / 2})`;
  }

  function closed(framing: Framing): string {
    const { x0, y0, x1, y1 } = box(framing);
    return `M${x0} ${y0}H${x1}V${y1}H${x0}Z`;
  }

  function cropMarks(framing: Framing): string {
    const { x0, y0, x1, y1 } = box(framing);
    const arm = Math.min(large ? 18 : 11, (x1 - x0) / 4, (y1 - y0) / 4);
    return [
      [x0, y0, 1, 1],
      [x1, y0, -1, 1],
      [x1, y1, -1, -1],
      [x0, y1, 1, -1],
    ]
      .map(([x, y, right, down]) => `M${x! + right! * arm} ${y}H${x}V${y! + down! * arm}`)
      .join('');
  }
}
