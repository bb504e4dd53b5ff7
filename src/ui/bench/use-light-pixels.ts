import { useEffect, useState } from 'react';
import { pictureAlone } from '../../core/frame/picture-alone';
import type { AssetFacts, FactsById } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { ClipLayer, PictureLayer } from '../../core/show/layer';
import type { Show } from '../../core/show/show';
import { makePrint } from '../viewer/print-maker';

/** A picture that is drawn again and again while its light changes waits so long. */
const RESTS_MS = 120;

/** A picture by itself in its light, drawn as the film draws it; null when its file cannot be drawn. @param longPx its longer side, about */
export async function printAlone(
  show: Show,
  layer: PictureLayer | ClipLayer,
  facts: AssetFacts | undefined,
  longPx: number,
): Promise<ImageBitmap | null> {
  if (!facts || facts.kind === 'sound') return null;
  const alone = pictureAlone(show, layer, facts, longPx);
  const { widthPx, heightPx } = alone.frame;
  const of: FactsById = new Map<AssetId, AssetFacts>([[layer.assetId, facts]]);
  return makePrint({ show: alone, facts: of, momentMs: 0, widthPx, heightPx });
}

/** Its pixels, as a canvas has them. */
export function pixelsOfBitmap(bitmap: ImageBitmap): ImageData {
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0);
  return context.getImageData(0, 0, bitmap.width, bitmap.height);
}

/** The pixels of a picture in the light it has now; those before until they are drawn. */
export function useLightPixels(
  show: Show,
  layer: PictureLayer | ClipLayer,
  facts: AssetFacts | undefined,
  longPx: number,
): ImageData | null {
  const [pixels, setPixels] = useState<ImageData | null>(null);
  const said = JSON.stringify([layer.assetId, layer.light, layer.crop, layer.flip]);
  useEffect(() => {
    let gone = false;
    const timer = setTimeout(() => {
      void printAlone(show, layer, facts, longPx).then((bitmap) => {
        if (bitmap && !gone) setPixels(pixelsOfBitmap(bitmap));
      });
    }, RESTS_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
    // The rest of the show does not change how the picture is drawn.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [said, facts, longPx]);
  return pixels;
}
