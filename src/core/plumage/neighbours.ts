import { seedOf } from '../motion/seed';
import { isHeld } from '../show/chosen';
import type { SlideId } from '../show/ids';
import type { Layer } from '../show/layer';
import { mainLayerOf, type Show, type Slide } from '../show/show';
import { picturesOf } from '../show/layout';
import { takesOf } from '../mounts/mount';
import type { Dress, Wardrobe } from './dress';
import { isTooSmall } from './too-small';

/** So many slides are seen by themselves between two that several pictures share, at least and at most. */
const LEAST_ALONE = 4;
const MOST_ALONE = 7;
/** Upright pictures leave most of a wide frame empty: so many in a row share a slide in any case. */
const UPRIGHTS = 2;
const MOST_TOGETHER = 4;
/** Pictures taken further apart than this are not of one moment. */
const APART_MS = 45 * 60_000;

/** Neighbours that share a slide, and in which mount, all of them large enough for its windows: upright ones in a wide frame, and some now and then, as the seed deals them. */
export function neighboursTogether(
  show: Show,
  { plumage, seed, with: parts }: Dress,
  { facts, mountOf }: Wardrobe,
): { readonly ids: readonly SlideId[]; readonly mount: string }[] {
  const { slides, frame } = show;
  const isWide = frame.widthPx > 1.2 * frame.heightPx;
  const shapeOf = (slide: Slide) => {
    const known = facts.get(mainLayerOf(slide)!.assetId);
    return known && known.kind !== 'sound' ? known.widthPx / known.heightPx : 1;
  };
  const takenAt = (slide: Slide): number | null => {
    const known = facts.get(mainLayerOf(slide)!.assetId);
    const at = known && known.kind !== 'sound' && known.takenAt ? Date.parse(`${known.takenAt}Z`) : NaN;
    return Number.isNaN(at) ? null : at;
  };
  const isFree = (slide: Slide | undefined, index: number): slide is Slide =>
    slide !== undefined &&
    !slide.mounted &&
    isOnePicture(slide) &&
    !isTooSmall(facts.get(mainLayerOf(slide)!.assetId)) &&
    slide.sounds.length === 0 &&
    slide.script === undefined &&
    slide.waits === undefined &&
    !isHeld(slide, 'transition') &&
    show.marks?.[mainLayerOf(slide)!.assetId] !== 'linger' &&
    !(parts.opener && index === 0) &&
    !(parts.closer && index >= slides.length - 1) &&
    !(parts.chapters && slide.chapter !== undefined);
  const runFrom = (at: number, suits: (slide: Slide) => boolean): Slide[] => {
    const run: Slide[] = [];
    for (let index = at; run.length < MOST_TOGETHER; index += 1) {
      const slide = slides[index];
      if (!isFree(slide, index) || !suits(slide)) break;
      if (run.length > 0 && slide.chapter !== undefined) break;
      const [one, other] = [run.length > 0 ? takenAt(run.at(-1)!) : null, takenAt(slide)];
      if (one !== null && other !== null && Math.abs(other - one) > APART_MS) break;
      run.push(slide);
    }
    return run;
  };
  const found: { ids: SlideId[]; mount: string }[] = [];
  let alone = 0;
  let last = -1;
  let wait = waitFor(seed, 0);
  for (let at = 0; at < slides.length; at += 1) {
    const upright = isWide ? runFrom(at, (slide) => shapeOf(slide) < 0.95) : [];
    const run = upright.length >= UPRIGHTS ? upright : alone >= wait ? runFrom(at, () => true) : [];
    const count = run === upright ? run.length : Math.min(run.length, 2 + Math.floor(seedOf(`count ${at}`, seed) * 3));
    const able = plumage.mounts.several.filter((id) =>
      mountOf(id)
        ?.fits(frame, plumage)
        .some((fit) => takesOf(fit) === count),
    );
    if (count < 2 || able.length === 0) {
      alone += 1;
      continue;
    }
    // By turns, so that no mount follows itself where there are others.
    last = last < 0 ? Math.floor(seedOf('first', seed) * able.length) : last + 1;
    found.push({ ids: run.slice(0, count).map(({ id }) => id), mount: able[last % able.length]! });
    at += count - 1;
    alone = 0;
    wait = waitFor(seed, found.length);
  }
  return found.filter(({ ids }) =>
    ids.every((id) => picturesOf(slides.find((slide) => slide.id === id)!).length === 1),
  );
}

const waitFor = (seed: number, turn: number): number =>
  LEAST_ALONE + Math.floor(seedOf(`wait ${turn}`, seed) * (MOST_ALONE - LEAST_ALONE + 1));

/** Nothing but a picture, that a person has not set going in a way of its own. */
function isOnePicture({ layers }: Slide): boolean {
  const [only] = layers;
  return layers.length === 1 && only!.kind === 'picture' && !isHeld(only as Layer, 'move');
}
