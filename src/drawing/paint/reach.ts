import type { LayerPlan } from '../../core/frame/frame-plan';
import { mapped, type Matrix3 } from '../../core/frame/matrix';
import { rectAround, WHOLE_BOX, type Rect } from '../planes/draw-quad';

type Frame = { readonly widthPx: number; readonly heightPx: number };

/** The part of the screen that a layer, with its outline, blur and shadow, can touch; null for none. Not held to the frame. */
export function reachOf(layer: LayerPlan, frame: Frame): Rect | null {
  let reach = contentReach(layer, frame);
  if (!reach) return null;
  const outline = layer.edge?.outline;
  if (outline && outline.where !== 'inside') {
    const scale =
      Math.max(reach.right - reach.left, reach.bottom - reach.top) /
      Math.max(1, Math.min(outline.bitmap.widthPx, outline.bitmap.heightPx));
    reach = widened(
      reach,
      outline.width * Math.min(outline.bitmap.widthPx, outline.bitmap.heightPx) * Math.max(1, scale) + 4,
    );
  }
  if (layer.blurPx > 0) reach = widened(reach, 3.5 * layer.blurPx + 2);
  const shadow = layer.edge?.shadow;
  if (!shadow) return reach;
  const soft = 3.5 * shadow.blurPx + 2;
  return {
    left: Math.floor(reach.left - Math.max(soft, soft - shadow.xPx)),
    top: Math.floor(reach.top - Math.max(soft, soft - shadow.yPx)),
    right: Math.ceil(reach.right + Math.max(soft, soft + shadow.xPx)),
    bottom: Math.ceil(reach.bottom + Math.max(soft, soft + shadow.yPx)),
  };
}

function contentReach(layer: LayerPlan, frame: Frame): Rect | null {
  const whole = { left: 0, top: 0, right: frame.widthPx, bottom: frame.heightPx };
  if (layer.content.kind === 'words') return whole;
  if (layer.content.kind === 'group') {
    const parts = layer.content.layers.map((inner) => reachOf(inner, frame)).filter((rect) => rect !== null);
    return parts.length === 0
      ? null
      : {
          left: Math.min(...parts.map((rect) => rect.left)),
          top: Math.min(...parts.map((rect) => rect.top)),
          right: Math.max(...parts.map((rect) => rect.right)),
          bottom: Math.max(...parts.map((rect) => rect.bottom)),
        };
  }
  return layer.plain ? whole : boxReach(layer.toScreen);
}

function boxReach(toScreen: Matrix3): Rect | null {
  const corners = WHOLE_BOX.map((corner) => mapped(toScreen, corner.x, corner.y));
  return corners.every((corner) => corner.w > 0) ? rectAround(corners, 2) : null;
}

function widened(rect: Rect, by: number): Rect {
  return {
    left: Math.floor(rect.left - by),
    top: Math.floor(rect.top - by),
    right: Math.ceil(rect.right + by),
    bottom: Math.ceil(rect.bottom + by),
  };
}
