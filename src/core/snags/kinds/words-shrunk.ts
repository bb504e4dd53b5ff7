import { layerIn } from '../../show/pile';
import { about, said } from '../helpers';
import { wordsFixes } from '../words-fixes';
import type { SnagKind } from '../snag';

const LEAST = 0.8;
/** Of the frame's shorter side: smaller letters are not read from the back of a room (SMPTE EG 2046-3 asks for a line in about 36 for text). */
const SMALLEST = 0.022;

export const wordsShrunk: SnagKind = {
  title: 'Words that are too much for the frame',
  advice: 'Say it in fewer words, or on two slides.',
  place: 'arrange',
  measured: true,
  *find({ prepared, seen }) {
    for (const [index, slide] of prepared.show.slides.entries())
      for (const { layerId, scale, size, worst } of seen.get(slide.id)?.words ?? []) {
        const layer = layerIn(slide.layers, layerId);
        const small = size < SMALLEST;
        if (!layer || !worst || (scale >= LEAST && !small)) continue;
        yield {
          grave: false,
          slideId: slide.id,
          layerId,
          of: layerId,
          ...about({ span: prepared.spans[index]! }, worst.offsetMs),
          sentence:
            scale < LEAST
              ? `${said(layer)} is drawn at ${Math.round(100 * scale)} % of its size, so that it fits.`
              : `${said(layer)} is too small to be read from the back of a room.`,
        };
      }
  },
  fixes: (look, { slideId, layerId }) => wordsFixes(look, slideId, layerId, 'size'),
};
