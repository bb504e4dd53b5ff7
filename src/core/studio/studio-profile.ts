import { HASH, ID, list, maybe, number, object, oneOf, orNull, text, truth, type Schema } from '../schema/schema';
import { LETTERS, PALETTE, PLUMAGE } from '../plumage/plumage-schema';
import type { Letters, Palette, Plumage } from '../plumage/plumage';
import { LONGEST_NAME, LONGEST_REASON } from '../show/limits';
import { USUAL_WATERMARK, type Watermark } from '../show/watermark';
import { WORDS_PLACES } from '../show/words';
import type { AssetId } from '../show/ids';

/** What a studio says of itself, and what its shows have from the beginning. */
export interface StudioProfile {
  readonly name: string;
  /** How to reach it: an address, a number. */
  readonly contact: string;
  readonly links: readonly { readonly name: string; readonly to: string }[];
  /** On the studio's own shelf. */
  readonly logo: AssetId | null;
  /** Instead of those of the plumage, where a mount of the studio's asks. */
  readonly letters?: Letters;
  readonly palette?: Palette;
  readonly watermark: Omit<Watermark, 'assetId'>;
  readonly newShows: {
    /** By id; null: none. */
    readonly plumage: string | null;
    readonly logoFirst: boolean;
    readonly logoLast: boolean;
    readonly watermark: boolean;
  };
  /** Made by the studio. */
  readonly plumage: readonly Plumage[];
  /** Faces are not looked for in its pictures; looked for when it is not said. */
  readonly faces?: 'not-sought';
}

export const EMPTY_PROFILE: StudioProfile = {
  name: '',
  contact: '',
  links: [],
  logo: null,
  watermark: USUAL_WATERMARK,
  newShows: { plumage: null, logoFirst: false, logoLast: false, watermark: false },
  plumage: [],
};

const MOST_LINKS = 20;
const MOST_PLUMAGE = 200;
/** Web and mail addresses: what a screening may send people to. */
export const LINK: Schema = {
  is: 'text',
  least: 1,
  most: 2000,
  like: {
    pattern: /^(https?:\/\/|mailto:)[^\s<>"]+$/,
    says: 'must begin with https:// or mailto:',
    samples: ['https://harrowlane.example', 'mailto:hello@harrowlane.example'],
  },
};

export const STUDIO_PROFILE: Schema = object<StudioProfile>({
  name: text(LONGEST_NAME),
  contact: text(LONGEST_REASON),
  links: list(object<StudioProfile['links'][number]>({ name: text(LONGEST_NAME, 1), to: LINK }), MOST_LINKS),
  logo: orNull(HASH),
  letters: maybe(LETTERS),
  palette: maybe(PALETTE),
  watermark: object<StudioProfile['watermark']>({
    place: oneOf(WORDS_PLACES),
    size: number(0.03, 0.6),
    opacity: number(0.05, 1),
  }),
  newShows: object<StudioProfile['newShows']>({
    plumage: orNull(ID),
    logoFirst: truth,
    logoLast: truth,
    watermark: truth,
  }),
  plumage: list(PLUMAGE, MOST_PLUMAGE),
  faces: maybe(oneOf(['not-sought'])),
});
