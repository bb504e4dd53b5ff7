import '@fontsource-variable/playfair-display';
import '@fontsource-variable/bodoni-moda';
import '@fontsource-variable/vollkorn';
import '@fontsource-variable/cinzel';
import '@fontsource-variable/oswald';
import '@fontsource-variable/josefin-sans';
import '@fontsource-variable/outfit';
import '@fontsource-variable/space-grotesk';
import '@fontsource-variable/quicksand';
import '@fontsource-variable/dancing-script';
import '@fontsource-variable/caveat';
import '@fontsource-variable/fraunces';
import type { FontName, WordsStyle } from '../../core/show/words';

/** What each family is called, and its name in style sheets, so that a list shows it in itself. */
export const FONTS: Record<FontName, { readonly label: string; readonly family: string }> = {
  bricolage: { label: 'Bricolage', family: 'Bricolage Grotesque Variable' },
  instrument: { label: 'Instrument', family: 'Instrument Sans Variable' },
  'spline-mono': { label: 'Spline Mono', family: 'Spline Sans Mono Variable' },
  fraunces: { label: 'Fraunces', family: 'Fraunces Variable' },
  caveat: { label: 'Caveat', family: 'Caveat Variable' },
  playfair: { label: 'Playfair Display', family: 'Playfair Display Variable' },
  bodoni: { label: 'Bodoni Moda', family: 'Bodoni Moda Variable' },
  vollkorn: { label: 'Vollkorn', family: 'Vollkorn Variable' },
  cinzel: { label: 'Cinzel', family: 'Cinzel Variable' },
  oswald: { label: 'Oswald', family: 'Oswald Variable' },
  josefin: { label: 'Josefin Sans', family: 'Josefin Sans Variable' },
  outfit: { label: 'Outfit', family: 'Outfit Variable' },
  'space-grotesk': { label: 'Space Grotesk', family: 'Space Grotesk Variable' },
  quicksand: { label: 'Quicksand', family: 'Quicksand Variable' },
  'dancing-script': { label: 'Dancing Script', family: 'Dancing Script Variable' },
};

interface Pair {
  readonly name: string;
  readonly title: FontName;
  readonly text: FontName;
}

/** Title and text that go together: one speaks, the other keeps quiet. */
export const PAIRS: readonly Pair[] = [
  { name: 'Lantern', title: 'bricolage', text: 'instrument' },
  { name: 'Almanac', title: 'fraunces', text: 'instrument' },
  { name: 'Opera', title: 'playfair', text: 'josefin' },
  { name: 'Gala', title: 'bodoni', text: 'outfit' },
  { name: 'Harbour', title: 'oswald', text: 'vollkorn' },
  { name: 'Monument', title: 'cinzel', text: 'quicksand' },
  { name: 'Letter', title: 'dancing-script', text: 'vollkorn' },
  { name: 'Notebook', title: 'caveat', text: 'quicksand' },
  { name: 'Signal', title: 'space-grotesk', text: 'spline-mono' },
];

export const OWN_PAIR = 'a pair of your own';

export function pairOf({ font, subtitleFont }: Pick<WordsStyle, 'font' | 'subtitleFont'>): string {
  const text = subtitleFont ?? font ?? 'instrument';
  return PAIRS.find((pair) => pair.title === (font ?? 'bricolage') && pair.text === text)?.name ?? OWN_PAIR;
}
