import { unreachable } from '../core/unreachable';
import type { FramePlan, LayerPlan, SlidePlan } from '../core/frame/frame-plan';
import { q15, type Kernels } from './kernel-module';
import type { PictureStore } from './picture-store';
import { drawPicture } from './planes/draw-picture';
import { copySurface, createSurface, fillSurface, releaseSurface, type Surface } from './planes/surface';

/** Behind a picture that could not be read. */
const MISSING_COLOUR = '#262422';

/** Paints plans of one frame size. Holds two surfaces, of which the first is the finished frame. */
export interface Painter {
  /** Performs the plan with what the store holds. The surface is the painter's and is overwritten by the next call. */
  paint(plan: FramePlan, store: PictureStore): Surface;
  close(): void;
}

export function createPainter(kernels: Kernels, widthPx: number, heightPx: number): Painter {
  const frame = createSurface(kernels, widthPx, heightPx);
  const incoming = createSurface(kernels, widthPx, heightPx);
  return {
    paint(plan, store) {
      if (plan.widthPx !== widthPx || plan.heightPx !== heightPx) throw new RangeError(`this painter draws ${widthPx} × ${heightPx}, got a plan for ${plan.widthPx} × ${plan.heightPx}`);
      paintSlide(kernels, frame, plan.slide, store);
      if (plan.incoming) {
        paintSlide(kernels, incoming, plan.incoming.slide, store);
        // A dissolve is linear in Y'CbCr, so it is exact on finished frames.
        kernels.mixRow(frame.y, frame.y, incoming.y, frame.byteCount, q15(plan.incoming.progress));
      }
      return frame;
    },
    close() {
      releaseSurface(kernels, frame);
      releaseSurface(kernels, incoming);
    },
  };
}

function paintSlide(kernels: Kernels, surface: Surface, slide: SlidePlan, store: PictureStore): void {
  const main = slide.layers.find((layer) => layer.kind !== 'words');
  if (slide.backing.kind === 'colour') fillSurface(kernels, surface, slide.backing.colour);
  else if (slide.backing.kind === 'blurred') {
    const backing = store.backing(slide.backing.assetId, surface);
    if (backing) copySurface(kernels, surface, backing);
    else fillSurface(kernels, surface, MISSING_COLOUR);
  } else if (!main || !store.picture(main)) fillSurface(kernels, surface, MISSING_COLOUR);
  for (const layer of slide.layers) paintLayer(kernels, surface, layer, store);
}

function paintLayer(kernels: Kernels, surface: Surface, layer: LayerPlan, store: PictureStore): void {
  switch (layer.kind) {
    case 'picture':
    case 'clip': {
      const planes = store.picture(layer);
      if (planes) drawPicture(kernels, surface, planes, layer.framing, 1);
      return;
    }
    case 'words': {
      const words = store.words(layer.look, surface);
      if (!words) return;
      const { planes, leftPx, topPx } = words;
      const opacity = q15(layer.opacity);
      const cLeft = leftPx / 2;
      const cTop = topPx / 2;
      kernels.coverPlane(surface.y + topPx * surface.yStride + leftPx, surface.yStride, planes.y, planes.alpha, planes.yStride, planes.widthPx, planes.heightPx, opacity);
      for (const [from, to] of [[planes.u, surface.u], [planes.v, surface.v]] as const) {
        kernels.coverPlane(to + cTop * surface.cStride + cLeft, surface.cStride, from, planes.halfAlpha, planes.cStride, planes.widthPx / 2, planes.heightPx / 2, opacity);
      }
      return;
    }
    default:
      return unreachable(layer);
  }
}
