// A picture plane drawn under any turn: bilinear, one sample at a time, with antialiased edges.
import { mixSample } from './rows';

/**
 * Like `drawUpright`, for any affine placement: target sample (x, y) shows source sample (ax·x + bx·y + cx, ay·x + by·y + cy).
 * `scale` is source samples per target sample; it sets the width of the antialiased edge.
 */
export function drawTurned(
  source: usize, alpha: usize, stride: i32, sourceWidth: i32, sourceHeight: i32,
  target: usize, targetStride: i32, targetWidth: i32, targetHeight: i32,
  ax: f64, bx: f64, cx: f64, ay: f64, by: f64, cy: f64, scale: f64, opacity: i32,
): void {
  const w = <f64>sourceWidth;
  const h = <f64>sourceHeight;
  for (let y = 0; y < targetHeight; y += 1) {
    const row = target + y * targetStride;
    for (let x = 0; x < targetWidth; x += 1) {
      const u = ax * <f64>x + bx * <f64>y + cx;
      const v = ay * <f64>x + by * <f64>y + cy;
      // Distance to the nearest edge in target samples; half a sample on either side of it the coverage goes from 0 to 1.
      const across = Math.min(u + 0.5, w - 0.5 - u) / scale + 0.5;
      const down = Math.min(v + 0.5, h - 0.5 - v) / scale + 0.5;
      if (across <= 0 || down <= 0) continue;
      const share = <i32>Math.round(Math.min(1, across) * Math.min(1, down) * <f64>opacity);
      const p = sampleAt(source, stride, sourceWidth, sourceHeight, u, v);
      const to = <i32>load<u8>(row + x);
      if (alpha == 0) {
        store<u8>(row + x, mixSample(to, p, share));
      } else {
        const a = <i32>mixSample(0, sampleAt(alpha, stride, sourceWidth, sourceHeight, u, v), share);
        const rest = to * (255 - a) + 128;
        store<u8>(row + x, <u8>min(255, <i32>mixSample(0, p, share) + ((rest + (rest >> 8)) >> 8)));
      }
    }
  }
}

// @ts-ignore: decorator
@inline
function sampleAt(plane: usize, stride: i32, width: i32, height: i32, u: f64, v: f64): i32 {
  const x = Math.floor(u);
  const y = Math.floor(v);
  const right = <i32>((u - x) * 128 + 0.5);
  const lower = <i32>((v - y) * 128 + 0.5);
  const x0 = max(0, min(width - 1, <i32>x));
  const x1 = max(0, min(width - 1, <i32>x + 1));
  const top = plane + max(0, min(height - 1, <i32>y)) * stride;
  const bottom = plane + max(0, min(height - 1, <i32>y + 1)) * stride;
  const upper = <i32>load<u8>(top + x0) * (128 - right) + <i32>load<u8>(top + x1) * right;
  const under = <i32>load<u8>(bottom + x0) * (128 - right) + <i32>load<u8>(bottom + x1) * right;
  return (upper * (128 - lower) + under * lower + 8192) >> 14;
}

