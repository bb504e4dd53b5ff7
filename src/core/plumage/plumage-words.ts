import type { WordsCome, WordsStyle } from '../show/words';
import type { Plumage } from './plumage';

/** How words look in a plumage that a person did not style. Their colour stays: it depends on what is behind them. */
export function plumageStyle({ letters }: Pick<Plumage, 'letters'>): WordsStyle {
  return {
    font: letters.title,
    subtitleFont: letters.text,
    weight: letters.weight,
    letterSpacing: letters.spacing,
  };
}

/** How they come, where nobody said. */
export function plumageCome({ come }: Pick<Plumage, 'come'>): WordsCome {
  return {
    entrance: { way: come.way, by: come.by, atMs: 700, lengthMs: come.by === 'letter' ? 1300 : 900 },
    exit: null,
  };
}
