import { parentsOf } from '../frame/layer-poses';
import type { LayerId } from '../show/ids';
import { everyLayer, type Layer } from '../show/layer';
import { mapped } from '../show/pile';
import type { Show } from '../show/show';

/** A show whose slides show nothing but one mask, on black: what it lets through is bright. */
export function withMaskSeen(show: Show, id: LayerId): Show {
  return {
    ...show,
    slides: show.slides.map((slide) => {
      const parents = parentsOf(slide.layers);
      const mask = [...everyLayer(slide.layers)].find((layer) => layer.id === id);
      if (!mask) return slide;
      const kept = new Set<LayerId>([...everyLayer([mask])].map((layer) => layer.id));
      for (let above = parents.get(id); above; above = parents.get(above.id)) kept.add(above.id);
      const layers = mapped(slide.layers, (layer) => {
        if (!kept.has(layer.id)) return { ...layer, hidden: true };
        if (layer.id !== id) return layer;
        const { mask: _cuts, ...shown } = layer;
        return { ...shown, hidden: false } as Layer;
      });
      return { ...slide, layers, backing: { kind: 'colour', colour: '#000000' } };
    }),
  };
}
