import { maybe, object, orNull } from '../../schema/schema';
import { CHOOSER, type Chooser } from '../chosen';
import { layerIn } from '../pile';
import { WORDS_PARTS } from '../schemas/words-schema';
import { textOf, withWords, type WordsText } from '../words-of-slide';
import { done, LAYER_ADDRESS, placeOfLayer, putSlide, refused, slideOf, type LayerAddress } from './changing';
import type { EditRecord } from './edit-record';

/** Sets what a words layer says and how it looks; a layer that is not there yet is laid on top, and null removes it. */
export interface SetWords extends LayerAddress {
  readonly kind: 'set-words';
  readonly words: WordsText | null;
  /** Who chose it: a hand when left out; null for nobody. */
  readonly by?: Chooser | null;
}

export const setWords: EditRecord<SetWords> = {
  kind: 'set-words',
  parts: { ...LAYER_ADDRESS, words: orNull(object<WordsText>(WORDS_PARTS)), by: maybe(orNull(CHOOSER)) },
  apply(show, edit, nested) {
    const slide = slideOf(show, edit.slideId);
    if (!slide) return refused('slide-not-found');
    const there = layerIn(slide.layers, edit.layerId);
    if (there && there.kind !== 'words') return refused('layer-already-there');
    if (!edit.words) return nested(show, { kind: 'remove-layers', slideId: slide.id, layerIds: [edit.layerId] });
    const { words, by = 'hand' } = edit;
    const changed = withWords(slide, edit.layerId, words, by);
    return done(putSlide(show, changed), {
      ...edit,
      words: there ? textOf(there) : null,
      by: there?.chosen?.words ?? null,
    });
  },
  touched: (edit) => [placeOfLayer(edit, 'words')],
  sentence: (edit) => (edit.words ? 'change the words' : 'remove the words'),
};
