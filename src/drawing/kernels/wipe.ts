// One frame laid over another by a map of when each place changes over; and light, which is a map of tones.

/**
 * to = a + (b − a) · share, where share goes from 0 to 1 as `moment` passes from the map's value to `border` beyond it.
 * Map values are 0…32767; `moment` runs from 0 to 32767 + border. All widths are run through sixteen at a time.
 */
export function mixByMap(to: usize, a: usize, b: usize, stride: i32, map: usize, mapStride: i32, widthPx: i32, heightPx: i32, moment: i32, border: i32): void {
  // The border is brought to 16384…32767 by doubling, then to 32767 by a factor of 1…2: its full width is then a full change.
  let doublings = 0;
  while ((border << (doublings + 1)) <= 32767) doublings += 1;
  const ratio: i32 = (32767 << 14) / (border << doublings) - 16384;
  const factor = i16x8.splat(<i16>ratio);
  const limit = i16x8.splat(<i16>border);
  const half = i16x8.splat(64);
  const zero = i16x8.splat(0);
  // The moment may pass 32767 by the border: it is taken in two steps that both fit.
  const first = i16x8.splat(<i16>min(32767, moment));
  const rest = i16x8.splat(<i16>max(0, moment - 32767));
  for (let row = 0; row < heightPx; row += 1) {
    for (let x = 0; x < widthPx; x += 16) {
      const at = row * stride + x;
      const when = map + 2 * (row * mapStride + x);
      const lo = share(v128.load(when), first, rest, limit, zero, factor, doublings);
      const hi = share(v128.load(when, 16), first, rest, limit, zero, factor, doublings);
      const va = v128.load(a + at), vb = v128.load(b + at);
      v128.store(to + at, i8x16.narrow_i16x8_u(
        blended(v128.extend_low<u8>(va), v128.extend_low<u8>(vb), lo, half),
        blended(v128.extend_high<u8>(va), v128.extend_high<u8>(vb), hi, half),
      ));
    }
  }
}

// @ts-ignore: decorator
@inline
function share(map: v128, first: v128, rest: v128, limit: v128, zero: v128, factor: v128, doublings: i32): v128 {
  const past = i16x8.min_s(limit, i16x8.max_s(zero, i16x8.add_sat_s(i16x8.sub(first, map), rest)));
  const scaled = i16x8.shl(past, doublings);
  // factor is Q14 of 0…1: doubled it would overflow, so the product is.
  const more = i16x8.q15mulr_sat_s(scaled, factor);
  return i16x8.add_sat_s(scaled, i16x8.add_sat_s(more, more));
}

// @ts-ignore: decorator
@inline
function blended(a: v128, b: v128, weight: v128, half: v128): v128 {
  const a7 = i16x8.shl(a, 7);
  const step = i16x8.q15mulr_sat_s(i16x8.sub(i16x8.shl(b, 7), a7), weight);
  return i16x8.shr_s(i16x8.add(i16x8.add(a7, step), half), 7);
}

/**
 * Tones and colours of a picture, plane to plane. Luma goes through `curve` (256 bytes); chroma is scaled by how bright the place is and how colourful, then shifted.
 *
 * `tables`: 256 × u8 curve; from 256: 256 × i16 gain by luma, Q12; from 768: 256 × i16 gain by colourfulness, Q12 (index: the larger distance of U or V from 128, doubled);
 * from 1280: 256 × i16 shift of U by luma, × 16; from 1792: the same of V; from 2304: 9 × i16 matrix in Q12 (rows Y, U, V), taken before all else.
 */
export function lightPlanes(
  y: usize, u: usize, v: usize, yStride: i32, cStride: i32, toY: usize, toU: usize, toV: usize, toYStride: i32, toCStride: i32,
  widthPx: i32, heightPx: i32, tables: usize,
): void {
  const m = tables + 2304;
  const m0 = <i32>load<i16>(m), m1 = <i32>load<i16>(m, 2), m2 = <i32>load<i16>(m, 4);
  const m3 = <i32>load<i16>(m, 6), m4 = <i32>load<i16>(m, 8), m5 = <i32>load<i16>(m, 10);
  const m6 = <i32>load<i16>(m, 12), m7 = <i32>load<i16>(m, 14), m8 = <i32>load<i16>(m, 16);
  const plainLuma = m0 == 4096 && m1 == 0 && m2 == 0;
  const cWidth = (widthPx + 1) >> 1, cHeight = (heightPx + 1) >> 1;
  // Two rows of luma and their row of chroma at a time, chroma kept aside meanwhile: both are needed as they were, also where a picture is lit in place.
  for (let row = 0; row < cHeight; row += 1) {
    const uRow = u + row * cStride, vRow = v + row * cStride;
    const upper = y + 2 * row * yStride, lower = 2 * row + 1 < heightPx ? upper + yStride : upper;
    for (let x = 0; x < cWidth; x += 1) {
      const luma0 = ((<i32>load<u8>(upper + 2 * x) + <i32>load<u8>(lower + 2 * x) + 1) >> 1) - 16;
      const cu0 = <i32>load<u8>(uRow + x) - 128, cv0 = <i32>load<u8>(vRow + x) - 128;
      const luma = max(0, min(255, 16 + ((luma0 * m0 + cu0 * m1 + cv0 * m2 + 2048) >> 12)));
      const cu = (luma0 * m3 + cu0 * m4 + cv0 * m5) >> 4;
      const cv = (luma0 * m6 + cu0 * m7 + cv0 * m8) >> 4;
      // × 256 from here on.
      const colourful = min(255, max(abs(cu), abs(cv)) >> 7);
      const gain = min(24576, (<i32>load<i16>(tables + 256 + 2 * luma) * <i32>load<i16>(tables + 768 + 2 * colourful)) >> 12);
      const outU = ((cu * gain) >> 12) + (<i32>load<i16>(tables + 1280 + 2 * luma) << 4);
      const outV = ((cv * gain) >> 12) + (<i32>load<i16>(tables + 1792 + 2 * luma) << 4);
      store<u8>(LIT_U + x, <u8>max(0, min(255, 128 + ((outU + 128) >> 8))));
      store<u8>(LIT_V + x, <u8>max(0, min(255, 128 + ((outV + 128) >> 8))));
    }
    for (let part = 0; part < 2 && 2 * row + part < heightPx; part += 1) {
      const line = upper + part * yStride, to = toY + (2 * row + part) * toYStride;
      if (plainLuma) {
        for (let x = 0; x < widthPx; x += 1) store<u8>(to + x, load<u8>(tables + <usize>load<u8>(line + x)));
      } else {
        for (let x = 0; x < widthPx; x += 1) {
          const cu = <i32>load<u8>(uRow + (x >> 1)) - 128, cv = <i32>load<u8>(vRow + (x >> 1)) - 128;
          const luma = 16 + ((((<i32>load<u8>(line + x) - 16) * m0 + cu * m1 + cv * m2) + 2048) >> 12);
          store<u8>(to + x, load<u8>(tables + <usize>max(0, min(255, luma))));
        }
      }
    }
    memory.copy(toU + row * toCStride, LIT_U, cWidth);
    memory.copy(toV + row * toCStride, LIT_V, cWidth);
  }
}

const LIT_U: usize = memory.data(4128, 16);
const LIT_V: usize = memory.data(4128, 16);
