import type { PreparedShow } from '../../core/frame/plan-frame';
import { picturesOf } from '../../core/show/layout';
import type { Slide } from '../../core/show/show';
import { FramedPicture } from './framed-picture';

interface SlidePictureProps {
  readonly slide: Slide;
  readonly facts: PreparedShow['facts'];
  readonly moves: PreparedShow['moves'];
  readonly widthPx: number;
  readonly heightPx: number;
}

/** What a slide shows, small: its picture with its framings, or all its pictures as they stand in the frame. */
export function SlidePicture({ slide, facts, moves, widthPx, heightPx }: SlidePictureProps) {
  const pictures = picturesOf(slide);
  const [only] = pictures;
  const known = only && facts.get(only.assetId);
  if (only && pictures.length === 1 && known && known.kind !== 'sound') return <FramedPicture assetId={only.assetId} picture={known} move={moves.get(only.id)} widthPx={widthPx} heightPx={heightPx} />;
  const colour = slide.backing.kind === 'colour' ? slide.backing.colour : 'var(--color-surround)';
  return (
    <span className="relative block overflow-hidden" style={{ width: widthPx, height: heightPx, background: colour }}>
      {pictures.length > 1 && pictures.map((picture) => {
        const share = (channel: unknown, otherwise: number) => (typeof channel === 'number' ? channel : otherwise);
        const { x, y, width, height } = picture.channels ?? {};
        const [w, h] = [share(width, 1), share(height, 1)];
        return (
          // The print is already as small as it is shown.
          // eslint-disable-next-line @next/next/no-img-element
          <img key={picture.id} src={`/api/pictures/${picture.assetId}?width=320`} alt="" draggable={false} decoding="async" className="absolute object-cover" style={{ left: `${(share(x, 0.5) - w / 2) * 100}%`, top: `${(share(y, 0.5) - h / 2) * 100}%`, width: `${w * 100}%`, height: `${h * 100}%` }} />
        );
      })}
    </span>
  );
}
