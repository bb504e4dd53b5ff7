import { maybe, number, oneOf, type Parts, type PartsOf, type Schema } from '../schema/schema';

/**
 * Who leads. Without a pace the music follows the pictures: lengths are as they were given. With one the pictures follow the music: lengths are worked out from its
 * beats, and anew after every edit; what a hand holds, voices, clips and reading times win.
 */
export type Pace = (
  | /** So many beats a picture, more for those that linger. */ { readonly by: 'beats'; readonly beats: number }
    /** As long as it takes for the show to end with the music. */
  | { readonly by: 'music' }
) & {
  /** The middle of a transition meets the beat; its beginning when it is not said. */
  readonly meets?: 'middle';
};

export const BEATS_A_PICTURE = { least: 1, most: 64 };

const MEETS = { meets: maybe(oneOf(['middle'])) };
const KINDS: { readonly [By in Pace['by']]: PartsOf<Omit<Extract<Pace, { readonly by: By }>, 'by'>> } = {
  beats: { beats: number(BEATS_A_PICTURE.least, BEATS_A_PICTURE.most), ...MEETS },
  music: MEETS,
};
export const PACE: Schema = { is: 'kinds', by: 'by', kinds: KINDS as unknown as Readonly<Record<string, Parts>> };
