import { ID, maybe, object, oneOf, orNull } from '../../schema/schema';
import {
  CHOOSER,
  LAYER_VALUES,
  SLIDE_VALUES,
  withChooser,
  type Chooser,
  type LayerValue,
  type SlideValue,
} from '../chosen';
import type { LayerId, SlideId } from '../ids';
import { layerIn, withChanged } from '../pile';
import type { Show, Slide } from '../show';
import { counted, done, many, placeOfLayer, placeOfSlide, putSlide, refused, slideOf } from './changing';
import type { EditRecord } from './edit-record';

interface Entry {
  readonly slideId: SlideId;
  /** For a value of one of its layers. */
  readonly layerId?: LayerId;
  readonly value: SlideValue | LayerValue;
  /** Null lets it go: it stays as it is, and may be changed by others. */
  readonly by: Chooser | null;
}

/** Who holds a value, apart from what it is: letting go, and holding on. */
export interface SetChoosers {
  readonly kind: 'set-choosers';
  readonly choosers: readonly Entry[];
}

export const setChoosers: EditRecord<SetChoosers> = {
  kind: 'set-choosers',
  parts: {
    choosers: many(
      object<Entry>({
        slideId: ID,
        layerId: maybe(ID),
        value: oneOf([...SLIDE_VALUES, ...LAYER_VALUES]),
        by: orNull(CHOOSER),
      }),
    ),
  },
  fault: ({ choosers }) =>
    choosers.every(({ layerId, value }) => (layerId === undefined ? isOfSlide(value) : !isOfSlide(value)))
      ? null
      : 'a slide’s own values are its length, transition and backing, and a layer’s its move, words and light',
  apply(show, edit) {
    let after = show;
    const back: Entry[] = [];
    for (const entry of edit.choosers) {
      const slide = slideOf(after, entry.slideId);
      const changed = slide && withEntry(slide, entry);
      if (!changed) continue;
      back.unshift({ ...entry, by: changed.was });
      after = putChanged(after, slide, changed.slide);
    }
    return back.length > 0 ? done(after, { kind: 'set-choosers', choosers: back }) : refused('slide-not-found');
  },
  touched: (edit) =>
    edit.choosers.map(({ slideId, layerId, value }) =>
      layerId === undefined ? placeOfSlide(slideId, value) : placeOfLayer({ slideId, layerId }, value),
    ),
  sentence: ({ choosers }) =>
    `${choosers[0]?.by === 'hand' ? 'hold' : 'let go'} the ${choosers[0]?.value ?? 'length'} of ${counted(choosers.length, choosers[0]?.layerId === undefined ? 'slide' : 'layer')}`,
};

function isOfSlide(value: SlideValue | LayerValue): value is SlideValue {
  return (SLIDE_VALUES as readonly string[]).includes(value);
}

/** Null when the layer is not there. */
function withEntry(slide: Slide, { layerId, value, by }: Entry): { slide: Slide; was: Chooser | null } | null {
  if (layerId === undefined)
    return isOfSlide(value) ? { slide: withChooser(slide, value, by), was: slide.chosen?.[value] ?? null } : null;
  const layer = layerIn(slide.layers, layerId);
  if (!layer || isOfSlide(value)) return null;
  const layers = withChanged(slide.layers, new Map([[layerId, null]]), (one) => withChooser(one, value, by));
  return { slide: { ...slide, layers }, was: layer.chosen?.[value] ?? null };
}

function putChanged(show: Show, before: Slide, after: Slide): Show {
  return before === after ? show : putSlide(show, after);
}
