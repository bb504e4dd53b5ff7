import type { LayerId } from './ids';
import type { Layer } from './layer';
import type { Show } from './show';

/** The show with named layers changed, in groups too. Slides and layers it does not touch keep their identity. */
export function withLayers<Value>(
  show: Show,
  wanted: ReadonlyMap<LayerId, Value>,
  change: (layer: Layer, value: Value) => Layer,
): Show {
  const pile = (layers: readonly Layer[]): readonly Layer[] => {
    const changed = layers.map((layer) => {
      const inner = layer.kind === 'group' ? pile(layer.layers) : null;
      const opened = layer.kind === 'group' && inner !== layer.layers ? { ...layer, layers: inner! } : layer;
      return wanted.has(layer.id) ? change(opened, wanted.get(layer.id)!) : opened;
    });
    return changed.some((layer, index) => layer !== layers[index]) ? changed : layers;
  };
  return {
    ...show,
    slides: show.slides.map((slide) => {
      const layers = pile(slide.layers);
      return layers === slide.layers ? slide : { ...slide, layers };
    }),
  };
}
