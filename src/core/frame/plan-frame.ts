import { settle } from '../keys/easing';
import { betweenFramings } from '../motion/framing';
import { planMoves } from '../motion/plan-moves';
import type { PlannedMove } from '../motion/automatic-move';
import type { FactsById } from '../show/asset-facts';
import type { LayerId } from '../show/ids';
import type { Show, Slide, WordsLayer } from '../show/show';
import { frameAtMoment } from '../timing/frames';
import { showLengthMs, slideIndexAt, slideSpans, type SlideSpan } from '../timing/slide-span';
import { CLIP_FRAMES_PER_SECOND, type BackingPlan, type FramePlan, type LayerPlan, type SlidePlan } from './frame-plan';
import { pictureSizeFor } from './picture-size';

/** A show with everything worked out once that does not depend on the moment. */
export interface PreparedShow {
  readonly show: Show;
  readonly facts: FactsById;
  readonly spans: readonly SlideSpan[];
  readonly moves: ReadonlyMap<LayerId, PlannedMove>;
  readonly lengthMs: number;
}

export function prepareShow(show: Show, facts: FactsById): PreparedShow {
  const spans = slideSpans(show.slides);
  return { show, facts, spans, moves: planMoves(show, facts, spans), lengthMs: showLengthMs(show) };
}

/** Behind a bright transparent picture stands ink, behind a dark one paper. */
const INK = '#211d19';
const PAPER = '#f4f0e8';
/** Words come in once the picture has arrived and is looked at. */
const WORDS_WAIT_MS = 300;
const WORDS_FADE_MS = 600;

/**
 * What the show looks like at a moment.
 *
 * @param momentMs from the start of the show, held to it; may be fractional
 * @param frame size to draw at, of the show's shape
 * @returns null for a show without slides
 */
export function planFrame(prepared: PreparedShow, momentMs: number, frame: { readonly widthPx: number; readonly heightPx: number }): FramePlan | null {
  const index = slideIndexAt(prepared.spans, momentMs);
  if (index === null) return null;
  const span = prepared.spans[index]!;
  const offsetMs = Math.max(0, momentMs - span.startMs);
  const slide = planSlide(prepared, index, offsetMs, frame);
  if (offsetMs >= span.transitionMs) return { ...size(frame), slide, incoming: null };
  const before = prepared.spans[index - 1]!;
  return {
    ...size(frame),
    slide: planSlide(prepared, index - 1, momentMs - before.startMs, frame),
    incoming: { slide, kind: 'dissolve', progress: offsetMs / span.transitionMs },
  };
}

/** One slide by itself at an offset from its start. */
export function planSlide(prepared: PreparedShow, index: number, offsetMs: number, frame: { readonly widthPx: number; readonly heightPx: number }): SlidePlan {
  const slide = prepared.show.slides[index]!;
  const span = prepared.spans[index]!;
  const layers: LayerPlan[] = [];
  for (const layer of slide.layers) {
    if (layer.kind === 'words') {
      const opacity = wordsOpacity(layer, span, offsetMs);
      if (opacity > 0) layers.push({ kind: 'words', look: { title: layer.title, subtitle: layer.subtitle, place: layer.place }, opacity });
      continue;
    }
    const move = prepared.moves.get(layer.id);
    const facts = prepared.facts.get(layer.assetId);
    if (!move || !facts || facts.kind === 'sound') continue;
    const progress = offsetMs / (span.leavesMs - span.startMs);
    const framing = betweenFramings(move.first, move.last, settle(progress));
    const wanted = pictureSizeFor(facts, move, frame);
    if (layer.kind === 'picture') layers.push({ kind: 'picture', assetId: layer.assetId, framing, size: wanted });
    else if (facts.kind === 'clip') {
      const lastFrame = Math.max(0, frameAtMoment(facts.lengthMs, CLIP_FRAMES_PER_SECOND) - 1);
      const clipFrame = Math.min(lastFrame, frameAtMoment(layer.trimStartMs + offsetMs, CLIP_FRAMES_PER_SECOND));
      layers.push({ kind: 'clip', assetId: layer.assetId, framing, size: wanted, clipFrame });
    }
  }
  return { slideId: slide.id, backing: planBacking(slide, prepared, layers), layers };
}

function planBacking(slide: Slide, prepared: PreparedShow, layers: readonly LayerPlan[]): BackingPlan {
  if (slide.backing.kind === 'colour') return { kind: 'colour', colour: slide.backing.colour };
  const main = layers.find((layer) => layer.kind !== 'words');
  if (!main) return { kind: 'colour', colour: INK };
  const facts = prepared.facts.get(main.assetId);
  if (facts?.kind === 'picture' && facts.hasTransparency) return { kind: 'colour', colour: facts.brightness > 0.45 ? INK : PAPER };
  return coversFrame(main.framing) ? { kind: 'hidden' } : { kind: 'blurred', assetId: main.assetId };
}

function coversFrame(framing: { x: number; y: number; width: number; height: number; turnDegrees: number }): boolean {
  const slack = 1e-9;
  return framing.turnDegrees === 0
    && Math.abs(framing.x - 0.5) + framing.width / 2 <= 0.5 + slack
    && Math.abs(framing.y - 0.5) + framing.height / 2 <= 0.5 + slack;
}

function wordsOpacity(layer: WordsLayer, span: SlideSpan, offsetMs: number): number {
  if (layer.title.trim() === '' && layer.subtitle.trim() === '') return 0;
  const startMs = Math.min(span.transitionMs / 2 + WORDS_WAIT_MS, (span.endMs - span.startMs) / 4);
  return Math.min(1, Math.max(0, (offsetMs - startMs) / WORDS_FADE_MS));
}

function size(frame: { readonly widthPx: number; readonly heightPx: number }): { widthPx: number; heightPx: number } {
  return { widthPx: frame.widthPx, heightPx: frame.heightPx };
}
