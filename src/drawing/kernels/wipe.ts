// One frame laid over another by a map of when each place changes over.

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
