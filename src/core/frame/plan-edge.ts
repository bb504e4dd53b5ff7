import type { Channel } from '../keys/channel';
import type { Framing } from '../motion/framing';
import type { Edge } from '../show/layer';
import type { EdgePlan, PictureSize } from './frame-plan';

/** The edge of a layer as numbers; null when there is nothing to it. Widths are rounded to thousandths, so that like edges share a bitmap. */
export function edgeAt(
  edge: Edge,
  at: (channel: Channel | undefined, usual: number) => number,
  box: PictureSize,
  frame: { readonly heightPx: number },
  around: EdgePlan['around'] = WHOLE,
): EdgePlan | null {
  // Whole sixteens while a picture moves in its box, so that not every frame needs a bitmap of its own.
  const grain = around === WHOLE ? 1 : 16;
  const size = (share: number, px: number) => Math.max(4, grain * Math.ceil((share * px) / grain));
  const bitmap = {
    widthPx: size(around.right - around.left, box.widthPx),
    heightPx: size(around.bottom - around.top, box.heightPx),
  };
  const thousandths = (value: number) => Math.round(Math.min(0.5, Math.max(0, value)) * 1000) / 1000;
  const shape = edge.shape ?? null;
  const feather = thousandths(at(edge.feather, 0));
  const width = edge.outline ? thousandths(at(edge.outline.width, 0)) : 0;
  const strength = edge.shadow ? Math.min(1, Math.max(0, at(edge.shadow.opacity, 0))) : 0;
  const plan: EdgePlan = {
    around,
    stencil:
      shape || feather > 0
        ? { shape, feather, inset: shape && feather === 0 ? underOutline(edge, width) : 0, bitmap }
        : null,
    outline:
      edge.outline && width > 0
        ? { shape, feather: 0, inset: 0, bitmap, colour: edge.outline.colour, width, where: edge.outline.where }
        : null,
    shadow:
      edge.shadow && strength > 0
        ? {
            xPx: at(edge.shadow.x, 0) * frame.heightPx,
            yPx: at(edge.shadow.y, 0) * frame.heightPx,
            blurPx: Math.min(0.1, Math.max(0, at(edge.shadow.softness, 0))) * frame.heightPx,
            colour: edge.shadow.colour,
            opacity: strength,
          }
        : null,
  };
  return plan.stencil || plan.outline || plan.shadow ? plan : null;
}

/**
 * How far a layer is cut within its shape, as a share of the shorter side: to the middle of what its outline covers. Where both were antialiased at the same edge,
 * a hair of the layer would show beside the outline.
 */
function underOutline(edge: Edge, width: number): number {
  if (!edge.outline || edge.outline.where === 'outside') return 0;
  return edge.outline.where === 'inside' ? width / 2 : width / 4;
}

const WHOLE: EdgePlan['around'] = { left: 0, top: 0, right: 1, bottom: 1 };

/** The part of a box that its picture covers, for upright framings; the whole box for others and where the picture fills it. */
export function coveredPart({ x, y, width, height, turnDegrees }: Framing): EdgePlan['around'] {
  const [left, top] = [Math.max(0, 0.5 - x / width), Math.max(0, 0.5 - y / height)];
  const [right, bottom] = [Math.min(1, 0.5 + (1 - x) / width), Math.min(1, 0.5 + (1 - y) / height)];
  const slack = 1e-6;
  if (
    turnDegrees !== 0 ||
    left >= right ||
    top >= bottom ||
    (left < slack && top < slack && right > 1 - slack && bottom > 1 - slack)
  )
    return WHOLE;
  return { left, top, right, bottom };
}
