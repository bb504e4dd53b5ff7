import type { Gradient } from '../../core/show/layer';
import { bytesOf, type Kernels } from '../kernel-module';
import type { Surface } from '../planes/surface';
import { dither, gradientAt } from './painted';

/** Fills a frame with a gradient straight in Y'CbCr, from floats and dithered: even the darkest ramp shows no steps. Transparent stops show black. */
export function fillWithGradient(kernels: Kernels, surface: Surface, gradient: Gradient<string>): void {
  const { widthPx, heightPx } = surface;
  const colourAt = gradientAt(gradient, widthPx, heightPx);
  const memory = bytesOf(kernels);
  const luma = (r: number, g: number, b: number) => 0.2126 * r + 0.7152 * g + 0.0722 * b;
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const [r, g, b, a] = colourAt(x + 0.5, y + 0.5);
      memory[surface.y + y * surface.yStride + x] = 16 + (luma(r, g, b) * a * 219) / 255 + dither(x, y);
      if (x % 2 === 1 || y % 2 === 1) continue;
      const [cr, cg, cb, ca] = colourAt(x + 0.5, y + 1);
      const l = luma(cr, cg, cb);
      const at = (y / 2) * surface.cStride + x / 2;
      memory[surface.u + at] = 128 + (((cb - l) / 1.8556) * ca * 224) / 255 + dither(x + 37, y);
      memory[surface.v + at] = 128 + (((cr - l) / 1.5748) * ca * 224) / 255 + dither(x, y + 37);
    }
  }
}
