// Planes weighed by other planes: masks, shadows, and what is laid through them. Widths are run through sixteen at a time; planes are padded for it.

/** to · mask / 255, rounded. */
export function scalePlane(to: usize, toStride: i32, mask: usize, maskStride: i32, widthPx: i32, heightPx: i32): void {
  for (let row = 0; row < heightPx; row += 1) {
    const line = to + row * toStride;
    const by = mask + row * maskStride;
    for (let x = 0; x < widthPx; x += 16) v128.store(line + x, product(v128.load(line + x), v128.load(by + x)));
  }
}

/** a · b / 255, rounded. */
// @ts-ignore: decorator
@inline
export function product(a: v128, b: v128): v128 {
  return i8x16.narrow_i16x8_u(
    by255(i16x8.mul(v128.extend_low<u8>(a), v128.extend_low<u8>(b))),
    by255(i16x8.mul(v128.extend_high<u8>(a), v128.extend_high<u8>(b))),
  );
}

// @ts-ignore: decorator
@inline
function by255(value: v128): v128 {
  const rounded = i16x8.add(value, i16x8.splat(128));
  return i16x8.shr_u(i16x8.add(rounded, i16x8.shr_u(rounded, 8)), 8);
}

/** 255 − value. */
export function invertPlane(plane: usize, stride: i32, widthPx: i32, heightPx: i32): void {
  for (let row = 0; row < heightPx; row += 1) {
    for (let x = 0; x < widthPx; x += 16) v128.store(plane + row * stride + x, v128.not(v128.load(plane + row * stride + x)));
  }
}

/** to = value · share, share in Q15. */
export function weakenPlane(to: usize, stride: i32, widthPx: i32, heightPx: i32, share: i32): void {
  const weight = i16x8.splat(<i16>share);
  const half = i16x8.splat(64);
  for (let row = 0; row < heightPx; row += 1) {
    for (let x = 0; x < widthPx; x += 16) {
      const value = v128.load(to + row * stride + x);
      v128.store(to + row * stride + x, i8x16.narrow_i16x8_u(
        i16x8.shr_u(i16x8.add(i16x8.q15mulr_sat_s(i16x8.shl(v128.extend_low<u8>(value), 7), weight), half), 7),
        i16x8.shr_u(i16x8.add(i16x8.q15mulr_sat_s(i16x8.shl(v128.extend_high<u8>(value), 7), weight), half), 7),
      ));
    }
  }
}

/** How bright a premultiplied cel is, 0…255 for black (or nothing) to white, from its luma (16…235 at full transparency) and transparency. */
export function brightnessOf(luma: usize, alpha: usize, stride: i32, to: usize, toStride: i32, widthPx: i32, heightPx: i32): void {
  for (let row = 0; row < heightPx; row += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const above = (<i32>load<u8>(luma + row * stride + x) * 255 - <i32>load<u8>(alpha + row * stride + x) * 16) * 298;
      store<u8>(to + row * toStride + x, <u8>max(0, min(255, (above + 32640) / 65280)));
    }
  }
}

/** A full-size plane at half size, at the places of chroma: even columns, two rows together. */
export function halvePlane(from: usize, stride: i32, to: usize, toStride: i32, widthPx: i32, heightPx: i32): void {
  for (let row = 0; row < heightPx; row += 1) {
    const upper = from + 2 * row * stride;
    for (let x = 0; x < widthPx; x += 8) {
      const mean = i8x16.avgr_u(v128.load(upper + 2 * x), v128.load(upper + stride + 2 * x));
      v128.store64_lane(to + row * toStride + x, v128.shuffle<u8>(mean, mean, 0, 2, 4, 6, 8, 10, 12, 14, 0, 2, 4, 6, 8, 10, 12, 14), 0);
    }
  }
}

/** One value laid through a plane of transparency: to + (value − to) · alpha / 255, rounded. */
export function tintPlane(to: usize, toStride: i32, value: i32, alpha: usize, alphaStride: i32, widthPx: i32, heightPx: i32): void {
  const colour = i8x16.splat(<i8>value);
  for (let row = 0; row < heightPx; row += 1) {
    for (let x = 0; x < widthPx; x += 16) {
      const a = v128.load(alpha + row * alphaStride + x);
      if (!v128.any_true(a)) continue;
      const at = to + row * toStride + x;
      const t = v128.load(at);
      v128.store(at, i8x16.narrow_i16x8_u(
        by255(i16x8.add(i16x8.mul(v128.extend_low<u8>(t), i16x8.sub(i16x8.splat(255), v128.extend_low<u8>(a))), i16x8.mul(v128.extend_low<u8>(colour), v128.extend_low<u8>(a)))),
        by255(i16x8.add(i16x8.mul(v128.extend_high<u8>(t), i16x8.sub(i16x8.splat(255), v128.extend_high<u8>(a))), i16x8.mul(v128.extend_high<u8>(colour), v128.extend_high<u8>(a)))),
      ));
    }
  }
}

export function fillPlane(to: usize, stride: i32, widthPx: i32, heightPx: i32, value: i32): void {
  for (let row = 0; row < heightPx; row += 1) memory.fill(to + row * stride, <u8>value, widthPx);
}
