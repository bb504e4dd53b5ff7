import type { ColourChannel } from '../keys/colour';
import type { Fill, Gradient } from '../show/layer';
import type { WordsStyle } from '../show/words';

/** A colour’s value now. */
type ColourNow = (channel: ColourChannel) => string;

export function fillAt(fill: Fill, now: ColourNow): Fill<string> {
  return fill.kind === 'colour' ? { kind: 'colour', colour: now(fill.colour) } : gradientAt(fill, now);
}

export function gradientAt(gradient: Gradient, now: ColourNow): Gradient<string> {
  // What stands still keeps its identity: it is drawn once.
  if (gradient.stops.every((stop) => typeof stop.colour === 'string')) return gradient as Gradient<string>;
  return { ...gradient, stops: gradient.stops.map((stop) => ({ ...stop, colour: now(stop.colour) })) };
}

export function styleAt(style: WordsStyle<ColourChannel>, now: ColourNow): WordsStyle {
  const { colour, accent } = style;
  if (typeof colour !== 'object' && typeof accent !== 'object') return style as WordsStyle;
  return {
    ...style,
    ...(colour !== undefined && { colour: now(colour) }),
    ...(accent !== undefined && { accent: now(accent) }),
  } as WordsStyle;
}
