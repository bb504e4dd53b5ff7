import { TITLE_SAFE } from '../../guides/guides';
import { layerIn } from '../../show/pile';
import { about, said } from '../helpers';
import { wordsFixes } from '../words-fixes';
import type { SnagKind } from '../snag';

/** Letters have edges of their own. */
const SLACK = 0.012;

export const wordsOffFrame: SnagKind = {
  title: 'Words too near the edge',
  advice: 'Bring them in from the edge: televisions and projectors cut a little all around.',
  place: 'arrange',
  measured: true,
  *find({ prepared, seen }) {
    for (const [index, slide] of prepared.show.slides.entries())
      for (const { layerId, margins, worst } of seen.get(slide.id)?.words ?? []) {
        const layer = layerIn(slide.layers, layerId);
        if (!layer || !margins || !worst) continue;
        const least = Math.min(margins.left, margins.top, margins.right, margins.bottom);
        if (least >= TITLE_SAFE - SLACK) continue;
        yield {
          grave: least <= 0.001,
          slideId: slide.id,
          layerId,
          of: layerId,
          ...about({ span: prepared.spans[index]! }, worst.offsetMs),
          sentence:
            least <= 0.001
              ? `${said(layer)} runs out of the frame.`
              : `${said(layer)} comes within ${(100 * least).toFixed(0)} % of the edge.`,
        };
      }
  },
  fixes: (look, { slideId, layerId }) => wordsFixes(look, slideId, layerId, 'inward'),
};
