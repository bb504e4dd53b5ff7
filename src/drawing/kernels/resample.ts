// A picture plane drawn upright at any size and position between samples: rows first, then columns.
//
// A row is resampled eight samples at a time: sixteen neighbouring bytes are loaded, the left and right neighbours of each of the eight positions are brought
// together by a swizzle and weighed with 7-bit weights (value × 128 in 16 bits). Two finished rows are kept and blended downwards with a 15-bit weight.
// Positions are 32.32 fixed point, so that every engine gives the same bytes.
import { coverRow, FULL, mixRow, mixSample } from './rows';

/** Per group of eight: 16 swizzle bytes, 16 16-bit weights, and the byte offset of its first neighbour. */
const SWIZZLES: usize = memory.data(16 * 1024, 16);
const WEIGHTS: usize = memory.data(32 * 1024, 16);
const OFFSETS: usize = memory.data(4 * 1024, 16);
/** The positions themselves, for pictures too large for a swizzle. */
const SINGLE_OFFSETS: usize = memory.data(4 * 8192, 16);

/** Two lanes (samples and transparency) of two rows of 16-bit intermediate values. */
const ROWS: usize = memory.data(4 * 2 * 8208, 16);
const ROW_BYTES: i32 = 2 * 8208;
const OUT: usize = memory.data(2 * 8208, 16);
const OUT_BYTES: i32 = 8208;

/** A plane of one white sample, for which any stride and step of 0 will do. */
const WHITE: usize = memory.data(32, 16);

export function whitePlane(): usize {
  memory.fill(WHITE, 255, 32);
  return WHITE + 8;
}

const ONE: f64 = 4294967296.0;

let columns: i32 = 0;
let swizzled: bool = false;
/** Which source row each of the four kept rows holds; −2147483648 for none. */
const held = new StaticArray<i32>(4);
const sources = new StaticArray<usize>(2);
let sourceStride: i32 = 0;
let lastRow: i32 = 0;

/**
 * Draws one plane, or with `alpha` a premultiplied plane by its transparency.
 *
 * `source` and `alpha` point at sample (0, 0) of planes padded by at least 16 samples on the left, 32 on the right; `alpha` is 0 for none.
 * Sample (x, y) of the target shows the source at (startX + x·stepX, startY + y·stepY). The picture covers left…right, top…bottom of the target, in samples whose
 * first spans 0…1; samples that it covers partly keep the rest of what was there. `opacity` is Q15.
 */
export function drawUpright(
  source: usize, alpha: usize, stride: i32, sourceWidth: i32, sourceHeight: i32,
  target: usize, targetStride: i32, targetWidth: i32, targetHeight: i32,
  startX: f64, stepX: f64, startY: f64, stepY: f64,
  left: f64, right: f64, top: f64, bottom: f64, opacity: i32,
): void {
  const x0 = max(0, <i32>Math.floor(left));
  const x1 = min(targetWidth, <i32>Math.ceil(right));
  const y0 = max(0, <i32>Math.floor(top));
  const y1 = min(targetHeight, <i32>Math.ceil(bottom));
  if (x0 >= x1 || y0 >= y1) return;
  columns = x1 - x0;
  const coverLeft = cover(x0, left, right);
  const coverRight = cover(x1 - 1, left, right);
  tabulate(<i64>((startX + <f64>x0 * stepX) * ONE), <i64>(stepX * ONE), sourceWidth);
  sources[0] = source;
  sources[1] = alpha;
  sourceStride = stride;
  lastRow = sourceHeight - 1;
  for (let slot = 0; slot < 4; slot += 1) held[slot] = i32.MIN_VALUE;

  const down = <i64>(stepY * ONE);
  let position = <i64>((startY + <f64>y0 * stepY) * ONE);
  for (let y = y0; y < y1; y += 1, position += down) {
    const to = target + y * targetStride + x0;
    const rowCover = <i32>Math.round(cover(y, top, bottom) * <f64>opacity);
    const firstBefore = <i32>load<u8>(to);
    const lastBefore = <i32>load<u8>(to + columns - 1);
    if (alpha == 0 && rowCover >= FULL) {
      blendRows(0, position, to, true);
    } else {
      blendRows(0, position, OUT, false);
      if (alpha == 0) mixRow(to, to, OUT, columns, rowCover);
      else {
        blendRows(1, position, OUT + OUT_BYTES, false);
        coverRow(to, OUT, OUT + OUT_BYTES, columns, rowCover);
      }
    }
    if (coverLeft < 1) store<u8>(to, mixSample(firstBefore, load<u8>(to), <i32>Math.round(coverLeft * <f64>FULL)));
    if (coverRight < 1 && columns > 1) store<u8>(to + columns - 1, mixSample(lastBefore, load<u8>(to + columns - 1), <i32>Math.round(coverRight * <f64>FULL)));
  }
}

/** Share of the sample that spans index…index + 1 which lies within from…to. */
// @ts-ignore: decorator
@inline
function cover(index: i32, from: f64, to: f64): f64 {
  return Math.max(0, Math.min(<f64>(index + 1), to) - Math.max(<f64>index, from));
}

/** Offsets, swizzles and weights for a row; they serve every row of the plane. */
function tabulate(start: i64, step: i64, sourceWidth: i32): void {
  const groups = (columns + 7) >> 3;
  // Eight positions and their right neighbours must lie within sixteen bytes.
  swizzled = ((step * 7) >> 32) <= 13 && step >= 0;
  const lastLeft: i64 = <i64>sourceWidth;
  let position = start;
  for (let group = 0; group < groups; group += 1) {
    const base = clampLeft(position >> 32, lastLeft);
    store<i32>(OFFSETS + 4 * group, <i32>base);
    for (let lane = 0; lane < 8; lane += 1, position += step) {
      const whole = clampLeft(position >> 32, lastLeft);
      const near = <i32>(whole - base);
      // The fraction is rounded to 1/128; a full 128 is a proper weight, since weights are 16-bit.
      const right = <i32>(((position & 0xffffffff) + (1 << 24)) >> 25);
      store<u8>(SWIZZLES + 16 * group + 2 * lane, <u8>near);
      store<u8>(SWIZZLES + 16 * group + 2 * lane + 1, <u8>(near + 1));
      store<i16>(WEIGHTS + 32 * group + 4 * lane, <i16>(128 - right));
      store<i16>(WEIGHTS + 32 * group + 4 * lane + 2, <i16>right);
      store<i32>(SINGLE_OFFSETS + 4 * (8 * group + lane), <i32>whole);
    }
  }
}

/** The padding holds 16 replicated samples on the left; positions outside read within it. */
// @ts-ignore: decorator
@inline
function clampLeft(whole: i64, sourceWidth: i64): i64 {
  return max<i64>(-2, min<i64>(whole, sourceWidth));
}

/** The row at a vertical position, finished to 8 bits. `direct` rows are a target's own, where nothing past the last sample may be touched. */
function blendRows(lane: i32, position: i64, to: usize, direct: bool): void {
  const upper = <i32>(position >> 32);
  const weight = i16x8.splat(<i16>((position & 0xffffffff) >> 17));
  const a = rowOf(lane, upper);
  const b = rowOf(lane, upper + 1);
  const half = i16x8.splat(64);
  let index: i32 = 0;
  const whole = direct ? columns - 16 : columns - 1;
  for (; index <= whole; index += 16) v128.store(to + index, blended(a + 2 * index, b + 2 * index, weight, half));
  if (direct && index < columns) {
    v128.store(OUT, blended(a + 2 * index, b + 2 * index, weight, half));
    memory.copy(to + index, OUT, columns - index);
  }
}

// @ts-ignore: decorator
@inline
function blended(a: usize, b: usize, weight: v128, half: v128): v128 {
  const a0 = v128.load(a);
  const a1 = v128.load(a, 16);
  const s0 = i16x8.q15mulr_sat_s(i16x8.sub(v128.load(b), a0), weight);
  const s1 = i16x8.q15mulr_sat_s(i16x8.sub(v128.load(b, 16), a1), weight);
  return i8x16.narrow_i16x8_u(
    i16x8.shr_s(i16x8.add(i16x8.add(a0, s0), half), 7),
    i16x8.shr_s(i16x8.add(i16x8.add(a1, s1), half), 7),
  );
}

/** The resampled source row, from the two that are kept for its lane (by parity) or made now. */
function rowOf(lane: i32, index: i32): usize {
  const row = max(0, min(lastRow, index));
  const slot = 2 * lane + (row & 1);
  const to = ROWS + slot * ROW_BYTES;
  if (held[slot] == row) return to;
  held[slot] = row;
  const from = sources[lane] + row * sourceStride;
  const groups = (columns + 7) >> 3;
  if (swizzled) {
    for (let group = 0; group < groups; group += 1) {
      const pairs = v128.swizzle(v128.load(from + load<i32>(OFFSETS + 4 * group)), v128.load(SWIZZLES + 16 * group));
      const low = i32x4.dot_i16x8_s(v128.extend_low<u8>(pairs), v128.load(WEIGHTS + 32 * group));
      const high = i32x4.dot_i16x8_s(v128.extend_high<u8>(pairs), v128.load(WEIGHTS + 32 * group, 16));
      v128.store(to + 16 * group, i16x8.narrow_i32x4_s(low, high));
    }
  } else {
    for (let column = 0; column < columns; column += 1) {
      const at = from + load<i32>(SINGLE_OFFSETS + 4 * column);
      const left = <i32>load<i16>(WEIGHTS + 4 * column);
      store<i16>(to + 2 * column, <i16>(<i32>load<u8>(at) * left + <i32>load<u8>(at, 1) * (128 - left)));
    }
  }
  return to;
}
