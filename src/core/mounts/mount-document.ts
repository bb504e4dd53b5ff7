import { windowNumber } from '../show/window-id';
import {
  checked,
  HASH,
  ID,
  list,
  maybe,
  object,
  oneOf,
  record,
  text,
  truth,
  whole,
  type Schema,
} from '../schema/schema';
import { FORMAT_VERSION } from '../show/format/version';
import { faultOfSlide } from '../show/faults';
import { withFilesChanged } from '../show/swap-file';
import type { AssetId } from '../show/ids';
import { LONGEST_NAME, LONGEST_SCRIPT, LONGEST_SLIDE_MS, MOST_LAYERS } from '../show/limits';
import { SLIDE } from '../show/schemas/slide-schema';
import type { FrameShape, Slide } from '../show/show';
import { SUITS, WORDS_FROM, type Mount, type MountFit, type MountWindow, type MountWords, type Shape } from './mount';

/** A mount a person made, as it is kept and as it is handed on. Its slides are as shows of today's version have them. */
export interface MountDocument extends Pick<Mount, 'name' | 'author' | 'description' | 'shelf' | 'posterMs' | 'goes'> {
  readonly format: 'tanager-mount';
  readonly version: typeof MOUNT_VERSION;
  /** It is a transition: that of its only slide, which shows nothing. */
  readonly holds?: 'transition';
  /** Version of shows its slides are written in. */
  readonly shows: typeof FORMAT_VERSION;
  readonly fits: readonly KeptFit[];
  /** Names of its files, by content. */
  readonly files: Readonly<Record<string, string>>;
}

/** Made for one shape of the frame. */
export interface KeptFit extends MountFit {
  readonly frame: Shape;
}

export const MOUNT_VERSION = 1;
export const MOST_FITS = 40;
export const MOST_SLIDES_OF_A_MOUNT = 100;
const MOST_WINDOWS = 500;
const NAME = text(LONGEST_NAME, 1);
const SIDE = whole(16, 7680);

const FIT = object<KeptFit>({
  name: NAME,
  suits: oneOf(SUITS),
  frame: object<Pick<FrameShape, 'widthPx' | 'heightPx'>>({ widthPx: SIDE, heightPx: SIDE }),
  windows: list(
    object<MountWindow>({ name: NAME, takes: oneOf(['picture', 'backing', 'logo']), stills: maybe(truth) }),
    MOST_WINDOWS,
  ),
  slides: list(SLIDE, MOST_SLIDES_OF_A_MOUNT, 1),
  words: list(
    object<MountWords>({
      slide: whole(0, MOST_SLIDES_OF_A_MOUNT - 1),
      layerId: ID,
      part: oneOf(['title', 'subtitle']),
      name: NAME,
      from: oneOf(WORDS_FROM),
    }),
    2 * MOST_LAYERS,
  ),
  loupeOver: maybe(ID),
});

export const MOUNT_DOCUMENT: Schema = checked<MountDocument>(
  object<MountDocument>({
    format: oneOf(['tanager-mount']),
    version: whole(MOUNT_VERSION, MOUNT_VERSION),
    holds: maybe(oneOf(['transition'])),
    shows: whole(FORMAT_VERSION, FORMAT_VERSION),
    name: NAME,
    author: text(LONGEST_NAME),
    description: text(LONGEST_SCRIPT),
    shelf: NAME,
    posterMs: whole(0, LONGEST_SLIDE_MS),
    goes: oneOf(['before', 'after']),
    fits: list(FIT, MOST_FITS, 1),
    files: record(HASH, NAME, MOST_WINDOWS),
  }),
  faultOfMount,
);

/** What is wrong with a mount as a whole, as a sentence that can follow “because”; null when nothing is. */
export function faultOfMount({ fits, files, holds }: Pick<MountDocument, 'fits' | 'files' | 'holds'>): string | null {
  if (holds && (fits.length !== 1 || fits[0]!.slides.length !== 1 || fits[0]!.slides[0]!.transition.kind === 'cut'))
    return 'it holds no transition';
  if (new Set(fits.map(({ name }) => name)).size !== fits.length) return 'two of its fits have the same name';
  for (const fit of fits) {
    for (const slide of fit.slides) {
      if (slide.mounted) return 'a slide of it was laid by another mount';
      const fault = faultOfSlide(slide);
      if (fault) return fault;
      for (const id of filesIn(slide)) {
        const number = windowNumber(id);
        if (number !== null && (number < 1 || number > fit.windows.length))
          return 'it shows a window that it does not have';
        if (number === null && !(id in files)) return 'it shows a file that it does not name';
      }
    }
    if (fit.words.some(({ slide }) => slide >= fit.slides.length))
      return 'it has words for a slide that it does not have';
  }
  return null;
}

/** Every file a slide names, its sounds and its transition's pattern too; windows as well. */
export function filesIn(slide: Slide): AssetId[] {
  const found = new Set<AssetId>();
  withFilesChanged(slide, (id) => {
    found.add(id);
    return id;
  });
  return [...found];
}

/** The files of the studio's own that a mount carries. */
export function filesOfMount({ fits }: Pick<MountDocument, 'fits'>): AssetId[] {
  const ids = fits.flatMap((fit) => fit.slides.flatMap(filesIn)).filter((id) => windowNumber(id) === null);
  return [...new Set(ids)];
}

/** A kept mount to be laid. Its fits for the frame's own shape come first; where there are none for it, those of the shape that is nearest. */
export function mountOf(id: string, document: MountDocument): Mount {
  const { name, author, description, shelf, posterMs, goes, fits } = document;
  return {
    id,
    name,
    author,
    description,
    shelf,
    posterMs,
    goes,
    fits: (frame) => {
      const aspect = (shape: Shape) => Math.log(shape.widthPx / shape.heightPx);
      const away = (fit: KeptFit) => Math.abs(aspect(fit.frame) - aspect(frame));
      const nearest = Math.min(...fits.map(away));
      return fits.filter((fit) => away(fit) <= nearest + 1e-6);
    },
  };
}
