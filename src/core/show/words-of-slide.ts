import type { LayerId } from './ids';
import type { WordsLayer } from './layer';
import type { Slide } from './show';

/** What a words layer says, how it looks and how it comes and goes. */
export type WordsText = Pick<WordsLayer, 'title' | 'subtitle' | 'place' | 'style' | 'come' | 'travel'>;

/** Sets or replaces a words layer, in groups too; a new one goes on top. `before` is what stood there. */
export function withWords(slide: Slide, id: LayerId, words: WordsText): { slide: Slide; before: WordsText | null } {
  let before: WordsText | null = null;
  const pile = (layers: Slide['layers']): Slide['layers'] =>
    layers.map((layer) => {
      if (layer.kind === 'group') {
        const inner = pile(layer.layers);
        return inner.some((one, index) => one !== layer.layers[index]) ? { ...layer, layers: inner } : layer;
      }
      if (layer.id !== id || layer.kind !== 'words') return layer;
      before = textOf(layer);
      const { style: _style, come: _come, travel: _travel, ...rest } = layer;
      return { ...rest, ...words };
    });
  const layers = pile(slide.layers);
  return {
    slide: { ...slide, layers: before ? layers : [...layers, { kind: 'words', id, ...words }] },
    before,
  };
}

/** What an edit would have to say to set a layer's words as they are. */
export function textOf({ title, subtitle, place, style, come, travel }: WordsLayer): WordsText {
  return { title, subtitle, place, ...(style && { style }), ...(come && { come }), ...(travel && { travel }) };
}
