import { seenLayers, type WordsLayer } from '../show/layer';
import type { FrameShape, Slide } from '../show/show';
import { LINE_HEIGHT, SUBTITLE_SHARE, TITLE_SIZE, WORDS_GAP } from './sizes';

/** What rolls passes a frame as high as a wide screen in so long: a line can be read twice, and nobody waits for the next. */
const FRAME_MS = 6500;
/** Even a name alone is not hurried. */
const LEAST_MS = 6000;
const MOST_MS = 600_000;
const STEP_MS = 100;

/** The words of a slide that roll for as long as it is seen; undefined where there are none. */
export function rollOf({ layers }: Pick<Slide, 'layers'>): WordsLayer | undefined {
  return [...seenLayers(layers)].find(
    (layer): layer is WordsLayer =>
      layer.kind === 'words' && layer.travel?.kind === 'roll' && layer.travel.lengthMs === null,
  );
}

/** How long words take to roll through at the pace of credits, by how many lines they are; what is wrapped is not counted. */
export function rollingMs(layer: WordsLayer, frame: Pick<FrameShape, 'widthPx' | 'heightPx'>): number {
  const { style = {}, title, subtitle, channels = {} } = layer;
  const size = style.size ?? TITLE_SIZE;
  const lineHeight = LINE_HEIGHT * (style.lineSpacing ?? 1);
  const lines = (text: string) => (text.trim() === '' ? 0 : text.trim().split('\n').length);
  const titleHeight = lines(title) * size * lineHeight;
  const textHeight = lines(subtitle) * size * SUBTITLE_SHARE * lineHeight;
  const gap = titleHeight > 0 && textHeight > 0 ? WORDS_GAP : 0;
  // They are sized by the frame's shorter side, and roll in a box of their own where they have one.
  const short = Math.min(frame.widthPx, frame.heightPx);
  const part = typeof channels.height === 'number' ? channels.height : 1;
  const way = (part * frame.heightPx) / short + part * (titleHeight + textHeight + gap);
  return Math.round(Math.min(MOST_MS, Math.max(LEAST_MS, way * FRAME_MS)) / STEP_MS) * STEP_MS;
}
