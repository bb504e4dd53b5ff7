import { seenLayers, type Layer, type PictureLayer } from '../show/layer';

/** The pictures a slide shows, those in groups too; a loupe's own copy of the picture it lies over is none. */
export function layersOfPictures(layers: readonly Layer[]): PictureLayer[] {
  const found: PictureLayer[] = [];
  for (const layer of seenLayers(layers))
    if (layer.kind === 'picture' && !layer.mask && !found.some((other) => other.assetId === layer.assetId))
      found.push(layer);
  return found;
}
