import { captionsOfShow, type ShownCaption } from '../captions/show-captions';
import { USUAL_LANGUAGE } from '../show/caption';
import { factsInUse } from '../motion/crop';
import { fillFraming } from '../motion/framing';
import { NO_MOVES, planMoves, type Moves, type SlideMoves } from '../motion/plan-moves';
import type { FactsById } from '../show/asset-facts';
import type { AssetId } from '../show/ids';
import { mainLayerOf, type BackingLight, type Show, type Slide } from '../show/show';
import { ownClipRate } from '../timing/clip-rate';
import { clipFrameAt } from '../timing/clip-time';
import { momentSeen } from '../timing/frames';
import { showLengthMs, slideIndexAt, slideSpans, type SlideSpan } from '../timing/slide-span';
import { planTransition, transitionProgress } from '../transitions/transition-plan';
import { unreachable } from '../unreachable';
import { fieldValues, NO_FIELDS, slideHasFields } from '../words/fields';
import {
  NEUTRAL,
  type BackingPlan,
  type FramePlan,
  type LayerPlan,
  type LightPlan,
  type SlidePlan,
} from './frame-plan';
import { pictureSizeFor } from './picture-size';
import { planBuilt } from './plan-built';
import { planCaption } from './plan-caption';
import { planWatermark } from './plan-watermark';
import { cropPlan } from './plan-crop';
import { masksOf, planLayers } from './plan-layers';
import type { SlideSurroundings } from './slide-moment';

interface FrameSize {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** A show with everything worked out once that does not depend on the moment. */
export interface PreparedShow {
  readonly show: Show;
  readonly facts: FactsById;
  readonly spans: readonly SlideSpan[];
  /** The moment of the first frame that shows each slide; its time is counted from there, so that it looks the same wherever in the show it stands. */
  readonly seenFromMs: readonly number[];
  readonly moves: Moves;
  readonly lengthMs: number;
  /** Captions that are part of the picture, in order; none when they are not. */
  readonly captions: readonly ShownCaption[];
  /** What slides need beside themselves, by slide and frame size; filled as they are planned. */
  readonly surroundings: Map<string, SlideSurroundings>;
}

export function prepareShow(show: Show, facts: FactsById): PreparedShow {
  const spans = slideSpans(show.slides);
  return {
    show,
    facts,
    spans,
    seenFromMs: spans.map(({ startMs }) => momentSeen(startMs, show.frame.rate)),
    moves: planMoves(show, facts, spans),
    lengthMs: showLengthMs(show),
    captions: show.captionLook
      ? captionsOfShow(show, facts, show.captionLook.language ?? show.language ?? USUAL_LANGUAGE)
      : [],
    surroundings: new Map(),
  };
}

/** Behind a bright transparent picture stands ink, behind a dark one paper. */
const INK = '#211d19';
const PAPER = '#f4f0e8';
/** A blurred backing nobody set: wide, and a good deal darker than the picture on it. */
const USUAL_BLUR = { amount: 0.065, darkness: 0.38 };

/**
 * What the show looks like at a moment.
 *
 * @param momentMs from the start of the show, held to it; may be fractional
 * @param frame size to draw at, of the show's shape
 * @returns null for a show without slides
 */
export function planFrame(prepared: PreparedShow, momentMs: number, frame: FrameSize): FramePlan | null {
  const index = seenIndexAt(prepared, momentMs);
  if (index === null) return null;
  const span = prepared.spans[index]!;
  const offsetMs = Math.max(0, momentMs - prepared.seenFromMs[index]!);
  const slide = planSlide(prepared, index, offsetMs, frame);
  const size = {
    widthPx: frame.widthPx,
    heightPx: frame.heightPx,
    over: [...planWatermark(prepared, frame), ...planCaption(prepared, momentMs, frame)],
  };
  const { transition, id } = prepared.show.slides[index]!;
  if (offsetMs >= span.transitionMs || transition.kind === 'cut') return { ...size, slide, incoming: null };
  const progress = transitionProgress(transition, id, offsetMs / span.transitionMs);
  return {
    ...size,
    slide: planSlide(prepared, index - 1, momentMs - prepared.seenFromMs[index - 1]!, frame),
    incoming: {
      slide,
      transition:
        transition.kind === 'built'
          ? planBuilt(transition, progress, frame, prepared.show, prepared.facts)
          : planTransition(transition, id),
      progress,
    },
  };
}

/** The slide that is on, or coming in: by the clock, and at the very frame that shows it first, which a rounded start may lie a hair behind. */
function seenIndexAt({ spans, seenFromMs }: PreparedShow, momentMs: number): number | null {
  const index = slideIndexAt(spans, momentMs);
  return index !== null && index + 1 < spans.length && seenFromMs[index + 1]! <= momentMs ? index + 1 : index;
}

/** One slide by itself at an offset from its start. */
export function planSlide(prepared: PreparedShow, index: number, offsetMs: number, frame: FrameSize): SlidePlan {
  const around = surroundingsOf(prepared, index, frame);
  const layers = planLayers(around, offsetMs);
  return { slideId: around.slide.id, backing: planBacking(around, layers), layers };
}

/** What the layers of a slide need beside themselves, for a frame of that size. */
export function surroundingsOf(prepared: PreparedShow, index: number, frame: FrameSize): SlideSurroundings {
  const key = `${index} ${frame.widthPx} ${frame.heightPx}`;
  const known = prepared.surroundings.get(key);
  if (known) return known;
  const slide = prepared.show.slides[index]!;
  const span = prepared.spans[index]!;
  const around: SlideSurroundings = {
    slide,
    span,
    frame,
    facts: prepared.facts,
    moves: prepared.moves.get(slide.id) ?? NO_MOVES,
    seenMs: span.leavesMs - span.startMs,
    masks: masksOf(slide.layers),
    fields: slideHasFields(slide) ? fieldValues(prepared.show, prepared.facts, index) : NO_FIELDS,
    largest: new Map(),
  };
  prepared.surroundings.set(key, around);
  return around;
}

function planBacking({ slide, facts, moves, frame }: SlideSurroundings, layers: readonly LayerPlan[]): BackingPlan {
  const { backing } = slide;
  switch (backing.kind) {
    case 'colour':
    case 'gradient':
      return backing;
    case 'picture': {
      const known = facts.get(backing.assetId);
      if (known?.kind !== 'picture') return { kind: 'colour', colour: INK };
      const light = backing.light && { light: backingLight(backing.light) };
      if (backing.blur)
        return {
          kind: 'blurred',
          assetId: backing.assetId,
          clipFrame: null,
          aspect: known.widthPx / known.heightPx,
          crop: null,
          amount: backing.blur,
          darkness: 0,
          colour: 1,
          ...light,
        };
      const framing = fillFraming(known.widthPx / known.heightPx, frame.widthPx / frame.heightPx);
      return {
        kind: 'picture',
        assetId: backing.assetId,
        framing,
        size: pictureSizeFor(known, { first: framing, last: framing }, frame),
        ...light,
      };
    }
    case 'automatic':
    case 'blurred':
      return planBlurred(slide, facts, moves, layers, backing.kind === 'blurred' ? backing : null);
    default:
      return unreachable(backing);
  }
}

function backingLight(light: BackingLight): LightPlan {
  return { values: { ...NEUTRAL, ...light }, moves: false, sharpen: 0, print: null, redEyes: [] };
}

function planBlurred(
  slide: Slide,
  facts: FactsById,
  moves: SlideMoves,
  layers: readonly LayerPlan[],
  own: { amount: number; darkness: number } | null,
): BackingPlan {
  const main = mainLayerOf(slide);
  const known = main && factsInUse(main, facts.get(main.assetId));
  if (!main || !known || known.kind === 'sound' || !moves.has(main.id)) return { kind: 'colour', colour: INK };
  if (!own) {
    if (known.kind === 'picture' && known.hasTransparency)
      return { kind: 'colour', colour: known.brightness > 0.45 ? INK : PAPER };
    const lowest = layers[0];
    if (lowest && coversFrame(lowest, main.assetId)) return { kind: 'hidden' };
  }
  const { amount, darkness } = own ?? USUAL_BLUR;
  return {
    kind: 'blurred',
    assetId: main.assetId,
    clipFrame:
      main.kind === 'clip' && known.kind === 'clip'
        ? clipFrameAt(main, known.lengthMs, slide.lengthMs, 0, ownClipRate(known))
        : null,
    aspect: known.widthPx / known.heightPx,
    crop: cropPlan(main, facts.get(main.assetId)),
    amount,
    darkness,
  };
}

function coversFrame(layer: LayerPlan, assetId: AssetId): boolean {
  const { content } = layer;
  if (
    !layer.plain ||
    layer.opacity < 1 ||
    (content.kind !== 'picture' && content.kind !== 'clip') ||
    content.assetId !== assetId
  )
    return false;
  const slack = 1e-9;
  const { framing } = content;
  return (
    framing.turnDegrees === 0 &&
    Math.abs(framing.x - 0.5) + framing.width / 2 <= 0.5 + slack &&
    Math.abs(framing.y - 0.5) + framing.height / 2 <= 0.5 + slack
  );
}
