import type { LightPlan } from '../../core/frame/frame-plan';
import type { Pixels } from '../planes/picture-planes';
import { blur } from './gaussian';
import { lumaOf, printmake } from './printmaking';

/** Sharpening, red eyes and printmaking effects: worked out on the picture's pixels once. Reaches are shares of its width, so that every size of it looks alike. */
export function applyStillEffects(pixels: Pixels, light: LightPlan): Pixels {
  if (light.sharpen === 0 && !light.print && light.redEyes.length === 0) return pixels;
  const rgba = Uint8ClampedArray.from(pixels.rgba);
  const { widthPx, heightPx } = pixels;
  for (const spot of light.redEyes) darkenRedEye(rgba, widthPx, heightPx, spot);
  if (light.sharpen > 0) sharpen(rgba, widthPx, heightPx, light.sharpen);
  if (light.print && light.print.strength > 0)
    printmake(rgba, widthPx, heightPx, light.print.kind, light.print.strength);
  return { ...pixels, rgba };
}

/** Red that much outweighs green and blue is taken down to them, softly towards the spot's rim. */
function darkenRedEye(
  rgba: Uint8ClampedArray,
  widthPx: number,
  heightPx: number,
  spot: { readonly x: number; readonly y: number; readonly radius: number },
): void {
  const [cx, cy, radius] = [spot.x * widthPx, spot.y * heightPx, spot.radius * widthPx];
  for (let y = Math.max(0, Math.floor(cy - radius)); y < Math.min(heightPx, cy + radius); y += 1) {
    for (let x = Math.max(0, Math.floor(cx - radius)); x < Math.min(widthPx, cx + radius); x += 1) {
      const away = Math.hypot(x + 0.5 - cx, y + 0.5 - cy) / radius;
      if (away >= 1) continue;
      const at = 4 * (y * widthPx + x);
      const [r, g, b] = [rgba[at]!, rgba[at + 1]!, rgba[at + 2]!];
      const other = (g + b) / 2;
      const redness = Math.min(1, Math.max(0, (r - 1.3 * other - 10) / 40));
      const share = redness * Math.min(1, 3 * (1 - away));
      rgba[at] = r + (other * 0.8 - r) * share;
      rgba[at + 1] = g + (g * 0.9 - g) * share;
      rgba[at + 2] = b + (b * 0.9 - b) * share;
    }
  }
}

function sharpen(rgba: Uint8ClampedArray, widthPx: number, heightPx: number, amount: number): void {
  const luma = lumaOf(rgba);
  const soft = luma.slice();
  blur(soft, widthPx, heightPx, Math.max(0.4, widthPx / 1300));
  for (let at = 0; at < luma.length; at += 1) {
    const by = 255 * 1.6 * amount * (luma[at]! - soft[at]!);
    for (let channel = 0; channel < 3; channel += 1) rgba[4 * at + channel] = rgba[4 * at + channel]! + by;
  }
}
