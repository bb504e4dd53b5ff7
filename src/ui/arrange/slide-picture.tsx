import { memo } from 'react';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { SlideMoves } from '../../core/motion/plan-moves';
import { factsInUse } from '../../core/motion/crop';
import { everyLayer } from '../../core/show/layer';
import { picturesOf } from '../../core/show/layout';
import type { Slide } from '../../core/show/show';
import { CroppedPrint } from '../kit/cropped-print';
import { usePictureUrl } from '../show/file-url';
import { FramedPicture } from './framed-picture';

interface SlidePictureProps {
  readonly slide: Slide;
  readonly facts: PreparedShow['facts'];
  readonly moves: SlideMoves;
  readonly widthPx: number;
  readonly heightPx: number;
}

const MOST_IN_A_MOSAIC = 12;

/** What a slide built of other things than pictures is made of: the pictures on the sides of its boxes, side by side. */
function Mosaic({
  slide,
  colour,
  widthPx,
  heightPx,
}: Pick<SlidePictureProps, 'slide' | 'widthPx' | 'heightPx'> & { colour: string }) {
  const pictureUrl = usePictureUrl();
  const faces = [...everyLayer(slide.layers)].flatMap((layer) =>
    layer.kind === 'box' && layer.faces.front.kind === 'picture' ? [layer.faces.front.assetId] : [],
  );
  const shown = faces.slice(0, MOST_IN_A_MOSAIC);
  return (
    <span
      className="relative block overflow-hidden p-1"
      style={{ width: widthPx, height: heightPx, background: colour }}
    >
      <span className="grid h-full grid-cols-4 gap-1">
        {shown.map((asset, index) => (
          // eslint-disable-next-line @next/next/no-img-element
          <img
            key={index}
            src={pictureUrl(asset, 320)}
            alt=""
            draggable={false}
            className="h-full min-h-0 w-full object-cover"
          />
        ))}
      </span>
    </span>
  );
}

/** What a slide shows, small: its picture with its framings, or all its pictures as they stand in the frame. Drawn again when that changes, not with every change to the show. */
export const SlidePicture = memo(
  function SlidePicture({ slide, facts, moves, widthPx, heightPx }: SlidePictureProps) {
    const pictures = picturesOf(slide);
    const [only] = pictures;
    const known = only && facts.get(only.assetId);
    if (only && pictures.length === 1 && known && known.kind !== 'sound')
      return (
        <FramedPicture layer={only} facts={known} move={moves.get(only.id)} widthPx={widthPx} heightPx={heightPx} />
      );
    const colour = slide.backing.kind === 'colour' ? slide.backing.colour : 'var(--color-surround)';
    if (pictures.length === 0) return <Mosaic slide={slide} colour={colour} widthPx={widthPx} heightPx={heightPx} />;
    return (
      <span className="relative block overflow-hidden" style={{ width: widthPx, height: heightPx, background: colour }}>
        {pictures.map((picture) => {
          const share = (channel: unknown, otherwise: number) => (typeof channel === 'number' ? channel : otherwise);
          const { x, y, width, height } = picture.channels ?? {};
          const [w, h] = [share(width, 1), share(height, 1)];
          const whole = facts.get(picture.assetId);
          if (!whole || whole.kind === 'sound') return null;
          const shown = factsInUse(picture, whole);
          const scale = Math.max((w * widthPx) / shown.widthPx, (h * heightPx) / shown.heightPx);
          return (
            <span
              key={picture.id}
              className="absolute grid place-items-center overflow-hidden"
              style={{
                left: `${(share(x, 0.5) - w / 2) * 100}%`,
                top: `${(share(y, 0.5) - h / 2) * 100}%`,
                width: `${w * 100}%`,
                height: `${h * 100}%`,
              }}
            >
              <CroppedPrint
                assetId={picture.assetId}
                picture={whole}
                crop={picture.kind === 'picture' ? picture.crop : undefined}
                widthPx={shown.widthPx * scale}
                heightPx={shown.heightPx * scale}
              />
            </span>
          );
        })}
      </span>
    );
  },
  (before, now) =>
    before.slide === now.slide &&
    before.widthPx === now.widthPx &&
    before.heightPx === now.heightPx &&
    picturesOf(now.slide).every(
      (picture) =>
        before.moves.get(picture.id) === now.moves.get(picture.id) &&
        before.facts.get(picture.assetId) === now.facts.get(picture.assetId),
    ),
);
