import { withChooser, type Chooser, type LayerValue } from './chosen';
import type { LayerId } from './ids';
import type { WordsLayer } from './layer';
import { layerIn, withChanged } from './pile';
import type { Slide } from './show';

/** What a words layer says, how it looks and how it comes and goes. */
export type WordsText = Pick<WordsLayer, 'title' | 'subtitle' | 'place' | 'style' | 'come' | 'travel'>;

/** Sets or replaces a words layer, in groups too; a new one goes on top. */
export function withWords(slide: Slide, id: LayerId, words: WordsText, by: Chooser | null): Slide {
  const layers = withChanged(slide.layers, new Map([[id, words]]), (layer) => {
    if (layer.kind !== 'words') return layer;
    const { style: _style, come: _come, travel: _travel, ...rest } = layer;
    return withChooser({ ...rest, ...words }, 'words', by);
  });
  if (layers !== slide.layers || layerIn(layers, id)) return { ...slide, layers };
  return {
    ...slide,
    layers: [...layers, withChooser<LayerValue, WordsLayer>({ kind: 'words', id, ...words }, 'words', by)],
  };
}

/** What an edit would have to say to set a layer's words as they are. */
export function textOf({ title, subtitle, place, style, come, travel }: WordsLayer): WordsText {
  return { title, subtitle, place, ...(style && { style }), ...(come && { come }), ...(travel && { travel }) };
}
