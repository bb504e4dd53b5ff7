import { layerIn } from '../../show/pile';
import { about, said } from '../helpers';
import { wordsFixes } from '../words-fixes';
import type { SnagKind } from '../snag';
import { CLEAR_LARGE, CLEAR_SMALL, LARGE_LETTERS } from '../../words/legibility';

/** Below this nobody reads them. */
const GRAVE = 1.8;

/** The contrast that letters of a size need. */
export const clearEnough = (size: number): number => (size >= LARGE_LETTERS ? CLEAR_LARGE : CLEAR_SMALL);

export const faintWords: SnagKind = {
  title: 'Words that are hard to read',
  advice: 'Give them another colour, a shadow or a box, or a calmer place.',
  place: 'arrange',
  measured: true,
  *find({ prepared, seen }) {
    for (const [index, slide] of prepared.show.slides.entries())
      for (const { layerId, worst, size } of seen.get(slide.id)?.words ?? []) {
        const layer = layerIn(slide.layers, layerId);
        if (!layer || !worst || worst.legibility.clear >= clearEnough(size)) continue;
        const { contrast, busyness } = worst.legibility;
        yield {
          grave: worst.legibility.clear < GRAVE,
          slideId: slide.id,
          layerId,
          of: layerId,
          ...about({ span: prepared.spans[index]! }, worst.offsetMs),
          sentence:
            contrast >= clearEnough(size)
              ? `${said(layer)}: what lies behind is too restless to read it well.`
              : `${said(layer)} hardly stands out: contrast ${contrast.toFixed(1)} : 1${busyness > 12 ? ', on a restless ground' : ''}.`,
        };
      }
  },
  fixes: (look, { slideId, layerId }) => wordsFixes(look, slideId, layerId, 'all'),
};
