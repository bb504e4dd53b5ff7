import type { FactsById, PictureFacts } from '../show/asset-facts';
import type { AssetId, LayerId } from '../show/ids';
import { everyLayer, type PictureLayer } from '../show/layer';
import type { FrameShape, Show, Slide } from '../show/show';
import type { SlideSpan } from '../timing/slide-span';
import { LARGEST_ENLARGEMENT } from './automatic-move';
import { factsInUse } from './crop';
import { narrowestWidth } from './move-pace';
import { NO_MOVES, pictureWindow, type Moves, type SlideMoves } from './plan-moves';

/** The place where a picture is enlarged most. */
export interface SoftPlace {
  readonly layerId: LayerId;
  readonly slideIndex: number;
  /** Film pixels for each of the picture's own, at the closest its move comes. */
  readonly enlargement: number;
}

/** Every picture that is somewhere enlarged beyond what looks sharp, with its worst place. */
export function softPlaces(
  show: Pick<Show, 'slides' | 'frame'>,
  facts: FactsById,
  moves: Moves,
  spans: readonly SlideSpan[],
): ReadonlyMap<AssetId, SoftPlace> {
  const worst = new Map<AssetId, SoftPlace>();
  show.slides.forEach((slide, slideIndex) => {
    for (const { layer, enlargement } of enlargements(
      slide,
      show.frame,
      facts,
      moves.get(slide.id) ?? NO_MOVES,
      spans[slideIndex]!,
    )) {
      if (isSoft(enlargement) && enlargement > (worst.get(layer.assetId)?.enlargement ?? 0))
        worst.set(layer.assetId, { layerId: layer.id, slideIndex, enlargement });
    }
  });
  return worst;
}

/** The most any picture of a slide is enlarged beyond what looks sharp; null when all look sharp. */
export function softnessOfSlide(
  slide: Slide,
  frame: FrameShape,
  facts: FactsById,
  moves: SlideMoves,
  span: SlideSpan,
): number | null {
  let most: number | null = null;
  for (const { enlargement } of enlargements(slide, frame, facts, moves, span))
    if (isSoft(enlargement)) most = Math.max(most ?? 0, enlargement);
  return most;
}

/** The pictures of a slide that are enlarged beyond what looks sharp, by how much. */
export function softestLayers(
  ...of: Parameters<typeof enlargements>
): { readonly layer: PictureLayer; readonly enlargement: number }[] {
  return [...enlargements(...of)].filter(({ enlargement }) => isSoft(enlargement));
}

function* enlargements(
  slide: Slide,
  frame: FrameShape,
  facts: FactsById,
  moves: SlideMoves,
  span: SlideSpan,
): Generator<{ layer: PictureLayer; enlargement: number }> {
  for (const layer of everyLayer(slide.layers)) {
    if (layer.kind !== 'picture') continue;
    const known = factsInUse(layer, facts.get(layer.assetId));
    const move = moves.get(layer.id);
    if (known?.kind !== 'picture' || !move) continue;
    const { shape } = pictureWindow(layer, known, frame, span.leavesMs - span.startMs);
    yield { layer, enlargement: shape.widthPx / (narrowestWidth(move) * known.widthPx) };
  }
}

/** More than the moves we choose ourselves ever take; the small term forgives their rounding. */
export function isSoft(enlargement: number): boolean {
  return enlargement > LARGEST_ENLARGEMENT * 1.02;
}

/** How much of the frame's width (or height, whichever ends first) a picture can fill pixel by pixel; above 1 it can be zoomed into by so much. */
export function sharpUpTo(picture: Pick<PictureFacts, 'widthPx' | 'heightPx'>, frame: FrameShape): number {
  return Math.min(picture.widthPx / frame.widthPx, picture.heightPx / frame.heightPx);
}
