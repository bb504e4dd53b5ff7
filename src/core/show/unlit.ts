import { isLit } from './layer';
import { mapped } from './pile';
import type { Show } from './show';

/** The show as it is without any light of its layers: to compare. Slides that have none keep their identity. */
export function unlit(show: Show): Show {
  return {
    ...show,
    slides: show.slides.map((slide) => {
      const layers = mapped(slide.layers, (layer) => {
        if (!isLit(layer) || !layer.light) return layer;
        const { light: _light, ...rest } = layer;
        return rest;
      });
      return layers === slide.layers || layers.every((layer, index) => layer === slide.layers[index])
        ? slide
        : { ...slide, layers };
    }),
  };
}
