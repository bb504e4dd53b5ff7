import { ID, list, object, type PartsOf, type Schema } from '../../schema/schema';
import type { EditRefusal, EditResult, ShowEdit } from '../edit';
import { refusalSentence } from '../refusals';
import type { LayerId, SlideId } from '../ids';
import type { Layer } from '../layer';
import { MOST_SLIDES } from '../limits';
import { withChanged } from '../pile';
import type { Show, Slide } from '../show';
import type { Place } from './edit-record';

export function done(show: Show, inverse: ShowEdit): EditResult {
  return { ok: true, show, inverse };
}

export function refused(reason: EditRefusal): EditResult {
  return { ok: false, reason, sentence: refusalSentence(reason) };
}

/** “a slide”, “3 slides”. */
export const counted = (n: number, one: string): string => (n === 1 ? `a ${one}` : `${n} ${one}s`);

/** A list of things to do at once. */
export const many = (of: Schema): Schema => list(of, MOST_SLIDES, 1);

export function slideOf(show: Show, id: SlideId): Slide | undefined {
  return show.slides.find((slide) => slide.id === id);
}

export function putSlide(show: Show, changed: Slide): Show {
  return { ...show, slides: show.slides.map((slide) => (slide.id === changed.id ? changed : slide)) };
}

export function changeSlides<Value>(
  show: Show,
  wanted: ReadonlyMap<SlideId, Value>,
  change: (slide: Slide, value: Value) => Slide,
): Show {
  return {
    ...show,
    slides: show.slides.map((slide) => (wanted.has(slide.id) ? change(slide, wanted.get(slide.id)!) : slide)),
  };
}

/** A layer is named by its slide and its own id, which differs from those of the other layers on that slide. */
export interface LayerAddress {
  readonly slideId: SlideId;
  readonly layerId: LayerId;
}

export const LAYER_ADDRESS = { slideId: ID, layerId: ID } as const;

export const atLayers = <Type extends LayerAddress>(parts: PartsOf<Omit<Type, keyof LayerAddress>>): Schema =>
  many(object<Type>({ ...LAYER_ADDRESS, ...parts } as unknown as PartsOf<Type>));

export const placeOfSlide = (id: SlideId, part = ''): Place => `slides/${id}/${part}`;
export const placeOfLayer = ({ slideId, layerId }: LayerAddress, part = ''): Place =>
  `slides/${slideId}/layers/${layerId}/${part}`;

/**
 * Changes named layers of several slides, those that are still there. What was named twice is changed as named last.
 *
 * @returns the entries that say how each was, in the order they lie in the show; empty when none of them is there
 */
export function changeLayers<Entry extends LayerAddress>(
  show: Show,
  entries: readonly Entry[],
  change: (layer: Layer, entry: Entry) => Layer,
  before: (layer: Layer, address: LayerAddress) => Entry | null,
): { show: Show; before: Entry[] } {
  const wanted = new Map<SlideId, Map<LayerId, Entry>>();
  for (const entry of entries) {
    if (!wanted.has(entry.slideId)) wanted.set(entry.slideId, new Map());
    wanted.get(entry.slideId)!.set(entry.layerId, entry);
  }
  const was: Entry[] = [];
  const changed = changeSlides(show, wanted, (slide, of) => {
    const layers = withChanged(slide.layers, of, (layer, entry) => {
      const address = { slideId: slide.id, layerId: layer.id };
      const told = before(layer, address);
      if (!told) return layer;
      was.push(told);
      return change(layer, entry);
    });
    return layers === slide.layers ? slide : { ...slide, layers };
  });
  return { show: changed, before: was };
}
