import { FEWEST_BITS_A_PIXEL, SHORT_SIDES } from '../../film/purposes/email';
import { sides } from '../../film/purposes/purpose';
import { PURPOSES } from '../../film/purposes/purposes';
import { framesPerSecond } from '../../timing/frame-rate';
import { clock } from '../helpers';
import type { SnagKind } from '../snag';

export const filmTooLarge: SnagKind = {
  title: 'Films larger than they may be',
  advice: 'Send a link instead, allow more, or make a shorter show.',
  place: 'send',
  *find({ prepared, films }) {
    for (const { purpose, shape, mostBytes } of films) {
      if (mostBytes === undefined) continue;
      const bitsASecond = (8 * mostBytes) / Math.max(1, prepared.lengthMs / 1000);
      const rate = framesPerSecond(prepared.show.frame.rate);
      const { widthPx, heightPx } = sides(shape, SHORT_SIDES.at(-1)!);
      if (bitsASecond >= FEWEST_BITS_A_PIXEL * widthPx * heightPx * rate) continue;
      const name = purpose in PURPOSES ? PURPOSES[purpose as keyof typeof PURPOSES].name : 'A film';
      yield {
        grave: false,
        slideId: null,
        of: `${purpose} ${mostBytes}`,
        fromMs: 0,
        toMs: prepared.lengthMs,
        sentence: `${name}: ${clock(prepared.lengthMs)} of film do not fit into ${Math.round(mostBytes / 1e6)} MB without falling apart.`,
      };
    }
  },
};
