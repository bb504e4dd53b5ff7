// A picture drawn through any projective map: bilinear, with antialiased straight edges, over a frame or a sheet. One plane, or two that share their places (U and V).
//
// The target is worked through in tiles: along a slanting row the source's rows, and with them pages of memory, change so often that whole rows take far longer.
// A tile's row is sampled eight places at a time. Where these lie within two neighbouring rows and fifteen columns, as they do up to some seven degrees of turn,
// three source rows are loaded and the neighbours brought together by a swizzle; elsewhere every place's two pairs of neighbours are loaded by themselves.
// The map is worked out exactly every sixteen or eight places and goes in equal steps between, which is exact without perspective.

/** See `drawQuad` in `draw-quad.ts`, which writes it. */
const ORDER: usize = memory.data(8 * 80, 16);
const EDGES: i32 = 27;
const TILE: i32 = 64;
/** A tile's row of either plane and of transparency, with room for what is written past its end. */
const FIRST: usize = memory.data(96, 16);
const SECOND: usize = memory.data(96, 16);
const COVER: usize = memory.data(96, 16);

export function quadOrder(): usize {
  return ORDER;
}

// @ts-ignore: decorator
@inline
function given(index: i32): f64 {
  return load<f64>(ORDER + 8 * index);
}

let first: usize = 0;
let second: usize = 0;
let alpha: usize = 0;
let stride: i32 = 0;
let lastU: f64 = 0;
let lastV: f64 = 0;
let strength: i32 = 0;
let left: i32 = 0;
let right: i32 = 0;
let insideFrom: i32 = 0;
let insideTo: i32 = 0;
/** Where the row's column 0 of the tile is written: the scratch, or the target itself where nothing is to be weighed. */
let out: usize = 0;
let outSecond: usize = 0;

const OUTSIDE: i32 = 0;
const INSIDE: i32 = 1;
const ACROSS: i32 = 2;

export function drawQuad(): void {
  first = <usize>given(0);
  second = <usize>given(1);
  alpha = <usize>given(2);
  stride = <i32>given(3);
  lastU = given(4) + 1.0;
  lastV = given(5) - 0.01;
  const to = <usize>given(6), toSecond = <usize>given(7), toAlpha = <usize>given(8), toStride = <i32>given(9);
  strength = <i32>Math.round(given(10) * 32767);
  const whole = alpha == 0 && strength == 32767;
  const x0 = <i32>given(11), y0 = <i32>given(12), x1 = <i32>given(13), y1 = <i32>given(14);
  for (let tileY = y0; tileY < y1; tileY += TILE) {
    const endY = min(y1, tileY + TILE);
    for (let tileX = x0 & ~15; tileX < x1; tileX += TILE) {
      const startX = max(x0, tileX), endX = min(x1, tileX + TILE);
      const place = placeOf(startX, tileY, endX, endY);
      if (place == OUTSIDE) continue;
      for (let row = tileY; row < endY; row += 1) {
        if (place == INSIDE) {
          left = insideFrom = startX;
          right = insideTo = endX;
        } else {
          range(row, startX, endX);
          if (left >= right) continue;
        }
        const at = row * toStride;
        if (place == INSIDE && whole) {
          out = to + at + tileX;
          outSecond = toSecond + at + tileX;
          run(row, startX - tileX, endX - tileX, tileX);
          if (toAlpha != 0) memory.fill(toAlpha + at + startX, 255, endX - startX);
          continue;
        }
        sampleRow(row, tileX);
        lay(left & ~15, right, tileX, to + at, toSecond == 0 ? 0 : toSecond + at, toAlpha == 0 ? 0 : toAlpha + at);
      }
    }
  }
}

/** Whether a tile lies within all edges, beyond one of them, or across some. */
function placeOf(x0: i32, y0: i32, x1: i32, y1: i32): i32 {
  const count = <i32>given(15);
  let place = INSIDE;
  for (let edge = 0; edge < count; edge += 1) {
    const a = given(EDGES + 3 * edge), b = given(EDGES + 3 * edge + 1);
    const middle = a * (<f64>(x0 + x1) * 0.5) + b * (<f64>(y0 + y1) * 0.5) + given(EDGES + 3 * edge + 2);
    const reach = (Math.abs(a) * <f64>(x1 - x0) + Math.abs(b) * <f64>(y1 - y0)) * 0.5;
    if (middle + reach < -1.0) return OUTSIDE;
    if (middle - reach < 1.0) place = ACROSS;
  }
  return place;
}

/** Which samples of a row the quad touches (left…right) and which it covers wholly (insideFrom…insideTo). */
function range(row: i32, x0: i32, x1: i32): void {
  left = x0;
  right = x1;
  insideFrom = x0;
  insideTo = x1;
  const count = <i32>given(15);
  for (let edge = 0; edge < count; edge += 1) {
    const a = given(EDGES + 3 * edge);
    const k = given(EDGES + 3 * edge + 1) * (<f64>row + 0.5) + given(EDGES + 3 * edge + 2) + 0.5 * a;
    if (a > 1e-9) {
      left = max(left, clip(Math.floor((-0.5 - k) / a) + 1));
      insideFrom = max(insideFrom, clip(Math.ceil((0.5 - k) / a)));
    } else if (a < -1e-9) {
      right = min(right, clip(Math.ceil((-0.5 - k) / a)));
      insideTo = min(insideTo, clip(Math.floor((0.5 - k) / a) + 1));
    } else {
      if (k <= -0.5) right = left;
      if (k < 0.5) insideTo = insideFrom;
    }
  }
  insideFrom = max(left, insideFrom);
  insideTo = min(right, insideTo);
  if (insideFrom >= insideTo) {
    insideFrom = right;
    insideTo = right;
  }
}

// @ts-ignore: decorator
@inline
function clip(value: f64): i32 {
  return <i32>Math.max(-100000, Math.min(100000, value));
}

function sampleRow(row: i32, tileX: i32): void {
  const from = left - tileX, end = right - tileX;
  const nothing = i8x16.splat(0);
  const filling = alpha == 0 ? i8x16.splat(-1) : nothing;
  for (let x = 0; x < TILE + 16; x += 16) {
    v128.store(FIRST + x, nothing);
    v128.store(SECOND + x, nothing);
    v128.store(COVER + x, filling);
  }
  out = FIRST;
  outSecond = SECOND;
  run(row, from, end, tileX);
  blank(COVER, from, end);
  blank(FIRST, from, end);
  if (second != 0) blank(SECOND, from, end);
  if (strength < 32767) {
    weaken(FIRST, strength);
    if (second != 0) weaken(SECOND, strength);
    weaken(COVER, strength);
  }
  if (insideFrom > left || insideTo < right) {
    for (let x = left; x < min(insideFrom, right); x += 1) partly(row, x, tileX);
    for (let x = max(insideTo, left); x < right; x += 1) partly(row, x, tileX);
  }
}

/** Nothing outside from…end. */
// @ts-ignore: decorator
@inline
function blank(line: usize, from: i32, end: i32): void {
  if (from > 0) memory.fill(line, 0, from);
  if (end < TILE + 16) memory.fill(line + end, 0, TILE + 16 - end);
}

// @ts-ignore: decorator
@inline
function weaken(line: usize, by: i32): void {
  const weight = i16x8.splat(<i16>by);
  const half = i16x8.splat(64);
  for (let x = 0; x < TILE; x += 16) {
    const value = v128.load(line + x);
    v128.store(line + x, i8x16.narrow_i16x8_u(
      i16x8.shr_u(i16x8.add(i16x8.q15mulr_sat_s(i16x8.shl(v128.extend_low<u8>(value), 7), weight), half), 7),
      i16x8.shr_u(i16x8.add(i16x8.q15mulr_sat_s(i16x8.shl(v128.extend_high<u8>(value), 7), weight), half), 7),
    ));
  }
}

/** A sample at the edge has the share of it that lies within all edges: the product of how far it lies within each. */
function partly(row: i32, x: i32, tileX: i32): void {
  const count = <i32>given(15);
  let share = 1.0;
  for (let edge = 0; edge < count; edge += 1) {
    const d = given(EDGES + 3 * edge) * (<f64>x + 0.5) + given(EDGES + 3 * edge + 1) * (<f64>row + 0.5) + given(EDGES + 3 * edge + 2);
    share *= Math.max(0, Math.min(1, d + 0.5));
  }
  const at = x - tileX;
  store<u8>(FIRST + at, <u8>(<f64>load<u8>(FIRST + at) * share + 0.5));
  store<u8>(COVER + at, <u8>(<f64>load<u8>(COVER + at) * share + 0.5));
  if (second != 0) store<u8>(SECOND + at, <u8>(<f64>load<u8>(SECOND + at) * share + 0.5));
}

/** Samples a tile's row between two of its columns. */
function run(row: i32, from: i32, end: i32, tileX: i32): void {
  const m0 = given(16), m1 = given(17), m2 = given(18), m3 = given(19), m4 = given(20), m5 = given(21), m6 = given(22), m7 = given(23), m8 = given(24);
  const py = <f64>row + 0.5, px = <f64>(tileX + from) + 0.5;
  const bu = m1 * py + m2, bv = m4 * py + m5, bw = m7 * py + m8;
  let w0 = 1.0 / (m6 * px + bw);
  let u0 = (m0 * px + bu) * w0;
  let v0 = (m3 * px + bv) * w0;
  if (m6 == 0 && m7 == 0) {
    const length = <f64>((end - from + 15) & ~15) * w0;
    const ue = u0 + m0 * length, ve = v0 + m3 * length;
    if (Math.min(u0, ue) >= -4.0 && Math.max(u0, ue) <= lastU && Math.min(v0, ve) >= -2.0 && Math.max(v0, ve) <= lastV) {
      let u = <i32>(u0 * 65536.0 + 256.0), v = <i32>(v0 * 65536.0);
      const du = <i32>(m0 * w0 * 65536.0), dv = <i32>(m3 * w0 * 65536.0);
      for (let x = from; x < end; x += 8, u += 8 * du, v += 8 * dv) eight(x, u, v, du, dv);
      return;
    }
  }
  // A straight step over sixteen places is off by about a quarter of the step times the change of depth along it; where that shows, eight are taken at a time.
  const near = Math.min(Math.abs(m6 * px + bw), Math.abs(m6 * (<f64>(tileX + end) + 0.5) + bw));
  const reach = 16.0 * Math.max(Math.abs(m0 - u0 * m6), Math.abs(m3 - v0 * m6)) / near;
  const length = (16.0 * Math.abs(m6) / near) * reach * 0.25 < 0.02 ? 16 : 8;
  const per = 65536.0 / <f64>length;
  for (let x = from; x < end; x += length) {
    const ex = <f64>(tileX + x + length) + 0.5;
    const w1 = 1.0 / (m6 * ex + bw);
    const u1 = (m0 * ex + bu) * w1;
    const v1 = (m3 * ex + bv) * w1;
    // Half a step of the seven-bit weights is added once, so that cutting off rounds.
    if (Math.min(u0, u1) >= -4.0 && Math.max(u0, u1) <= lastU && Math.min(v0, v1) >= -2.0 && Math.max(v0, v1) <= lastV) {
      const u = <i32>(u0 * 65536.0 + 256.0), v = <i32>(v0 * 65536.0), du = <i32>((u1 - u0) * per), dv = <i32>((v1 - v0) * per);
      eight(x, u, v, du, dv);
      if (length == 16 && x + 8 < end) eight(x + 8, u + 8 * du, v + 8 * dv, du, dv);
    } else {
      for (let index = 0; index < min(length, end - x); index += 1) {
        const share = <f64>index / <f64>length;
        one(x + index, u0 + (u1 - u0) * share, v0 + (v1 - v0) * share);
      }
    }
    u0 = u1;
    v0 = v1;
  }
}

/** Eight places in equal steps, 16.16. */
function eight(x: i32, u: i32, v: i32, du: i32, dv: i32): void {
  const ue = u + 7 * du, ve = v + 7 * dv;
  const column = min(u, ue) >> 16, row = min(v, ve) >> 16;
  // The two ways are functions of their own: together they need more registers than there are.
  if ((max(u, ue) >> 16) - column <= 14 && (max(v, ve) >> 16) - row <= 1) eightNear(x, u, v, du, dv, column, row);
  else eightFar(x, u, v, du, dv);
}

// @ts-ignore: decorator
@inline
function eightNear(x: i32, u: i32, v: i32, du: i32, dv: i32, column: i32, row: i32): void {
  const steps = i32x4(0, 1, 2, 3);
  // Places are counted from the block's first column and row, so that they fit sixteen bits after the point.
  const ul = i32x4.add(i32x4.splat(u - (column << 16)), i32x4.mul(i32x4.splat(du), steps));
  const uh = i32x4.add(ul, i32x4.splat(du << 2));
  const vl = i32x4.add(i32x4.splat(v - (row << 16)), i32x4.mul(i32x4.splat(dv), steps));
  const vh = i32x4.add(vl, i32x4.splat(dv << 2));
  // Across, eleven bits after the point; down, fifteen, with the row itself in the sixteenth.
  const u16 = i16x8.narrow_i32x4_s(i32x4.shr_s(ul, 5), i32x4.shr_s(uh, 5));
  const fu = i16x8.shr_u(v128.and(u16, i16x8.splat(0x7ff)), 4);
  const pattern = i16x8.add(i16x8.mul(i16x8.shr_u(u16, 11), i16x8.splat(257)), i16x8.splat(256));
  const v16 = i16x8.narrow_i32x4_u(i32x4.shr_s(vl, 1), i32x4.shr_s(vh, 1));
  const lower = i16x8.shr_s(v16, 15);
  const fv = v128.and(v16, i16x8.splat(0x7fff));
  const at = row * stride + column;
  v128.store64_lane(out + x, near(first + at, pattern, lower, fu, fv), 0);
  if (second != 0) v128.store64_lane(outSecond + x, near(second + at, pattern, lower, fu, fv), 0);
  if (alpha != 0) v128.store64_lane(COVER + x, near(alpha + at, pattern, lower, fu, fv), 0);
}

function eightFar(x: i32, u: i32, v: i32, du: i32, dv: i32): void {
  const steps = i32x4(0, 1, 2, 3);
  const ul = i32x4.add(i32x4.splat(u), i32x4.mul(i32x4.splat(du), steps));
  const uh = i32x4.add(ul, i32x4.splat(du << 2));
  const vl = i32x4.add(i32x4.splat(v), i32x4.mul(i32x4.splat(dv), steps));
  const vh = i32x4.add(vl, i32x4.splat(dv << 2));
  const fractions = i32x4.splat(0xffff);
  const fu = i16x8.narrow_i32x4_s(i32x4.shr_u(v128.and(ul, fractions), 9), i32x4.shr_u(v128.and(uh, fractions), 9));
  const fv = i16x8.narrow_i32x4_s(i32x4.shr_u(v128.and(vl, fractions), 1), i32x4.shr_u(v128.and(vh, fractions), 1));
  const cl = i32x4.add(i32x4.mul(i32x4.shr_s(vl, 16), i32x4.splat(stride)), i32x4.shr_s(ul, 16));
  const ch = i32x4.add(i32x4.mul(i32x4.shr_s(vh, 16), i32x4.splat(stride)), i32x4.shr_s(uh, 16));
  v128.store64_lane(out + x, far(first, cl, ch, fu, fv), 0);
  if (second != 0) v128.store64_lane(outSecond + x, far(second, cl, ch, fu, fv), 0);
  if (alpha != 0) v128.store64_lane(COVER + x, far(alpha, cl, ch, fu, fv), 0);
}

/** From three rows of sixteen samples; `lower` marks the places between the second and the third. */
// @ts-ignore: decorator
@inline
function near(at: usize, pattern: v128, lower: v128, fu: v128, fv: v128): v128 {
  const h0 = along(v128.swizzle(v128.load(at), pattern), fu);
  const h1 = along(v128.swizzle(v128.load(at + stride), pattern), fu);
  const h2 = along(v128.swizzle(v128.load(at + 2 * stride), pattern), fu);
  return down(v128.bitselect(h1, h0, lower), v128.bitselect(h2, h1, lower), fv);
}

/** From pairs of neighbours at eight offsets of their own. */
// @ts-ignore: decorator
@inline
function far(plane: usize, cl: v128, ch: v128, fu: v128, fv: v128): v128 {
  const a0 = plane + i32x4.extract_lane(cl, 0), a1 = plane + i32x4.extract_lane(cl, 1), a2 = plane + i32x4.extract_lane(cl, 2), a3 = plane + i32x4.extract_lane(cl, 3);
  const a4 = plane + i32x4.extract_lane(ch, 0), a5 = plane + i32x4.extract_lane(ch, 1), a6 = plane + i32x4.extract_lane(ch, 2), a7 = plane + i32x4.extract_lane(ch, 3);
  const s = stride;
  const top = i16x8(load<i16>(a0), load<i16>(a1), load<i16>(a2), load<i16>(a3), load<i16>(a4), load<i16>(a5), load<i16>(a6), load<i16>(a7));
  const under = i16x8(load<i16>(a0 + s), load<i16>(a1 + s), load<i16>(a2 + s), load<i16>(a3 + s), load<i16>(a4 + s), load<i16>(a5 + s), load<i16>(a6 + s), load<i16>(a7 + s));
  return down(along(top, fu), along(under, fu), fv);
}

/** Pairs of neighbours (two bytes each) weighed along the row; × 128. */
// @ts-ignore: decorator
@inline
function along(pairs: v128, fu: v128): v128 {
  const here = v128.and(pairs, i16x8.splat(255));
  return i16x8.add(i16x8.shl(here, 7), i16x8.mul(i16x8.sub(i16x8.shr_u(pairs, 8), here), fu));
}

// @ts-ignore: decorator
@inline
function down(upper: v128, under: v128, fv: v128): v128 {
  const value = i16x8.shr_u(i16x8.add(i16x8.add(upper, i16x8.q15mulr_sat_s(i16x8.sub(under, upper), fv)), i16x8.splat(64)), 7);
  return i8x16.narrow_i16x8_u(value, value);
}

/** Near the picture's border: the place is held to what lies in memory. */
function one(x: i32, u: f64, v: f64): void {
  const cu = <i32>(Math.max(-4.0, Math.min(lastU, u)) * 65536.0 + 256.0), cv = <i32>(Math.max(-2.0, Math.min(lastV, v)) * 65536.0);
  const at = (cv >> 16) * stride + (cu >> 16);
  const fu = (cu & 0xffff) >> 9, fv = (cv & 0xffff) >> 1;
  store<u8>(out + x, between(first + at, fu, fv));
  if (second != 0) store<u8>(outSecond + x, between(second + at, fu, fv));
  if (alpha != 0) store<u8>(COVER + x, between(alpha + at, fu, fv));
}

function between(at: usize, fu: i32, fv: i32): u8 {
  const a = <i32>load<u8>(at), b = <i32>load<u8>(at, 1);
  const c = <i32>load<u8>(at + stride), d = <i32>load<u8>(at + stride, 1);
  const upper = (a << 7) + (b - a) * fu;
  const under = (c << 7) + (d - c) * fu;
  return <u8>((upper + (((under - upper) * fv + 0x4000) >> 15) + 64) >> 7);
}

/** target · (255 − alpha) / 255 + picture, rounded; exact where alpha is 0 or 255. */
// @ts-ignore: decorator
@inline
function over(target: v128, picture: v128, cover: v128): v128 {
  const full = i16x8.splat(255);
  const round = i16x8.splat(128);
  const lo = i16x8.add(i16x8.mul(v128.extend_low<u8>(target), i16x8.sub(full, v128.extend_low<u8>(cover))), round);
  const hi = i16x8.add(i16x8.mul(v128.extend_high<u8>(target), i16x8.sub(full, v128.extend_high<u8>(cover))), round);
  const kept = i8x16.narrow_i16x8_u(
    i16x8.shr_u(i16x8.add(lo, i16x8.shr_u(lo, 8)), 8),
    i16x8.shr_u(i16x8.add(hi, i16x8.shr_u(hi, 8)), 8),
  );
  return i8x16.add_sat_u(kept, picture);
}

/** Lays the sampled row over the target's, and its transparency over the target's own where it has one. */
function lay(from: i32, end: i32, tileX: i32, to: usize, toSecond: usize, toAlpha: usize): void {
  for (let x = from; x < end; x += 16) {
    const at = x - tileX;
    const cover = v128.load(COVER + at);
    if (!v128.any_true(cover)) continue;
    if (i8x16.all_true(i8x16.eq(cover, i8x16.splat(-1)))) {
      v128.store(to + x, v128.load(FIRST + at));
      if (toSecond != 0) v128.store(toSecond + x, v128.load(SECOND + at));
      if (toAlpha != 0) v128.store(toAlpha + x, cover);
      continue;
    }
    v128.store(to + x, over(v128.load(to + x), v128.load(FIRST + at), cover));
    if (toSecond != 0) v128.store(toSecond + x, over(v128.load(toSecond + x), v128.load(SECOND + at), cover));
    if (toAlpha != 0) v128.store(toAlpha + x, over(v128.load(toAlpha + x), cover, cover));
  }
}
