import type { FactsById } from '../show/asset-facts';
import { isMoving, keysOf } from '../keys/edit-keys';
import { channelAt, channelsOf } from '../layers/channel-paths';
import { seenLayers, type WordsLayer } from '../show/layer';
import type { Show, Slide } from '../show/show';
import { voiceNeedMs } from './voice-need';
import { filledAs } from '../words/fields';
import { readableSpan } from '../words/passage';
import { shortestReadMs } from '../words/reading-speed';
import { transitionLengthMs } from './slide-span';

/** No picture is seen in less. */
export const SHORTEST_FITTED_MS = 500;
/** Long enough that entrances take the time they take by themselves. */
const AMPLE_MS = 60_000;

/**
 * The least a slide can last without cutting off what it carries: until its voices have been heard, and until its words can have been read, the time counted
 * in which they come and go, and until the last key that is tied to its start. Clips are not among it: their slides last as long as they do.
 *
 * @param before the slide before it, which bounds its transition
 * @param show whose breath counts where the slide has none of its own
 */
export function leastLengthMs(
  slide: Slide,
  facts: FactsById,
  before: Slide | undefined,
  show: Partial<Pick<Show, 'breath' | 'title' | 'language' | 'clocks' | 'slides'>> = {},
): number {
  // What is read is what fields are filled with.
  const read = filledAs(slide, facts, show, show.slides?.length ?? 1);
  const words = [...seenLayers(read.layers)].filter((layer): layer is WordsLayer => layer.kind === 'words');
  const transitionMs = transitionLengthMs({ ...slide, lengthMs: AMPLE_MS }, before);
  return Math.ceil(
    Math.max(
      SHORTEST_FITTED_MS,
      voiceNeedMs(show, slide, facts),
      ...words.map((layer) => toReadMs(slide, layer, transitionMs)),
      keysNeedMs(slide),
    ),
  );
}

function keysNeedMs(slide: Slide): number {
  let latest = 0;
  for (const layer of seenLayers(slide.layers))
    for (const { path } of channelsOf(layer)) {
      const channel = channelAt(layer, path);
      if (!isMoving(channel)) continue;
      for (const { at } of keysOf(channel)) if (at.tied === 'start') latest = Math.max(latest, at.ms);
    }
  return latest;
}

function toReadMs(slide: Slide, layer: WordsLayer, transitionMs: number): number {
  const text = `${layer.title}\n${layer.subtitle}`;
  if (text.trim() === '') return 0;
  if (layer.travel) return layer.travel.fromMs + (layer.travel.lengthMs ?? shortestReadMs(text));
  const span = { slideId: slide.id, slideIndex: 0, startMs: 0, endMs: AMPLE_MS, transitionMs, leavesMs: AMPLE_MS };
  const { startMs, endMs } = readableSpan(layer, span);
  return startMs + shortestReadMs(text) + (AMPLE_MS - endMs);
}
