// One row of samples at a time: laying it over another, with opacity or with the transparency of its own.

/** Widest plane the scratch rows take. */
export const WIDEST_PX: i32 = 8192;

/** Full opacity in Q15; 32767/32768 rounds back to the exact value for every 8-bit sample. */
export const FULL: i32 = 32767;

/** to = a + (b − a) · share, 8-bit samples, share in Q15. */
export function mixRow(to: usize, a: usize, b: usize, count: i32, share: i32): void {
  const weight = i16x8.splat(<i16>share);
  const half = i16x8.splat(64);
  let index: i32 = 0;
  for (; index <= count - 16; index += 16) {
    const va = v128.load(a + index);
    const vb = v128.load(b + index);
    v128.store(to + index, i8x16.narrow_i16x8_u(
      mixed(v128.extend_low<u8>(va), v128.extend_low<u8>(vb), weight, half),
      mixed(v128.extend_high<u8>(va), v128.extend_high<u8>(vb), weight, half),
    ));
  }
  for (; index < count; index += 1) store<u8>(to + index, mixSample(load<u8>(a + index), load<u8>(b + index), share));
}

// @ts-ignore: decorator
@inline
function mixed(a: v128, b: v128, weight: v128, half: v128): v128 {
  const a7 = i16x8.shl(a, 7);
  const step = i16x8.q15mulr_sat_s(i16x8.sub(i16x8.shl(b, 7), a7), weight);
  return i16x8.shr_s(i16x8.add(i16x8.add(a7, step), half), 7);
}

/** The scalar twin of `mixed`; gives the very same value. */
// @ts-ignore: decorator
@inline
export function mixSample(a: i32, b: i32, share: i32): u8 {
  const step = (((b - a) << 7) * share + 0x4000) >> 15;
  return <u8>(((a << 7) + step + 64) >> 7);
}

/** to = picture · opacity + to · (1 − alpha · opacity); the picture's samples are premultiplied by its alpha. */
export function coverRow(to: usize, picture: usize, alpha: usize, count: i32, opacity: i32): void {
  const weight = i16x8.splat(<i16>opacity);
  const half = i16x8.splat(64);
  const round = i16x8.splat(128);
  const full = i16x8.splat(255);
  let index: i32 = 0;
  for (; index <= count - 16; index += 16) {
    const va = v128.load(alpha + index);
    if (!v128.any_true(va)) continue;
    const vp = v128.load(picture + index);
    if (opacity >= FULL && i8x16.all_true(i8x16.eq(va, i8x16.splat(-1)))) {
      v128.store(to + index, vp);
      continue;
    }
    const vt = v128.load(to + index);
    v128.store(to + index, i8x16.narrow_i16x8_u(
      covered(v128.extend_low<u8>(vt), v128.extend_low<u8>(vp), v128.extend_low<u8>(va), weight, half, round, full),
      covered(v128.extend_high<u8>(vt), v128.extend_high<u8>(vp), v128.extend_high<u8>(va), weight, half, round, full),
    ));
  }
  for (; index < count; index += 1) {
    const a = <i32>mixSample(0, load<u8>(alpha + index), opacity);
    const p = <i32>mixSample(0, load<u8>(picture + index), opacity);
    const rest = <i32>load<u8>(to + index) * (255 - a) + 128;
    store<u8>(to + index, <u8>min(255, p + ((rest + (rest >> 8)) >> 8)));
  }
}

// @ts-ignore: decorator
@inline
function covered(to: v128, picture: v128, alpha: v128, weight: v128, half: v128, round: v128, full: v128): v128 {
  const p = i16x8.shr_s(i16x8.add(i16x8.q15mulr_sat_s(i16x8.shl(picture, 7), weight), half), 7);
  const a = i16x8.shr_s(i16x8.add(i16x8.q15mulr_sat_s(i16x8.shl(alpha, 7), weight), half), 7);
  const rest = i16x8.add(i16x8.mul(to, i16x8.sub(full, a)), round);
  return i16x8.add(p, i16x8.shr_u(i16x8.add(rest, i16x8.shr_u(rest, 8)), 8));
}

/** Lays a picture with transparency, already at its final size, over a plane. Strides in bytes. */
export function coverPlane(to: usize, toStride: i32, picture: usize, alpha: usize, pictureStride: i32, widthPx: i32, heightPx: i32, opacity: i32): void {
  for (let row: i32 = 0; row < heightPx; row += 1) {
    coverRow(to + row * toStride, picture + row * pictureStride, alpha + row * pictureStride, widthPx, opacity);
  }
}
