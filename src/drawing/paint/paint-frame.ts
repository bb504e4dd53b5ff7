import type { FramePlan, SlidePlan } from '../../core/frame/frame-plan';
import type { Kernels } from '../kernel-module';
import { drawPicture } from '../planes/draw-picture';
import { createCels } from '../planes/cels';
import { copySurface, createSurface, fillSurface, releaseSurface, type Surface } from '../planes/surface';
import type { PlateStore } from '../plates/plate-store';
import { paintLayer, type Easel } from './paint-layer';
import { performTransition } from './perform-transition';
import { backingPlate, pictureContentPlate } from '../plates/plate';

/** Behind a picture that could not be read. */
const MISSING_COLOUR = '#262422';

/** Paints plans of one frame size, on surfaces of its own. */
export interface Painter {
  /** Performs the plan with what the store holds. The surface is the painter's and is overwritten by the next call. */
  paint(plan: FramePlan, store: PlateStore): Surface;
  close(): void;
}

export function createPainter(kernels: Kernels, widthPx: number, heightPx: number): Painter {
  const leaving = createSurface(kernels, widthPx, heightPx);
  const coming = createSurface(kernels, widthPx, heightPx);
  const out = createSurface(kernels, widthPx, heightPx);
  const cels = createCels(kernels, widthPx, heightPx);
  return {
    paint(plan, store) {
      if (plan.widthPx !== widthPx || plan.heightPx !== heightPx)
        throw new RangeError(
          `this painter draws ${widthPx} × ${heightPx}, got a plan for ${plan.widthPx} × ${plan.heightPx}`,
        );
      const easel: Easel = { kernels, cels, store, frame: { widthPx, heightPx } };
      const painted = paintSlides(easel, plan);
      for (const layer of plan.over) paintLayer(easel, painted, layer);
      return painted;
    },
    close() {
      for (const surface of [leaving, coming, out]) releaseSurface(kernels, surface);
      cels.close();
    },
  };

  function paintSlides(easel: Easel, { slide, incoming }: FramePlan): Surface {
    paintSlide(easel, leaving, slide);
    if (!incoming) return leaving;
    paintSlide(easel, coming, incoming.slide);
    return performTransition(easel, { leaving, coming, out }, incoming.transition, incoming.progress);
  }
}

function paintSlide(easel: Easel, surface: Surface, slide: SlidePlan): void {
  paintBacking(easel, surface, slide);
  for (const layer of slide.layers) paintLayer(easel, surface, layer);
}

function paintBacking({ kernels, store, frame }: Easel, surface: Surface, slide: SlidePlan): void {
  const { backing } = slide;
  const size = { widthPx: frame.widthPx, heightPx: frame.heightPx };
  if (backing.kind === 'colour') return fillSurface(kernels, surface, backing.colour);
  if (backing.kind === 'hidden') {
    // Drawn over entirely, unless its picture is missing.
    const content = slide.layers[0]?.content;
    if (content?.kind !== 'picture' && content?.kind !== 'clip') return;
    if (
      !store.made(pictureContentPlate(content, content.sizes[0]!.size, store.isTransparent(content.assetId)), 'planes')
    )
      fillSurface(kernels, surface, MISSING_COLOUR);
    return;
  }
  if (backing.kind === 'picture') {
    fillSurface(kernels, surface, MISSING_COLOUR);
    const made = store.made(backingPlate(backing), 'planes');
    if (made) drawPicture(kernels, surface, made.planes, backing.framing, 1);
    return;
  }
  const made = store.made(
    backing.kind === 'gradient'
      ? { kind: 'gradient', gradient: backing.gradient, frame: size }
      : { ...backing, frame: size },
    'planes',
  );
  if (made) copySurface(kernels, surface, made.planes);
  else fillSurface(kernels, surface, MISSING_COLOUR);
}
