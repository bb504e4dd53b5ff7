// A picture's planes as one plane of Y, U, V and transparency side by side, chroma brought to full size: what the quad sampler reads in one load.

/** Samples kept around the picture, repeated from its edge. */
export const PACK_SIDE: i32 = 8;
export const PACK_ROWS: i32 = 2;

/**
 * Fills `packed` (at sample (0, 0), four bytes a sample, `packedStride` in bytes) with the picture and its surroundings. The planes are padded by at least
 * `PACK_SIDE` + 8 samples and `PACK_ROWS` + 2 rows; `alpha` is 0 for an opaque picture. Chroma of a transparent one is weighed by transparency of half size: what the two
 * differ by is made up for in neutral, so that white and grey keep no coloured fringe.
 */
export function packPlanes(y: usize, u: usize, v: usize, alpha: usize, halfAlpha: usize, yStride: i32, cStride: i32, widthPx: i32, heightPx: i32, packed: usize, packedStride: i32): void {
  const opaque = i8x16.splat(-1);
  for (let row = -PACK_ROWS; row < heightPx + PACK_ROWS; row += 1) {
    const cRow = row >> 1;
    // Chroma lies between two rows of luma: three parts of the nearer, one of the farther.
    const near = cRow * cStride;
    const far = ((row & 1) == 0 ? cRow - 1 : cRow + 1) * cStride;
    const to = packed + row * packedStride;
    for (let x = -PACK_SIDE; x < widthPx + PACK_SIDE; x += 16) {
      const luma = v128.load(y + row * yStride + x);
      const a = alpha == 0 ? opaque : v128.load(alpha + row * yStride + x);
      let uu = between(u + near + (x >> 1), u + far + (x >> 1));
      let vv = between(v + near + (x >> 1), v + far + (x >> 1));
      if (alpha != 0) {
        const weight = between(halfAlpha + near + (x >> 1), halfAlpha + far + (x >> 1));
        const lo = neutral(i16x8.sub(v128.extend_low<u8>(a), v128.extend_low<u8>(weight)));
        const hi = neutral(i16x8.sub(v128.extend_high<u8>(a), v128.extend_high<u8>(weight)));
        uu = i8x16.narrow_i16x8_u(i16x8.add(v128.extend_low<u8>(uu), lo), i16x8.add(v128.extend_high<u8>(uu), hi));
        vv = i8x16.narrow_i16x8_u(i16x8.add(v128.extend_low<u8>(vv), lo), i16x8.add(v128.extend_high<u8>(vv), hi));
      }
      const yu0 = v128.shuffle<u8>(luma, uu, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23);
      const yu1 = v128.shuffle<u8>(luma, uu, 8, 24, 9, 25, 10, 26, 11, 27, 12, 28, 13, 29, 14, 30, 15, 31);
      const va0 = v128.shuffle<u8>(vv, a, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23);
      const va1 = v128.shuffle<u8>(vv, a, 8, 24, 9, 25, 10, 26, 11, 27, 12, 28, 13, 29, 14, 30, 15, 31);
      v128.store(to + 4 * x, v128.shuffle<u16>(yu0, va0, 0, 8, 1, 9, 2, 10, 3, 11));
      v128.store(to + 4 * x, v128.shuffle<u16>(yu0, va0, 4, 12, 5, 13, 6, 14, 7, 15), 16);
      v128.store(to + 4 * x, v128.shuffle<u16>(yu1, va1, 0, 8, 1, 9, 2, 10, 3, 11), 32);
      v128.store(to + 4 * x, v128.shuffle<u16>(yu1, va1, 4, 12, 5, 13, 6, 14, 7, 15), 48);
    }
  }
}

/** 128/255 of a difference of transparency. */
// @ts-ignore: decorator
@inline
function neutral(difference: v128): v128 {
  return i16x8.q15mulr_sat_s(i16x8.shl(difference, 6), i16x8.splat(257));
}

/** Sixteen samples from eight and their right neighbour: even ones as they are, odd ones halfway. */
// @ts-ignore: decorator
@inline
function between(near: usize, far: usize): v128 {
  const here = mixed(v128.load64_zero(near), v128.load64_zero(far));
  const next = mixed(v128.load64_zero(near, 1), v128.load64_zero(far, 1));
  return v128.shuffle<u8>(here, i8x16.avgr_u(here, next), 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23);
}

// @ts-ignore: decorator
@inline
function mixed(near: v128, far: v128): v128 {
  const n = v128.extend_low<u8>(near);
  const sum = i16x8.add(i16x8.add(i16x8.shl(n, 1), n), i16x8.add(v128.extend_low<u8>(far), i16x8.splat(2)));
  return i8x16.narrow_i16x8_u(i16x8.shr_u(sum, 2), i16x8.splat(0));
}
