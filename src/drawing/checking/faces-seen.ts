import type { Box } from '../../core/focus/box';
import type { FramePlan, LayerPlan, SlidePlan } from '../../core/frame/frame-plan';
import { mapped, type Matrix3 } from '../../core/frame/matrix';
import { cropOn, placeOnCrop } from '../../core/motion/crop';
import type { FactsById } from '../../core/show/asset-facts';

/** Where the faces that were found in a slide's pictures lie in the frame, as upright boxes in pixels. Pictures within groups of their own canvas are left out. */
export function facesSeen(slide: SlidePlan, facts: FactsById): Box[] {
  return slide.layers.flatMap((layer) => facesOf(layer, facts));
}

/** Below, a picture is a ground and not looked at. */
const LEAST_OPACITY = 0.5;

function facesOf({ content, toScreen, opacity, blurPx }: LayerPlan, facts: FactsById): Box[] {
  if (content.kind !== 'picture' || opacity < LEAST_OPACITY || blurPx > 4) return [];
  const known = facts.get(content.assetId);
  if (known?.kind !== 'picture' || !known.focus) return [];
  const crop = content.crop && cropOn(known, content.crop.framing);
  const used = content.crop ? content.crop.framing : null;
  const { framing } = content;
  return known.focus.faces.flatMap((face): Box[] => {
    const corners = [
      [face.left, face.top],
      [face.left + face.width, face.top],
      [face.left, face.top + face.height],
      [face.left + face.width, face.top + face.height],
    ].map(([x, y]) => {
      const place = crop && used ? placeOnCrop(crop, { x: x!, y: y! }, known) : { x: x!, y: y! };
      return onScreen(
        toScreen,
        (place.x - framing.x) / framing.width + 0.5,
        (place.y - framing.y) / framing.height + 0.5,
      );
    });
    const [left, top] = [Math.min(...corners.map(({ x }) => x)), Math.min(...corners.map(({ y }) => y))];
    const box = {
      left,
      top,
      width: Math.max(...corners.map(({ x }) => x)) - left,
      height: Math.max(...corners.map(({ y }) => y)) - top,
    };
    return box.width > 0 && box.height > 0 ? [box] : [];
  });
}

/** A framing that is turned is taken as if it were not: faces are about round. */
function onScreen(toScreen: Matrix3, x: number, y: number): { x: number; y: number } {
  return mapped(toScreen, x, y);
}

/** The slide of a plan that is on, or coming in. */
export const slideIn = (plan: FramePlan, slideId: string): SlidePlan | null =>
  plan.incoming?.slide.slideId === slideId ? plan.incoming.slide : plan.slide.slideId === slideId ? plan.slide : null;
