import { prepareShow, surroundingsOf } from '../frame/plan-frame';
import type { SlideSurroundings } from '../frame/slide-moment';
import type { FactsById } from '../show/asset-facts';
import type { GroupLayer, Layer } from '../show/layer';
import { inShape, type ShapeName } from '../show/shape';
import type { Show, Slide } from '../show/show';
import { lanterns, lanternsPlanOf } from './lanterns';
import { loupePlanOf, type LoupePlan } from './loupe';
import { withItsLooks } from './made-again';
import { laidAgain } from './relaid';

/**
 * The show as it is seen in another shape: what was corrected for it, and builds that are as they were made made anew. A loupe is laid over its picture at the same
 * places of it, since the picture stands otherwise there; lanterns gather within the other frame, as cubes. What was changed by hand is left as it is. In its own
 * shape the show is as it is; slides nothing changes keep their identity.
 *
 * @param facts what is known of the files; without them no loupe is laid anew
 */
export function seenInShape<OfShow extends Show>(show: OfShow, facts: FactsById, shape: ShapeName): OfShow {
  const shaped = inShape(show, shape);
  if (shaped === show || !show.slides.some(({ layers }) => layers.some(mayBeBuilt))) return shaped;
  const [own, other] = [prepareShow(show, facts), prepareShow(shaped, facts)];
  const slides = shaped.slides.map((slide, index): Slide => {
    if (!slide.layers.some(mayBeBuilt)) return slide;
    const around = surroundingsOf(own, index, show.frame);
    const after = surroundingsOf(other, index, shaped.frame);
    const layers = slide.layers.map((layer) =>
      mayBeBuilt(layer) ? (builtAnew(layer, around, after) ?? layer) : layer,
    );
    return layers.every((layer, at) => layer === slide.layers[at]) ? slide : { ...slide, layers };
  });
  return { ...shaped, slides };
}

function mayBeBuilt(layer: Layer): layer is GroupLayer {
  return layer.kind === 'group' && (layer.tether !== undefined || layer.space !== undefined);
}

/** Null for what is no build any more. */
function builtAnew(group: GroupLayer, around: SlideSurroundings, after: SlideSurroundings): GroupLayer | null {
  const under = loupePlanOf(around, group);
  if (under) return laidAgain(around, after, group, { ...under, ...sizedFor(under, around.frame, after.frame) });
  const plan = lanternsPlanOf(group, around.frame);
  return plan && withItsLooks(lanterns(plan, after.frame, group.id), group);
}

type FrameSize = SlideSurroundings['frame'];

/** A loupe keeps its size against the frame's shorter side: as wide as half a wide frame is high, it would fill an upright one. */
function sizedFor({ across, rim }: LoupePlan, own: FrameSize, other: FrameSize): Pick<LoupePlan, 'across' | 'rim'> {
  const shorter = ({ widthPx, heightPx }: FrameSize) => Math.min(widthPx, heightPx) / heightPx;
  const by = shorter(other) / shorter(own);
  return { across: across * by, rim: rim * by };
}
