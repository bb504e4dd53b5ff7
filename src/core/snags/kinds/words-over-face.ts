import { layerIn } from '../../show/pile';
import { about, said } from '../helpers';
import { wordsFixes } from '../words-fixes';
import type { SnagKind } from '../snag';

/** A hat is no face. */
const LEAST = 0.1;
const GRAVE = 0.3;

export const wordsOverFace: SnagKind = {
  title: 'Words over faces',
  advice: 'Move them to another place.',
  place: 'arrange',
  measured: true,
  *find({ prepared, seen }) {
    for (const [index, slide] of prepared.show.slides.entries())
      for (const { layerId, face } of seen.get(slide.id)?.words ?? []) {
        const layer = layerIn(slide.layers, layerId);
        if (!layer || !face || face.share < LEAST) continue;
        yield {
          grave: face.share >= GRAVE,
          slideId: slide.id,
          layerId,
          of: layerId,
          ...about({ span: prepared.spans[index]! }, face.offsetMs),
          sentence: `${said(layer)} lies over a face.`,
        };
      }
  },
  fixes: (look, { slideId, layerId }) => wordsFixes(look, slideId, layerId, 'places'),
};
