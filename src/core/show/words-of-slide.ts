import type { WordsText } from './edit';
import type { LayerId } from './ids';
import type { Slide, WordsLayer } from './show';

/** Sets, replaces or (with null) removes a words layer; a new one goes on top. `before` is what stood there. */
export function withWords(slide: Slide, id: LayerId, words: WordsText | null): { slide: Slide; before: WordsText | null } {
  const found = slide.layers.find((layer): layer is WordsLayer => layer.id === id && layer.kind === 'words');
  const before = found ? { title: found.title, subtitle: found.subtitle, place: found.place } : null;
  if (!words) return { slide: { ...slide, layers: slide.layers.filter((layer) => layer !== found) }, before };
  const layer: WordsLayer = { kind: 'words', id, ...words };
  const layers = found ? slide.layers.map((other) => (other === found ? layer : other)) : [...slide.layers, layer];
  return { slide: { ...slide, layers }, before };
}
