import type { FactsById } from '../show/asset-facts';
import { cueId, type SlideId } from '../show/ids';
import type { Mark } from '../show/mark';
import type { PlacedSound } from '../show/placed-sound';
import { mainLayerOf, type Show, type Slide } from '../show/show';
import { musicLengthMs } from '../sound/sound-spans';
import { lengthFollowsContent } from './fit-to-music';
import { showLengthMs } from './slide-span';

/**
 * Which pictures to drop so that the show ends with its music: spread evenly over the show, never clips or narrated slides, and marked ones only
 * when there are not enough others. Null when even that would not do.
 *
 * @param musicMs shorter than the show
 */
export function picturesToDrop(show: Show, musicMs: number): SlideId[] | null {
  const excessMs = showLengthMs(show) - musicMs;
  const worth = (slide: Slide): number => {
    const layer = mainLayerOf(slide);
    const mark: Mark | undefined = layer ? show.marks?.[layer.assetId] : undefined;
    return mark === 'linger' ? 2 : mark === 'keep' ? 1 : 0;
  };
  const free = show.slides.filter((slide) => !lengthFollowsContent(slide) && slide.layers.length > 0);
  for (const most of [0, 1, 2]) {
    const candidates = free.filter((slide) => worth(slide) <= most);
    const dropped = spread(candidates, excessMs);
    if (dropped && dropped.length < show.slides.length) return dropped;
  }
  return null;
}

/** Evenly spaced slides that together are at least so long; the fewest that do. */
function spread(candidates: readonly Slide[], excessMs: number): SlideId[] | null {
  for (let count = 1; count <= candidates.length; count += 1) {
    const picked = Array.from(
      { length: count },
      (_, index) => candidates[Math.floor(((index + 0.5) * candidates.length) / count)]!,
    );
    if (picked.reduce((sum, slide) => sum + slide.lengthMs, 0) >= excessMs - 1) return picked.map((slide) => slide.id);
  }
  return null;
}

/** The show's songs again from the first, as often as it takes for them to last as long as the show. Null without music that has a length. */
export function repeatedCues(show: Show, facts: FactsById, newId: () => string): PlacedSound[] | null {
  const lengthOf = (cue: PlacedSound) => {
    const known = facts.get(cue.assetId);
    return known && known.kind !== 'picture' ? Math.max(0, known.lengthMs - cue.trimStartMs) : 0;
  };
  const songs = show.cues.filter((cue) => cue.kind === 'song');
  const onceMs = songs.reduce((sum, cue) => sum + lengthOf(cue), 0);
  if (onceMs < 1000) return null;
  const cues = [...show.cues];
  for (let lengthMs = musicLengthMs(show, facts), next = 0; lengthMs < showLengthMs(show); next += 1) {
    const again = songs[next % songs.length]!;
    cues.push({ ...again, id: cueId(newId()), starts: { at: 'after' }, ends: { at: 'own-end' } });
    lengthMs += lengthOf(again);
  }
  return cues;
}
