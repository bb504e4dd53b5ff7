import type { PreparedShow } from '../../core/frame/plan-frame';
import type { LostPicture } from '../../core/film/lost-in-shape';
import { everyLayer, type ClipLayer, type PictureLayer } from '../../core/show/layer';
import { FramedPicture } from '../arrange/framed-picture';

interface LostPrintProps {
  readonly entry: LostPicture;
  readonly shaped: PreparedShow;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** A picture with what is seen of it in the shape. */
export function LostPrint({ entry, shaped, widthPx, heightPx }: LostPrintProps) {
  const layer = layerOf(shaped, entry);
  const facts = shaped.facts.get(entry.assetId);
  if (!layer || !facts || facts.kind === 'sound') return null;
  return (
    <FramedPicture
      layer={layer}
      facts={facts}
      move={shaped.moves.get(entry.slideId)?.get(entry.layerId)}
      widthPx={widthPx}
      heightPx={heightPx}
    />
  );
}

export function layerOf(
  { show }: PreparedShow,
  { slideIndex, layerId }: Pick<LostPicture, 'slideIndex' | 'layerId'>,
): PictureLayer | ClipLayer | null {
  const slide = show.slides[slideIndex];
  if (!slide) return null;
  for (const layer of everyLayer(slide.layers))
    if (layer.id === layerId && (layer.kind === 'picture' || layer.kind === 'clip')) return layer;
  return null;
}
