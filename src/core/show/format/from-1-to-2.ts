import type { SlideId } from '../ids';
import { everyLayer, isLit, type Layer } from '../layer';
import type { Show } from '../show';
import { readable } from '../readable';
import type { Loose } from './loose';
import type { RaiseStep } from './raise';

/**
 * Version 2 says which methods a show’s facts come from, names layers by their slides in every edit, has no empty list of marks, and holds no characters
 * that cannot be written.
 */
export const fromOneToTwo: RaiseStep = {
  content(content) {
    const { marks, ...rest } = withReadableTexts(content) as Loose;
    const hasMarks = typeof marks === 'object' && marks !== null && Object.keys(marks).length > 0;
    return { ...rest, ...(hasMarks && { marks }), methods: { basics: 1 } };
  },
  edit(edit, show) {
    const clean = withReadableTexts(edit) as Loose;
    switch (clean.kind) {
      case 'set-light': {
        // Version 1 could light layers that have no tones, and then not open the show again.
        const lit = onTheirSlides(clean.lights, show, isLit);
        return lit.length > 0 ? { ...clean, lights: lit } : nothing(show);
      }
      case 'set-words':
        // Removing words that were not there was accepted, and did nothing.
        return clean.words === null && placesOf(clean, show, isWords).length === 0 ? nothing(show) : clean;
      case 'set-edge':
        return { ...clean, edges: onTheirSlides(clean.edges, show) };
      case 'set-crops':
        return { ...clean, crops: onTheirSlides(clean.crops, show) };
      case 'set-content':
        return { ...clean, content: fromOneToTwo.content(clean.content as Loose) };
      case 'together':
        return { ...clean, edits: (clean.edits as readonly Loose[]).map((inner) => fromOneToTwo.edit(inner, show)) };
      default:
        return clean;
    }
  },
};

/** Version 1 named layers by their ids alone and meant every layer of that id. */
function onTheirSlides(entries: unknown, show: Show, wanted: (layer: Layer) => boolean = () => true): Loose[] {
  return (entries as readonly Loose[]).flatMap((entry) => {
    if (placesOf(entry, show, () => true).length === 0) return [{ ...entry, slideId: GONE }];
    return placesOf(entry, show, wanted).map((slideId) => ({ ...entry, slideId }));
  });
}

/** A layer that is not there is refused by name, as it was. */
const GONE = 'gone';

function placesOf(entry: Loose, show: Show, wanted: (layer: Layer) => boolean): SlideId[] {
  return show.slides
    .filter((slide) => [...everyLayer(slide.layers)].some((layer) => layer.id === entry.layerId && wanted(layer)))
    .map((slide) => slide.id);
}

const isWords = (layer: Layer): boolean => layer.kind === 'words';

/** An edit that leaves the show as it is. */
function nothing(show: Show): Loose {
  return { kind: 'rename-show', title: show.title };
}

function withReadableTexts(value: unknown): unknown {
  if (typeof value === 'string') return readable(value);
  if (Array.isArray(value)) return value.map(withReadableTexts);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([name, part]) => [name, withReadableTexts(part)]));
}
