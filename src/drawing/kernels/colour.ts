// Between RGBA (straight alpha, sRGB) and planes of Y'CbCr: ITU-R BT.709, limited range, 4:2:0 with chroma sited left
// (horizontally on the even luma samples, vertically between two rows), as H.264 assumes.

// @ts-ignore: decorator
@inline
function luma(r: i32, g: i32, b: i32): i32 {
  return (11966 * r + 40254 * g + 4064 * b + (16 << 16) + 32768) >> 16;
}

// @ts-ignore: decorator
@inline
function blueness(r: i32, g: i32, b: i32, scale: i32): i32 {
  return (-6596 * r - 22189 * g + 28784 * b) / scale;
}

// @ts-ignore: decorator
@inline
function redness(r: i32, g: i32, b: i32, scale: i32): i32 {
  return (28784 * r - 26145 * g - 2639 * b) / scale;
}

/** `luma` of four pixels; its weights are even, so that halved they fit 16 bits and give the very same values. */
// @ts-ignore: decorator
@inline
function lumaOfFour(at: usize): v128 {
  const pixels = v128.load(at);
  const weights = i16x8(5983, 20127, 2032, 0, 5983, 20127, 2032, 0);
  const low = i32x4.dot_i16x8_s(v128.extend_low<u8>(pixels), weights);
  const high = i32x4.dot_i16x8_s(v128.extend_high<u8>(pixels), weights);
  const sum = i32x4.add(v128.shuffle<u32>(low, high, 0, 2, 4, 6), v128.shuffle<u32>(low, high, 1, 3, 5, 7));
  return i32x4.shr_s(i32x4.add(sum, i32x4.splat((16 << 15) + 16384)), 15);
}

/** An opaque picture into planes; strides in samples, all pointers at sample (0, 0). */
export function planesFromRgba(rgba: usize, widthPx: i32, heightPx: i32, y: usize, yStride: i32, u: usize, v: usize, cStride: i32): void {
  for (let row = 0; row < heightPx; row += 1) {
    const from = rgba + row * widthPx * 4;
    const to = y + row * yStride;
    let x: i32 = 0;
    for (; x <= widthPx - 16; x += 16) {
      const at = from + 4 * x;
      v128.store(to + x, i8x16.narrow_i16x8_u(
        i16x8.narrow_i32x4_s(lumaOfFour(at), lumaOfFour(at + 16)),
        i16x8.narrow_i32x4_s(lumaOfFour(at + 32), lumaOfFour(at + 48)),
      ));
    }
    for (; x < widthPx; x += 1) {
      const p = load<u32>(from + 4 * x);
      store<u8>(to + x, <u8>luma(p & 255, (p >> 8) & 255, (p >> 16) & 255));
    }
  }
  const cWidth = (widthPx + 1) >> 1;
  const cHeight = (heightPx + 1) >> 1;
  for (let row = 0; row < cHeight; row += 1) {
    const upper = rgba + 2 * row * widthPx * 4;
    const lower = 2 * row + 1 < heightPx ? upper + widthPx * 4 : upper;
    for (let x = 0; x < cWidth; x += 1) {
      const l = 4 * max(0, 2 * x - 1);
      const m = 8 * x;
      const r = 4 * min(widthPx - 1, 2 * x + 1);
      const a0 = load<u32>(upper + l), a1 = load<u32>(upper + m), a2 = load<u32>(upper + r);
      const b0 = load<u32>(lower + l), b1 = load<u32>(lower + m), b2 = load<u32>(lower + r);
      // Weights 1 2 1 across and 1 1 down, eight in all; the even bytes and the odd byte are summed side by side in 32 bits.
      const rb = (a0 & 0xff00ff) + 2 * (a1 & 0xff00ff) + (a2 & 0xff00ff) + (b0 & 0xff00ff) + 2 * (b1 & 0xff00ff) + (b2 & 0xff00ff);
      const g = ((a0 >> 8) & 255) + 2 * ((a1 >> 8) & 255) + ((a2 >> 8) & 255) + ((b0 >> 8) & 255) + 2 * ((b1 >> 8) & 255) + ((b2 >> 8) & 255);
      const red = <i32>(rb & 0xffff), green = <i32>g, blue = <i32>(rb >> 16);
      const at = row * cStride + x;
      store<u8>(u + at, <u8>((-6596 * red - 22189 * green + 28784 * blue + (128 << 19) + (1 << 18)) >> 19));
      store<u8>(v + at, <u8>((28784 * red - 26145 * green - 2639 * blue + (128 << 19) + (1 << 18)) >> 19));
    }
  }
}

/** A picture with transparency into premultiplied planes, with its alpha at full and at half size. */
export function planesFromTransparentRgba(
  rgba: usize, widthPx: i32, heightPx: i32,
  y: usize, alpha: usize, yStride: i32, u: usize, v: usize, halfAlpha: usize, cStride: i32,
): void {
  for (let row = 0; row < heightPx; row += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const p = load<u32>(rgba + 4 * (row * widthPx + x));
      const a = <i32>(p >> 24);
      store<u8>(alpha + row * yStride + x, <u8>a);
      store<u8>(y + row * yStride + x, <u8>((luma(p & 255, (p >> 8) & 255, (p >> 16) & 255) * a + 127) / 255));
    }
  }
  const cWidth = (widthPx + 1) >> 1;
  const cHeight = (heightPx + 1) >> 1;
  for (let row = 0; row < cHeight; row += 1) {
    for (let x = 0; x < cWidth; x += 1) {
      let sumA: i32 = 0, sumU: i32 = 0, sumV: i32 = 0;
      for (let dy = 0; dy < 2; dy += 1) {
        const line = rgba + 4 * min(heightPx - 1, 2 * row + dy) * widthPx;
        for (let dx = -1; dx < 2; dx += 1) {
          const p = load<u32>(line + 4 * max(0, min(widthPx - 1, 2 * x + dx)));
          const a = <i32>(p >> 24) * (dx == 0 ? 2 : 1);
          sumA += a;
          sumU += a * (1024 + blueness(p & 255, (p >> 8) & 255, (p >> 16) & 255, 8192));
          sumV += a * (1024 + redness(p & 255, (p >> 8) & 255, (p >> 16) & 255, 8192));
        }
      }
      const at = row * cStride + x;
      store<u8>(halfAlpha + at, <u8>((sumA + 4) >> 3));
      // Eight weights, eight steps a level, 255 for full alpha.
      store<u8>(u + at, <u8>min(255, (sumU + 8160) / 16320));
      store<u8>(v + at, <u8>min(255, (sumV + 8160) / 16320));
    }
  }
}

/** Repeats a plane's edge samples into its padding. */
export function padPlane(plane: usize, stride: i32, widthPx: i32, heightPx: i32, left: i32, right: i32, rows: i32): void {
  for (let row = 0; row < heightPx; row += 1) {
    const line = plane + row * stride;
    memory.fill(line - left, load<u8>(line), left);
    memory.fill(line + widthPx, load<u8>(line + widthPx - 1), right);
  }
  for (let row = 1; row <= rows; row += 1) {
    memory.copy(plane - left - row * stride, plane - left, left + widthPx + right);
    memory.copy(plane - left + (heightPx - 1 + row) * stride, plane - left + (heightPx - 1) * stride, left + widthPx + right);
  }
}

/** A finished frame into opaque RGBA. Strides are multiples of 16; rows of `rgba` hold `widthPx` pixels, which is a multiple of 16. */
export function rgbaFromPlanes(y: usize, yStride: i32, u: usize, v: usize, cStride: i32, rgba: usize, widthPx: i32, heightPx: i32): void {
  const sixteen = i16x8.splat(16);
  const middle = i16x8.splat(128);
  const half = i16x8.splat(32);
  const opaque = i8x16.splat(-1);
  for (let row = 0; row < heightPx; row += 1) {
    const yRow = y + row * yStride;
    const uRow = u + (row >> 1) * cStride;
    const vRow = v + (row >> 1) * cStride;
    const to = rgba + row * widthPx * 4;
    for (let x = 0; x < widthPx; x += 16) {
      const luma16 = v128.load(yRow + x);
      const uu = between(uRow + (x >> 1), x + 16 < widthPx);
      const vv = between(vRow + (x >> 1), x + 16 < widthPx);
      const y0 = i16x8.shl(i16x8.sub(v128.extend_low<u8>(luma16), sixteen), 6);
      const y1 = i16x8.shl(i16x8.sub(v128.extend_high<u8>(luma16), sixteen), 6);
      const u0 = i16x8.shl(i16x8.sub(v128.extend_low<u8>(uu), middle), 6);
      const u1 = i16x8.shl(i16x8.sub(v128.extend_high<u8>(uu), middle), 6);
      const v0 = i16x8.shl(i16x8.sub(v128.extend_low<u8>(vv), middle), 6);
      const v1 = i16x8.shl(i16x8.sub(v128.extend_high<u8>(vv), middle), 6);
      const b0 = brightness(y0, half), b1 = brightness(y1, half);
      const r = i8x16.narrow_i16x8_u(redOf(b0, v0), redOf(b1, v1));
      const g = i8x16.narrow_i16x8_u(greenOf(b0, u0, v0), greenOf(b1, u1, v1));
      const b = i8x16.narrow_i16x8_u(blueOf(b0, u0), blueOf(b1, u1));
      const rg0 = v128.shuffle<u8>(r, g, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23);
      const rg1 = v128.shuffle<u8>(r, g, 8, 24, 9, 25, 10, 26, 11, 27, 12, 28, 13, 29, 14, 30, 15, 31);
      const ba0 = v128.shuffle<u8>(b, opaque, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23);
      const ba1 = v128.shuffle<u8>(b, opaque, 8, 24, 9, 25, 10, 26, 11, 27, 12, 28, 13, 29, 14, 30, 15, 31);
      v128.store(to + 4 * x, v128.shuffle<u16>(rg0, ba0, 0, 8, 1, 9, 2, 10, 3, 11));
      v128.store(to + 4 * x, v128.shuffle<u16>(rg0, ba0, 4, 12, 5, 13, 6, 14, 7, 15), 16);
      v128.store(to + 4 * x, v128.shuffle<u16>(rg1, ba1, 0, 8, 1, 9, 2, 10, 3, 11), 32);
      v128.store(to + 4 * x, v128.shuffle<u16>(rg1, ba1, 4, 12, 5, 13, 6, 14, 7, 15), 48);
    }
  }
}

/** Eight chroma samples spread to sixteen: even ones as they are, odd ones halfway to the next. */
// @ts-ignore: decorator
@inline
function between(at: usize, more: bool): v128 {
  const here = v128.load64_zero(at);
  const last = load<u8>(at, 7);
  const next = more ? v128.load64_zero(at, 1) : v128.replace_lane<u8>(v128.load64_zero(at, 1), 7, last);
  return v128.shuffle<u8>(here, i8x16.avgr_u(here, next), 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23);
}

// Values are × 64. 255/219 = 1.16438; 1.79274, 0.21325, 0.53291 and 2.11240 are BT.709's, for limited range.
// @ts-ignore: decorator
@inline
function brightness(y: v128, half: v128): v128 {
  return i16x8.add(i16x8.add(y, i16x8.q15mulr_sat_s(y, i16x8.splat(5386))), half);
}
// @ts-ignore: decorator
@inline
function redOf(y: v128, v: v128): v128 {
  return i16x8.shr_s(i16x8.add_sat_s(y, i16x8.add(v, i16x8.q15mulr_sat_s(v, i16x8.splat(25977)))), 6);
}
// @ts-ignore: decorator
@inline
function greenOf(y: v128, u: v128, v: v128): v128 {
  return i16x8.shr_s(i16x8.sub(y, i16x8.add(i16x8.q15mulr_sat_s(u, i16x8.splat(6988)), i16x8.q15mulr_sat_s(v, i16x8.splat(17463)))), 6);
}
// @ts-ignore: decorator
@inline
function blueOf(y: v128, u: v128): v128 {
  return i16x8.shr_s(i16x8.add_sat_s(y, i16x8.add(i16x8.add(u, u), i16x8.q15mulr_sat_s(u, i16x8.splat(3683)))), 6);
}
