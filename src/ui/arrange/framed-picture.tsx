import type { PlannedMove } from '../../core/motion/automatic-move';
import type { Framing } from '../../core/motion/framing';
import type { AssetId } from '../../core/show/ids';

interface FramedPictureProps {
  readonly assetId: AssetId;
  readonly picture: { readonly widthPx: number; readonly heightPx: number };
  readonly move: PlannedMove | undefined;
  /** At most this large; narrower or lower when the picture with its framings is. */
  readonly widthPx: number;
  readonly heightPx: number;
  readonly large?: boolean;
}

/** A picture with its framings drawn on it: the first as crop marks, the last as a closed frame. What a framing reaches beyond the picture is shown too. */
export function FramedPicture({ assetId, picture, move, widthPx: mostWidthPx, heightPx: mostHeightPx, large = false }: FramedPictureProps) {
  const shown = boundsOf(picture, move);
  const scale = Math.min(mostWidthPx / shown.width, mostHeightPx / shown.height);
  const widthPx = Math.round(shown.width * scale);
  const heightPx = Math.round(shown.height * scale);
  const place = (x: number, y: number) => ({ x: (x - shown.left) * scale, y: (y - shown.top) * scale });
  const corner = place(0, 0);
  const still = move !== undefined && move.first === move.last;
  return (
    <span className="relative block overflow-hidden bg-surround" style={{ width: widthPx, height: heightPx }}>
      {/* The print is already as small as it is shown. */}
      {/* eslint-disable-next-line @next/next/no-img-element */}
      <img src={`/api/pictures/${assetId}?width=${large ? 960 : 320}`} alt="" draggable={false} decoding="async" className="absolute max-w-none" style={{ left: corner.x, top: corner.y, width: picture.widthPx * scale, height: picture.heightPx * scale }} />
      {move && (
        <svg className="absolute inset-0" width={widthPx} height={heightPx} aria-hidden="true" fill="none" stroke="white" style={{ filter: 'drop-shadow(0 0 1.5px rgb(0 0 0 / 0.8))' }}>
          {!still && <path d={cropMarks(move.first)} strokeWidth={large ? 2.5 : 2} />}
          <path d={closed(move.last)} strokeWidth={large ? 2 : 1.5} />
        </svg>
      )}
    </span>
  );

  function box(framing: Framing): { x0: number; y0: number; x1: number; y1: number } {
    const from = place((framing.x - framing.width / 2) * picture.widthPx, (framing.y - framing.height / 2) * picture.heightPx);
    const to = place((framing.x + framing.width / 2) * picture.widthPx, (framing.y + framing.height / 2) * picture.heightPx);
    const inset = 1.5;
    return { x0: Math.max(from.x, inset), y0: Math.max(from.y, inset), x1: Math.min(to.x, widthPx - inset), y1: Math.min(to.y, heightPx - inset) };
  }

  function closed(framing: Framing): string {
    const { x0, y0, x1, y1 } = box(framing);
    return `M${x0} ${y0}H${x1}V${y1}H${x0}Z`;
  }

  function cropMarks(framing: Framing): string {
    const { x0, y0, x1, y1 } = box(framing);
    const arm = Math.min(large ? 18 : 11, (x1 - x0) / 4, (y1 - y0) / 4);
    return [[x0, y0, 1, 1], [x1, y0, -1, 1], [x1, y1, -1, -1], [x0, y1, 1, -1]].map(([x, y, right, down]) => `M${x! + right! * arm} ${y}H${x}V${y! + down! * arm}`).join('');
  }
}

/** The picture and both framings, in the picture's pixels. */
function boundsOf(picture: { widthPx: number; heightPx: number }, move: PlannedMove | undefined): { left: number; top: number; width: number; height: number } {
  const boxes = (move ? [move.first, move.last] : []).map((framing) => ({
    left: (framing.x - framing.width / 2) * picture.widthPx, right: (framing.x + framing.width / 2) * picture.widthPx,
    top: (framing.y - framing.height / 2) * picture.heightPx, bottom: (framing.y + framing.height / 2) * picture.heightPx,
  }));
  const all = [...boxes, { left: 0, right: picture.widthPx, top: 0, bottom: picture.heightPx }];
  const left = Math.min(...all.map((entry) => entry.left));
  const top = Math.min(...all.map((entry) => entry.top));
  return { left, top, width: Math.max(...all.map((entry) => entry.right)) - left, height: Math.max(...all.map((entry) => entry.bottom)) - top };
}
