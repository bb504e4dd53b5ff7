// Tones and colours of a picture, by tables made for a light (`light-planes.ts`): eight chroma samples, and the rows of luma that share them, at a time.

/** A row of lit chroma, kept aside: both rows of luma need it as it was, also where a picture is lit in place. Padded, as eight are written at once. */
const LIT_U: usize = memory.data(4144, 16);
const LIT_V: usize = memory.data(4144, 16);
/** Eight places in a table, in sixteen bits each. */
const INDICES: usize = memory.data(16, 16);

const GAIN_AT: usize = 256;
const VIBRANCE_AT: usize = 768;
const SHIFT_U_AT: usize = 1280;
const SHIFT_V_AT: usize = 1792;
const MATRIX_AT: usize = 2304;

/**
 * Luma goes through a curve (256 bytes); chroma is scaled by how bright the place is and how colourful, then shifted.
 *
 * `tables`: 256 × u8 curve; from 256: 256 × i16 gain by luma, Q12; from 768: 256 × i16 gain by colourfulness, Q12 (index: the larger distance of U or V from 128, doubled);
 * from 1280: 256 × i16 shift of U by luma, × 16; from 1792: the same of V; from 2304: 9 × i16 matrix in Q12 (rows Y, U, V), taken before all else.
 */
export function lightPlanes(
  y: usize, u: usize, v: usize, yStride: i32, cStride: i32, toY: usize, toU: usize, toV: usize, toYStride: i32, toCStride: i32,
  widthPx: i32, heightPx: i32, tables: usize,
): void {
  const m = tables + MATRIX_AT;
  const isPlain = load<i16>(m) == 4096 && load<i16>(m, 2) == 0 && load<i16>(m, 4) == 0 && load<i16>(m, 6) == 0 && load<i16>(m, 8) == 4096 && load<i16>(m, 10) == 0
    && load<i16>(m, 12) == 0 && load<i16>(m, 14) == 0 && load<i16>(m, 16) == 4096;
  const vibrates = !isEven(tables + VIBRANCE_AT, 4096), shifts = !isEven(tables + SHIFT_U_AT, 0) || !isEven(tables + SHIFT_V_AT, 0);
  const cWidth = (widthPx + 1) >> 1, cHeight = (heightPx + 1) >> 1;
  for (let row = 0; row < cHeight; row += 1) {
    const uRow = u + row * cStride, vRow = v + row * cStride;
    const upper = y + 2 * row * yStride, lower = 2 * row + 1 < heightPx ? upper + yStride : upper;
    if (isPlain) chromaRow(upper, lower, uRow, vRow, cWidth, tables, true, vibrates, shifts);
    else chromaRow(upper, lower, uRow, vRow, cWidth, tables, false, vibrates, shifts);
    for (let part = 0; part < 2 && 2 * row + part < heightPx; part += 1) {
      const line = upper + part * yStride, to = toY + (2 * row + part) * toYStride;
      if (isPlain) curved(line, to, widthPx, tables);
      else balanced(line, uRow, vRow, to, widthPx, tables);
    }
    memory.copy(toU + row * toCStride, LIT_U, cWidth);
    memory.copy(toV + row * toCStride, LIT_V, cWidth);
  }
}

function isEven(table: usize, value: i32): bool {
  for (let at = 0; at < 512; at += 2) if (<i32>load<i16>(table + at) != value) return false;
  return true;
}

/** Luma is taken where chroma stands: on the even columns, between two rows. Values of chroma are × 64 about 0. */
// @ts-ignore: decorator
@inline
function chromaRow(upper: usize, lower: usize, uRow: usize, vRow: usize, cWidth: i32, tables: usize, isPlain: bool, vibrates: bool, shifts: bool): void {
  const lowBytes = i16x8.splat(255), middle = i16x8.splat(128), most = i16x8.splat(24576);
  for (let x = 0; x < cWidth; x += 8) {
    let luma = v128.and(i8x16.avgr_u(v128.load(upper + 2 * x), v128.load(lower + 2 * x)), lowBytes);
    let cu = i16x8.sub(v128.load8x8_u(uRow + x), middle), cv = i16x8.sub(v128.load8x8_u(vRow + x), middle);
    if (isPlain) {
      cu = i16x8.shl(cu, 6);
      cv = i16x8.shl(cv, 6);
    } else {
      const above = i16x8.sub(luma, i16x8.splat(16)), m = tables + MATRIX_AT;
      luma = held(i16x8.add(weighed(above, cu, cv, m, 12), i16x8.splat(16)));
      const wasU = cu;
      cu = weighed(above, wasU, cv, m + 6, 6);
      cv = weighed(above, wasU, cv, m + 12, 6);
    }
    v128.store(INDICES, luma);
    let gain = eightOf(tables + GAIN_AT);
    if (vibrates) {
      v128.store(INDICES, i16x8.min_u(i16x8.shr_u(i16x8.max_s(i16x8.abs(cu), i16x8.abs(cv)), 5), lowBytes));
      const more = eightOf(tables + VIBRANCE_AT);
      gain = i16x8.narrow_i32x4_s(i32x4.shr_s(i32x4.extmul_low_i16x8_s(gain, more), 12), i32x4.shr_s(i32x4.extmul_high_i16x8_s(gain, more), 12));
      v128.store(INDICES, luma);
    }
    gain = i16x8.min_s(gain, most);
    let outU = scaled(cu, gain), outV = scaled(cv, gain);
    if (shifts) {
      outU = i16x8.add_sat_s(outU, i16x8.shl(eightOf(tables + SHIFT_U_AT), 2));
      outV = i16x8.add_sat_s(outV, i16x8.shl(eightOf(tables + SHIFT_V_AT), 2));
    }
    v128.store64_lane(LIT_U + x, ofChroma(outU), 0);
    v128.store64_lane(LIT_V + x, ofChroma(outV), 0);
  }
}

/** A row of the matrix (Q12) times luma and chroma, without its last so many bits. */
// @ts-ignore: decorator
@inline
function weighed(luma: v128, cu: v128, cv: v128, row: usize, bits: i32): v128 {
  const both = v128.load32_splat(row), third = v128.load16_splat(row + 4), half = i32x4.splat(1 << (bits - 1));
  const low = i32x4.add(i32x4.dot_i16x8_s(v128.shuffle<u16>(luma, cu, 0, 8, 1, 9, 2, 10, 3, 11), both), i32x4.extmul_low_i16x8_s(cv, third));
  const high = i32x4.add(i32x4.dot_i16x8_s(v128.shuffle<u16>(luma, cu, 4, 12, 5, 13, 6, 14, 7, 15), both), i32x4.extmul_high_i16x8_s(cv, third));
  return i16x8.narrow_i32x4_s(i32x4.shr_s(i32x4.add(low, half), bits), i32x4.shr_s(i32x4.add(high, half), bits));
}

/** Held to 0…255. */
// @ts-ignore: decorator
@inline
function held(values: v128): v128 {
  return i16x8.max_s(i16x8.splat(0), i16x8.min_s(i16x8.splat(255), values));
}

/** Sixteen-bit entries of a table at the eight places in `INDICES`. */
// @ts-ignore: decorator
@inline
function eightOf(table: usize): v128 {
  let out = v128.load16_splat(table + 2 * <usize>load<u16>(INDICES));
  out = v128.load16_lane(table + 2 * <usize>load<u16>(INDICES, 2), out, 1);
  out = v128.load16_lane(table + 2 * <usize>load<u16>(INDICES, 4), out, 2);
  out = v128.load16_lane(table + 2 * <usize>load<u16>(INDICES, 6), out, 3);
  out = v128.load16_lane(table + 2 * <usize>load<u16>(INDICES, 8), out, 4);
  out = v128.load16_lane(table + 2 * <usize>load<u16>(INDICES, 10), out, 5);
  out = v128.load16_lane(table + 2 * <usize>load<u16>(INDICES, 12), out, 6);
  return v128.load16_lane(table + 2 * <usize>load<u16>(INDICES, 14), out, 7);
}

// @ts-ignore: decorator
@inline
function scaled(chroma: v128, gain: v128): v128 {
  return i16x8.narrow_i32x4_s(i32x4.shr_s(i32x4.extmul_low_i16x8_s(chroma, gain), 12), i32x4.shr_s(i32x4.extmul_high_i16x8_s(chroma, gain), 12));
}

// @ts-ignore: decorator
@inline
function ofChroma(value: v128): v128 {
  const out = i16x8.add(i16x8.shr_s(i16x8.add_sat_s(value, i16x8.splat(32)), 6), i16x8.splat(128));
  return i8x16.narrow_i16x8_u(out, out);
}

/** Luma through the curve alone, eight samples read and written at once. */
function curved(line: usize, to: usize, widthPx: i32, curve: usize): void {
  let x = 0;
  for (; x <= widthPx - 8; x += 8) {
    const eight = load<u64>(line + x);
    store<u64>(to + x, <u64>load<u8>(curve + <usize>(eight & 255)) | <u64>load<u8>(curve + <usize>((eight >> 8) & 255)) << 8 | <u64>load<u8>(curve + <usize>((eight >> 16) & 255)) << 16
      | <u64>load<u8>(curve + <usize>((eight >> 24) & 255)) << 24 | <u64>load<u8>(curve + <usize>((eight >> 32) & 255)) << 32 | <u64>load<u8>(curve + <usize>((eight >> 40) & 255)) << 40
      | <u64>load<u8>(curve + <usize>((eight >> 48) & 255)) << 48 | <u64>load<u8>(curve + <usize>(eight >> 56)) << 56);
  }
  for (; x < widthPx; x += 1) store<u8>(to + x, load<u8>(curve + <usize>load<u8>(line + x)));
}

/** Luma by the matrix, then through the curve. */
function balanced(line: usize, uRow: usize, vRow: usize, to: usize, widthPx: i32, tables: usize): void {
  const middle = i16x8.splat(128), sixteen = i16x8.splat(16), m = tables + MATRIX_AT;
  for (let x = 0; x < widthPx; x += 16) {
    const cu = i16x8.sub(v128.load8x8_u(uRow + (x >> 1)), middle), cv = i16x8.sub(v128.load8x8_u(vRow + (x >> 1)), middle);
    const luma = v128.load(line + x);
    const low = weighed(i16x8.sub(v128.extend_low<u8>(luma), sixteen), v128.shuffle<u16>(cu, cu, 0, 0, 1, 1, 2, 2, 3, 3), v128.shuffle<u16>(cv, cv, 0, 0, 1, 1, 2, 2, 3, 3), m, 12);
    const high = weighed(i16x8.sub(v128.extend_high<u8>(luma), sixteen), v128.shuffle<u16>(cu, cu, 4, 4, 5, 5, 6, 6, 7, 7), v128.shuffle<u16>(cv, cv, 4, 4, 5, 5, 6, 6, 7, 7), m, 12);
    v128.store(BALANCED, i8x16.narrow_i16x8_u(i16x8.add(low, sixteen), i16x8.add(high, sixteen)));
    curved(BALANCED, to + x, min(16, widthPx - x), tables);
  }
}

const BALANCED: usize = memory.data(16, 16);
