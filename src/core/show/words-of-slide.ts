import type { WordsText } from './edit';
import type { LayerId } from './ids';
import type { Slide } from './show';
import type { WordsLayer } from './layer';

/** Sets, replaces or (with null) removes a words layer; a new one goes on top. `before` is what stood there. */
export function withWords(
  slide: Slide,
  id: LayerId,
  words: WordsText | null,
): { slide: Slide; before: WordsText | null } {
  const found = slide.layers.find((layer): layer is WordsLayer => layer.id === id && layer.kind === 'words');
  if (!words)
    return {
      slide: { ...slide, layers: slide.layers.filter((layer) => layer !== found) },
      before: found ? textOf(found) : null,
    };
  const {
    style: _style,
    come: _come,
    travel: _travel,
    ...rest
  } = found ?? { kind: 'words' as const, id, title: '', subtitle: '', place: words.place };
  const layer: WordsLayer = { ...rest, ...words };
  const layers = found ? slide.layers.map((other) => (other === found ? layer : other)) : [...slide.layers, layer];
  return { slide: { ...slide, layers }, before: found ? textOf(found) : null };
}

/** What an edit would have to say to set a layer's words as they are. */
export function textOf({ title, subtitle, place, style, come, travel }: WordsLayer): WordsText {
  return { title, subtitle, place, ...(style && { style }), ...(come && { come }), ...(travel && { travel }) };
}
