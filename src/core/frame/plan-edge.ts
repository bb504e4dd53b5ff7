import type { Channel } from '../keys/channel';
import type { Edge } from '../show/layer';
import type { EdgePlan, PictureSize } from './frame-plan';

/** The edge of a layer as numbers; null when there is nothing to it. Widths are rounded to thousandths, so that like edges share a bitmap. */
export function edgeAt(edge: Edge, at: (channel: Channel | undefined, usual: number) => number, bitmap: PictureSize, frame: { readonly heightPx: number }): EdgePlan | null {
  const thousandths = (value: number) => Math.round(Math.min(0.5, Math.max(0, value)) * 1000) / 1000;
  const shape = edge.shape ?? null;
  const feather = thousandths(at(edge.feather, 0));
  const width = edge.outline ? thousandths(at(edge.outline.width, 0)) : 0;
  const strength = edge.shadow ? Math.min(1, Math.max(0, at(edge.shadow.opacity, 0))) : 0;
  const plan: EdgePlan = {
    stencil: shape || feather > 0 ? { shape, feather, bitmap } : null,
    outline: edge.outline && width > 0 ? { shape, feather: 0, bitmap, colour: edge.outline.colour, width, where: edge.outline.where } : null,
    shadow: edge.shadow && strength > 0 ? {
      xPx: at(edge.shadow.x, 0) * frame.heightPx, yPx: at(edge.shadow.y, 0) * frame.heightPx,
      blurPx: Math.min(0.1, Math.max(0, at(edge.shadow.softness, 0))) * frame.heightPx, colour: edge.shadow.colour, opacity: strength,
    } : null,
  };
  return plan.stencil || plan.outline || plan.shadow ? plan : null;
}
