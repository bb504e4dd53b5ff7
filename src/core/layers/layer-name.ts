import type { AssetId } from '../show/ids';
import type { Layer, Shape } from '../show/layer';
import { unreachable } from '../unreachable';

const SHAPES: { readonly [Kind in Shape['kind']]: string } = {
  rectangle: 'rectangle',
  ellipse: 'ellipse',
  polygon: 'polygon',
  star: 'star',
  free: 'shape',
};
const LONGEST = 40;

/** What a layer is called: by its own name, else by what it shows. */
export function layerName(layer: Layer, fileName: (asset: AssetId) => string | undefined): string {
  if (layer.name) return layer.name;
  switch (layer.kind) {
    case 'picture':
    case 'clip':
    case 'drawing':
      return fileName(layer.assetId) ?? layer.kind;
    case 'words': {
      const said = (layer.title.trim() || layer.subtitle.trim()).split('\n')[0]!;
      return said === '' ? 'words' : said.length > LONGEST ? `${said.slice(0, LONGEST)}…` : said;
    }
    case 'shape':
      return SHAPES[layer.shape.kind];
    case 'gradient':
    case 'solid':
    case 'box':
    case 'group':
      return layer.kind;
    default:
      return unreachable(layer);
  }
}
