import { COLOUR, kinds, maybe, number, object, oneOf, SVG_PATH, type Schema } from '../../schema/schema';
import type { Edge, EdgeShape } from '../layer';
import { channel, SHARE } from './channel-schema';

export const EDGE: Schema = object<Edge>({
  shape: maybe(kinds<EdgeShape>({ rounded: { radius: number(0, 0.5) }, ellipse: {}, free: { path: SVG_PATH } })),
  feather: maybe(channel(0, 0.5)),
  outline: maybe(
    object<NonNullable<Edge['outline']>>({
      width: maybe(channel(0, 0.5)),
      colour: COLOUR,
      where: oneOf(['inside', 'centre', 'outside']),
    }),
  ),
  shadow: maybe(
    object<NonNullable<Edge['shadow']>>({
      x: maybe(channel(-1, 1)),
      y: maybe(channel(-1, 1)),
      softness: maybe(channel(0, 0.1)),
      colour: COLOUR,
      opacity: maybe(SHARE),
    }),
  ),
});
