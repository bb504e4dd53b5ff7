import { planMoves } from '../motion/plan-moves';
import type { AssetFacts, FactsById } from '../show/asset-facts';
import { slideId } from '../show/ids';
import type { FrameShape, Show, Slide } from '../show/show';
import type { BuiltTransition } from '../show/transition';
import { COMING, LEAVING } from '../show/window-id';
import { slideSpans } from '../timing/slide-span';
import type { TransitionPlan } from '../transitions/transition-plan';
import { NO_FIELDS } from '../words/fields';
import { masksOf, planLayers } from './plan-layers';
import type { SlideSurroundings } from './slide-moment';

const BLACK = '#000000';

/** What the layers of a transition need beside themselves, by how large the frame is; worked out once for all its frames. */
const known = new WeakMap<
  BuiltTransition,
  { readonly key: string; readonly facts: FactsById; readonly around: SlideSurroundings }
>();

/** A transition built of layers at a progress of 0…1: its layers, and where the frames of both slides stand among them. */
export function planBuilt(
  transition: BuiltTransition,
  progress: number,
  frame: { readonly widthPx: number; readonly heightPx: number },
  show: Show,
  facts: FactsById,
): TransitionPlan {
  const layers = planLayers(aroundOf(transition, frame, show, facts), progress * transition.ofMs);
  return { kind: 'built', colour: transition.colour ?? BLACK, layers };
}

function aroundOf(
  transition: BuiltTransition,
  frame: { readonly widthPx: number; readonly heightPx: number },
  show: Show,
  facts: FactsById,
): SlideSurroundings {
  const key = `${frame.widthPx} ${frame.heightPx}`;
  const found = known.get(transition);
  if (found?.key === key && found.facts === facts) return found.around;
  const slide: Slide = {
    id: slideId('transition'),
    lengthMs: transition.ofMs,
    transition: { kind: 'cut' },
    backing: { kind: 'colour', colour: BLACK },
    layers: transition.layers,
    sounds: [],
  };
  const seen: AssetFacts = {
    kind: 'picture',
    widthPx: frame.widthPx,
    heightPx: frame.heightPx,
    hasTransparency: false,
    takenAt: null,
    camera: null,
    brightness: 0.5,
  };
  const all = new Map([...facts, [LEAVING, seen], [COMING, seen]]);
  const spans = slideSpans([slide]);
  const shape: FrameShape = show.frame;
  const around: SlideSurroundings = {
    slide,
    span: spans[0]!,
    frame,
    facts: all,
    moves: planMoves({ ...show, frame: shape, slides: [slide] }, all, spans).get(slide.id) ?? new Map(),
    seenMs: transition.ofMs,
    masks: masksOf(slide.layers),
    fields: NO_FIELDS,
    largest: new Map(),
  };
  known.set(transition, { key, facts, around });
  return around;
}
