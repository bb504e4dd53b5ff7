import type { Framing } from '../../core/motion/framing';
import { cropOn, croppedSize } from '../../core/motion/crop';
import type { AssetId } from '../../core/show/ids';
import { usePictureUrl } from '../show/file-url';

interface CroppedPrintProps {
  readonly assetId: AssetId;
  /** The file's whole picture. */
  readonly picture: { readonly widthPx: number; readonly heightPx: number };
  readonly crop: Framing | undefined;
  /** What is shown: all that the crop leaves, at this size. */
  readonly widthPx: number;
  readonly heightPx: number;
  readonly printPx?: number;
}

/** What a crop leaves of a picture. */
export function CroppedPrint({ assetId, picture, crop: given, widthPx, heightPx, printPx = 320 }: CroppedPrintProps) {
  const pictureUrl = usePictureUrl();
  const src = pictureUrl(assetId, printPx);
  if (!given) {
    return (
      // The print is already as small as it is shown.
      // eslint-disable-next-line @next/next/no-img-element
      <img
        src={src}
        alt=""
        draggable={false}
        decoding="async"
        className="block max-w-none"
        style={{ width: widthPx, height: heightPx }}
      />
    );
  }
  const crop = cropOn(picture, given);
  const scale = widthPx / croppedSize(picture, crop).widthPx;
  return (
    <span className="relative block overflow-hidden" style={{ width: widthPx, height: heightPx }}>
      {/* eslint-disable-next-line @next/next/no-img-element */}
      <img
        src={src}
        alt=""
        draggable={false}
        decoding="async"
        className="absolute top-0 left-0 max-w-none origin-top-left"
        style={{
          width: picture.widthPx * scale,
          height: picture.heightPx * scale,
          transform: `translate(${widthPx / 2}px, ${heightPx / 2}px) rotate(${-crop.turnDegrees}deg) translate(${-crop.x * picture.widthPx * scale}px, ${-crop.y * picture.heightPx * scale}px)`,
        }}
      />
    </span>
  );
}
