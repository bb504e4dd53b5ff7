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
    const to = row * cStride;
    let x: i32 = 0;
    // The first and the last lie at the picture's border.
    if (cWidth > 0) chromaOf(upper, lower, 0, widthPx, u + to, v + to);
    for (x = 1; 2 * x + 16 < widthPx; x += 8) {
      const a = upper + 8 * x - 4, b = lower + 8 * x - 4;
      const p0 = pairSums(a, b), p1 = pairSums(a + 8, b + 8), p2 = pairSums(a + 16, b + 16), p3 = pairSums(a + 24, b + 24), p4 = pairSums(a + 32, b + 32);
      const p5 = pairSums(a + 40, b + 40), p6 = pairSums(a + 48, b + 48), p7 = pairSums(a + 56, b + 56), p8 = pairSums(a + 64, b + 64);
      const c0 = twoSums(p0, p1, p2), c1 = twoSums(p2, p3, p4), c2 = twoSums(p4, p5, p6), c3 = twoSums(p6, p7, p8);
      v128.store64_lane(u + to + x, ofSums(c0, c1, c2, c3, i16x8(-6596, -22189, 28784, 0, -6596, -22189, 28784, 0)), 0);
      v128.store64_lane(v + to + x, ofSums(c0, c1, c2, c3, i16x8(28784, -26145, -2639, 0, 28784, -26145, -2639, 0)), 0);
    }
    for (; x < cWidth; x += 1) chromaOf(upper, lower, x, widthPx, u + to, v + to);
  }
}

// Weights 1 2 1 across and 1 1 down, eight in all.

function chromaOf(upper: usize, lower: usize, x: i32, widthPx: i32, u: usize, v: usize): void {
  const l = 4 * max(0, 2 * x - 1);
  const m = 8 * x;
  const r = 4 * min(widthPx - 1, 2 * x + 1);
  const a0 = load<u32>(upper + l), a1 = load<u32>(upper + m), a2 = load<u32>(upper + r);
  const b0 = load<u32>(lower + l), b1 = load<u32>(lower + m), b2 = load<u32>(lower + r);
  // The even bytes and the odd byte are summed side by side in 32 bits.
  const rb = (a0 & 0xff00ff) + 2 * (a1 & 0xff00ff) + (a2 & 0xff00ff) + (b0 & 0xff00ff) + 2 * (b1 & 0xff00ff) + (b2 & 0xff00ff);
  const g = ((a0 >> 8) & 255) + 2 * ((a1 >> 8) & 255) + ((a2 >> 8) & 255) + ((b0 >> 8) & 255) + 2 * ((b1 >> 8) & 255) + ((b2 >> 8) & 255);
  const red = <i32>(rb & 0xffff), green = <i32>g, blue = <i32>(rb >> 16);
  store<u8>(u + x, <u8>((-6596 * red - 22189 * green + 28784 * blue + (128 << 19) + (1 << 18)) >> 19));
  store<u8>(v + x, <u8>((28784 * red - 26145 * green - 2639 * blue + (128 << 19) + (1 << 18)) >> 19));
}

/** Sums of two rows at two pixels, an odd one and the even one after it, in sixteen bits a channel. */
// @ts-ignore: decorator
@inline
function pairSums(upper: usize, lower: usize): v128 {
  return i16x8.add(v128.load8x8_u(upper), v128.load8x8_u(lower));
}

/** The weighed sums of two neighbouring chroma samples, from three pairs of pixels. */
// @ts-ignore: decorator
@inline
function twoSums(p0: v128, p1: v128, p2: v128): v128 {
  const before = v128.shuffle<u64>(p0, p1, 0, 2), at = v128.shuffle<u64>(p0, p1, 1, 3), after = v128.shuffle<u64>(p1, p2, 0, 2);
  return i16x8.add(i16x8.add(before, after), i16x8.shl(at, 1));
}

// @ts-ignore: decorator
@inline
function ofSums(c0: v128, c1: v128, c2: v128, c3: v128, weights: v128): v128 {
  const low = ofFourSums(c0, c1, weights), high = ofFourSums(c2, c3, weights);
  const both = i16x8.narrow_i32x4_s(low, high);
  return i8x16.narrow_i16x8_u(both, both);
}

// @ts-ignore: decorator
@inline
function ofFourSums(c0: v128, c1: v128, weights: v128): v128 {
  const a = i32x4.dot_i16x8_s(c0, weights), b = i32x4.dot_i16x8_s(c1, weights);
  const sum = i32x4.add(v128.shuffle<u32>(a, b, 0, 2, 4, 6), v128.shuffle<u32>(a, b, 1, 3, 5, 7));
  return i32x4.shr_s(i32x4.add(sum, i32x4.splat((128 << 19) + (1 << 18))), 19);
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

/** A finished frame into opaque RGBA. Strides are multiples of 16, the height is even; rows of `rgba` hold `widthPx` pixels, which is a multiple of 16. */
export function rgbaFromPlanes(y: usize, yStride: i32, u: usize, v: usize, cStride: i32, rgba: usize, widthPx: i32, heightPx: i32): void {
  const middle = v128.load(MIDDLE), redShare = v128.load(RED_OF_V), greenU = v128.load(GREEN_OF_U), greenV = v128.load(GREEN_OF_V), blueShare = v128.load(BLUE_OF_U);
  for (let row = 0; row < heightPx; row += 2) {
    const yRow = y + row * yStride;
    const uRow = u + (row >> 1) * cStride;
    const vRow = v + (row >> 1) * cStride;
    const to = rgba + row * widthPx * 4;
    for (let x = 0; x < widthPx; x += 16) {
      // What chroma adds is the same in both rows that share it.
      const uu = between(uRow + (x >> 1), x + 16 < widthPx);
      const vv = between(vRow + (x >> 1), x + 16 < widthPx);
      const u0 = i16x8.shl(i16x8.sub(v128.extend_low<u8>(uu), middle), 6);
      const u1 = i16x8.shl(i16x8.sub(v128.extend_high<u8>(uu), middle), 6);
      const v0 = i16x8.shl(i16x8.sub(v128.extend_low<u8>(vv), middle), 6);
      const v1 = i16x8.shl(i16x8.sub(v128.extend_high<u8>(vv), middle), 6);
      const r0 = i16x8.add(v0, i16x8.q15mulr_sat_s(v0, redShare)), r1 = i16x8.add(v1, i16x8.q15mulr_sat_s(v1, redShare));
      const g0 = i16x8.add(i16x8.q15mulr_sat_s(u0, greenU), i16x8.q15mulr_sat_s(v0, greenV)), g1 = i16x8.add(i16x8.q15mulr_sat_s(u1, greenU), i16x8.q15mulr_sat_s(v1, greenV));
      const b0 = i16x8.add(i16x8.add(u0, u0), i16x8.q15mulr_sat_s(u0, blueShare)), b1 = i16x8.add(i16x8.add(u1, u1), i16x8.q15mulr_sat_s(u1, blueShare));
      sixteenPixels(v128.load(yRow + x), r0, r1, g0, g1, b0, b1, to + 4 * x);
      sixteenPixels(v128.load(yRow + yStride + x), r0, r1, g0, g1, b0, b1, to + 4 * (widthPx + x));
    }
  }
}

// Values are × 64. 255/219 = 1.16438; 1.79274, 0.21325, 0.53291 and 2.11240 are BT.709's, for limited range. Read from memory before the loop: engines make
// constants that are written out anew at every turn of it.
const MIDDLE: usize = memory.data<i16>([128, 128, 128, 128, 128, 128, 128, 128], 16);
const RED_OF_V: usize = memory.data<i16>([25977, 25977, 25977, 25977, 25977, 25977, 25977, 25977], 16);
const GREEN_OF_U: usize = memory.data<i16>([6988, 6988, 6988, 6988, 6988, 6988, 6988, 6988], 16);
const GREEN_OF_V: usize = memory.data<i16>([17463, 17463, 17463, 17463, 17463, 17463, 17463, 17463], 16);
const BLUE_OF_U: usize = memory.data<i16>([3683, 3683, 3683, 3683, 3683, 3683, 3683, 3683], 16);

/** @param r0 what chroma adds to red in the first eight pixels, and so on; green's is taken off */
// @ts-ignore: decorator
@inline
function sixteenPixels(luma16: v128, r0: v128, r1: v128, g0: v128, g1: v128, b0: v128, b1: v128, to: usize): void {
  const l0 = brightness(v128.extend_low<u8>(luma16)), l1 = brightness(v128.extend_high<u8>(luma16));
  const r = i8x16.narrow_i16x8_u(i16x8.shr_s(i16x8.add_sat_s(l0, r0), 6), i16x8.shr_s(i16x8.add_sat_s(l1, r1), 6));
  const g = i8x16.narrow_i16x8_u(i16x8.shr_s(i16x8.sub(l0, g0), 6), i16x8.shr_s(i16x8.sub(l1, g1), 6));
  const b = i8x16.narrow_i16x8_u(i16x8.shr_s(i16x8.add_sat_s(l0, b0), 6), i16x8.shr_s(i16x8.add_sat_s(l1, b1), 6));
  const opaque = i8x16.splat(-1);
  const rg0 = v128.shuffle<u8>(r, g, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23);
  const rg1 = v128.shuffle<u8>(r, g, 8, 24, 9, 25, 10, 26, 11, 27, 12, 28, 13, 29, 14, 30, 15, 31);
  const ba0 = v128.shuffle<u8>(b, opaque, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23);
  const ba1 = v128.shuffle<u8>(b, opaque, 8, 24, 9, 25, 10, 26, 11, 27, 12, 28, 13, 29, 14, 30, 15, 31);
  v128.store(to, v128.shuffle<u16>(rg0, ba0, 0, 8, 1, 9, 2, 10, 3, 11));
  v128.store(to, v128.shuffle<u16>(rg0, ba0, 4, 12, 5, 13, 6, 14, 7, 15), 16);
  v128.store(to, v128.shuffle<u16>(rg1, ba1, 0, 8, 1, 9, 2, 10, 3, 11), 32);
  v128.store(to, v128.shuffle<u16>(rg1, ba1, 4, 12, 5, 13, 6, 14, 7, 15), 48);
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

/** Limited-range luma as full-range brightness × 64, with half a step of the shift that follows. */
// @ts-ignore: decorator
@inline
function brightness(luma: v128): v128 {
  const y = i16x8.shl(i16x8.sub(luma, i16x8.splat(16)), 6);
  return i16x8.add(i16x8.add(y, i16x8.q15mulr_sat_s(y, i16x8.splat(5386))), i16x8.splat(32));
}
