// A picture drawn through any projective map: bilinear, with antialiased straight edges, over a frame or a cel. One plane, or two that share their places (U and V).
//
// The target is worked through in tiles: along a slanting row the source's rows, and with them pages of memory, change so often that whole rows take far longer.
// A tile's row is sampled eight places at a time. Where these lie within two neighbouring rows and fifteen columns, as they do up to some seven degrees of turn,
// three source rows are loaded and the neighbours brought together by a swizzle; elsewhere every place's two pairs of neighbours are loaded by themselves.
// The map is worked out exactly at the ends of segments and follows a line or a parabola between.

/** See `drawQuad` in `draw-quad.ts`, which writes it. */
const ORDER: usize = memory.data(8 * 80, 16);
const EDGES: i32 = 27;
/** Samples of a tile across and down; WIDE is a multiple of 64. */
const WIDE: i32 = 256;
const HIGH: i32 = 64;
/** A tile's row of either plane and of transparency, with room for what is written past its end. */
const FIRST: usize = memory.data(288, 16);
const SECOND: usize = memory.data(288, 16);
const COVER: usize = memory.data(288, 16);

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
  for (let tileY = y0; tileY < y1; tileY += HIGH) {
    const endY = min(y1, tileY + HIGH);
    for (let tileX = x0 & ~15; tileX < x1; tileX += WIDE) {
      const startX = max(x0, tileX), endX = min(x1, tileX + WIDE);
      const place = placeOf(startX, tileY, endX, endY);
      if (place == OUTSIDE) continue;
      chooseSegment(startX, tileY, endX, endY);
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
  for (let x = 0; x < WIDE + 16; x += 16) {
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
  if (end < WIDE + 16) memory.fill(line + end, 0, WIDE + 16 - end);
}

// @ts-ignore: decorator
@inline
function weaken(line: usize, by: i32): void {
  const weight = i16x8.splat(<i16>by);
  const half = i16x8.splat(64);
  for (let x = 0; x < WIDE; x += 16) {
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

/** How far apart the map is worked out exactly in this tile, in samples: a parabola through both ends and the middle is then off by less than a hundredth of one. */
let segment: i32 = WIDE;

function chooseSegment(x0: i32, y0: i32, x1: i32, y1: i32): void {
  const m6 = given(22), m7 = given(23), m8 = given(24);
  segment = WIDE;
  if (m6 == 0) return;
  let nearest = Infinity, furthest = 0.0;
  for (let corner = 0; corner < 4; corner += 1) {
    const x = <f64>(corner & 1 ? x1 : x0), y = <f64>(corner & 2 ? y1 : y0);
    const w = m6 * x + m7 * y + m8;
    nearest = Math.min(nearest, Math.abs(w));
    furthest = Math.max(furthest, Math.max(Math.abs(given(16) * x + given(17) * y + given(18)), Math.abs(given(19) * x + given(20) * y + given(21))) / Math.max(1e-9, Math.abs(w)));
  }
  // The way is off by a twentieth of its length times the square of the change of depth along it.
  const slope = (Math.max(Math.abs(given(16)), Math.abs(given(19))) + Math.abs(m6) * furthest) / Math.max(1e-9, nearest);
  segment = <i32>Math.max(8, Math.min(<f64>WIDE, Math.cbrt((0.2 * nearest * nearest) / (m6 * m6 * slope)))) & ~7;
}

/** Samples a tile's row between two of its columns. */
function run(row: i32, from: i32, end: i32, tileX: i32): void {
  const m0 = given(16), m3 = given(19), m6 = given(22);
  const py = <f64>row + 0.5;
  let px = <f64>(tileX + from) + 0.5;
  // Numerators and depth at a place, and what they grow by from sample to sample.
  let nu = m0 * px + given(17) * py + given(18), nv = m3 * px + given(20) * py + given(21), w = m6 * px + given(23) * py + given(24);
  let near = 1.0 / w, u = nu * near, v = nv * near;
  for (let x = from; x < end;) {
    const count = min(segment, (end - x + 7) & ~7);
    const length = <f64>count, blocks = 8.0 / length;
    nu += m0 * length;
    nv += m3 * length;
    const before = w;
    w += m6 * length;
    near = m6 == 0 ? near : 1.0 / w;
    const eu = nu * near, ev = nv * near;
    if (!within(u, v) || !within(eu, ev)) besideBorder(x, min(end, x + count), u, v, nu - m0 * length, nv - m3 * length, before);
    else if (m6 == 0) curve(x, min(end, x + count), u, v, (eu - u) * blocks, (ev - v) * blocks, 0, 0);
    else {
      const middle = 1.0 / (before + m6 * length * 0.5);
      const u1 = (nu - m0 * length * 0.5) * middle, v1 = (nv - m3 * length * 0.5) * middle;
      const bendU = 2.0 * (eu - 2.0 * u1 + u) * blocks * blocks, bendV = 2.0 * (ev - 2.0 * v1 + v) * blocks * blocks;
      curve(x, min(end, x + count), u, v, (4.0 * u1 - 3.0 * u - eu) * blocks + bendU, (4.0 * v1 - 3.0 * v - ev) * blocks + bendV, 2.0 * bendU, 2.0 * bendV);
    }
    u = eu;
    v = ev;
    x += count;
  }
}

/** Eight places at a time, and one by one where they reach beyond what lies in memory. */
function besideBorder(from: i32, end: i32, u0: f64, v0: f64, nu0: f64, nv0: f64, w0: f64): void {
  const m0 = given(16), m3 = given(19), m6 = given(22);
  let u = u0, v = v0, nu = nu0, nv = nv0, w = w0;
  for (let x = from; x < end; x += 8) {
    nu += 8.0 * m0;
    nv += 8.0 * m3;
    w += 8.0 * m6;
    const eu = nu / w, ev = nv / w;
    if (within(u, v) && within(eu, ev)) curve(x, min(end, x + 8), u, v, eu - u, ev - v, 0, 0);
    else for (let index = 0; index < min(8, end - x); index += 1) one(x + index, u + (eu - u) * 0.125 * <f64>index, v + (ev - v) * 0.125 * <f64>index);
    u = eu;
    v = ev;
  }
}

/** Whether a place can be sampled without holding it to what lies in memory. */
// @ts-ignore: decorator
@inline
function within(u: f64, v: f64): bool {
  return u >= -4.0 && u <= lastU && v >= -2.0 && v <= lastV;
}

// Vectors that stay the same are read from memory before a loop: those written out or worked out are made anew at every turn of it by the engines.
const LANES: usize = memory.data<i16>([0, 1, 2, 3, 4, 5, 6, 7], 16);
const LOW_BYTES: usize = memory.data<i16>([255, 255, 255, 255, 255, 255, 255, 255], 16);
const FRACTION: usize = memory.data<i16>([0x7fff, 0x7fff, 0x7fff, 0x7fff, 0x7fff, 0x7fff, 0x7fff, 0x7fff], 16);
const BOTH: usize = memory.data<i16>([257, 257, 257, 257, 257, 257, 257, 257], 16);
const NEIGHBOUR: usize = memory.data<i16>([256, 256, 256, 256, 256, 256, 256, 256], 16);
const HALF: usize = memory.data<i16>([64, 64, 64, 64, 64, 64, 64, 64], 16);
const WHOLE: usize = memory.data<i16>([128, 128, 128, 128, 128, 128, 128, 128], 16);
const STEPS: usize = memory.data<i32>([0, 1, 2, 3], 16);
const TRIANGLES: usize = memory.data<i32>([0, 0, 1, 3], 16);
const OFFSETS: usize = memory.data(32, 16);

/** Of all blocks of eight places of a tile's row: where a block begins, counted from its first column and row, its steps, and where these lie in the planes. */
const COLUMNS: usize = memory.data(80, 16);
const ROWS: usize = memory.data(80, 16);
const ALONG_U: usize = memory.data(80, 16);
const ALONG_V: usize = memory.data(80, 16);
const PLACES: usize = memory.data(160, 16);

/** Samples along a parabola: a step of eight places, which itself grows by a bend from one to the next. In samples. */
function curve(from: i32, end: i32, u0: f64, v0: f64, stepU: f64, stepV: f64, bendU: f64, bendV: f64): void {
  // Half a step of the seven-bit weights is added once, so that cutting off rounds.
  const u = <i32>(u0 * 65536.0 + 256.0), v = <i32>(v0 * 65536.0);
  const du = <i32>(stepU * 65536.0), dv = <i32>(stepV * 65536.0), ddu = <i32>(bendU * 65536.0), ddv = <i32>(bendV * 65536.0);
  // Each way of its own, so that none tests in its loop what never changes, and none calls another.
  const last = (end - from - 1) >> 3;
  const steepestU = max(abs(du), abs(du + last * ddu)), steepestV = max(abs(dv), abs(dv + last * ddv));
  if (7 * (steepestU >> 8) >= 13 << 11 || 7 * (steepestV >> 4) >= 1 << 15) return far(from, end, u, v, du, dv, ddu, ddv);
  // k steps on, the place has moved by k·du + k(k − 1)/2·ddu. Four blocks at a time; from one four to the next, places and steps go on by themselves.
  const count = v128.load(STEPS), triangles = v128.load(TRIANGLES);
  let us = at4(u, du, ddu, count, triangles), vs = at4(v, dv, ddv, count, triangles);
  let dus = i32x4.add(i32x4.splat(du), i32x4.mul(i32x4.splat(ddu), count)), dvs = i32x4.add(i32x4.splat(dv), i32x4.mul(i32x4.splat(ddv), count));
  const bendU6 = i32x4.splat(6 * ddu), bendV6 = i32x4.splat(6 * ddv), bendU4 = i32x4.splat(4 * ddu), bendV4 = i32x4.splat(4 * ddv);
  for (let block = 0; block <= last; block += 4) {
    blocks(2 * block, us, vs, dus, dvs);
    us = i32x4.add(us, i32x4.add(i32x4.shl(dus, 2), bendU6));
    vs = i32x4.add(vs, i32x4.add(i32x4.shl(dvs, 2), bendV6));
    dus = i32x4.add(dus, bendU4);
    dvs = i32x4.add(dvs, bendV4);
  }
  if (alpha != 0) near(from, end, second != 0, true);
  else if (second != 0) near(from, end, true, false);
  else near(from, end, false, false);
}

// @ts-ignore: decorator
@inline
function at4(from: i32, step: i32, bend: i32, count: v128, triangles: v128): v128 {
  return i32x4.add(i32x4.splat(from), i32x4.add(i32x4.mul(i32x4.splat(step), count), i32x4.mul(i32x4.splat(bend), triangles)));
}

/** Four blocks: across with eleven bits after the point, down with fifteen, so that they fit sixteen bits. */
// @ts-ignore: decorator
@inline
function blocks(to: i32, u: v128, v: v128, du: v128, dv: v128): void {
  const seven = i32x4.splat(7), zero = i32x4.splat(0);
  const u11 = i32x4.shr_s(u, 5), v15 = i32x4.shr_s(v, 1), alongU = i32x4.shr_s(du, 8), alongV = i32x4.shr_s(dv, 4);
  const column = i32x4.shr_s(i32x4.add(u11, i32x4.min_s(zero, i32x4.mul(alongU, seven))), 11);
  const row = i32x4.shr_s(i32x4.add(v15, i32x4.min_s(zero, i32x4.mul(alongV, seven))), 15);
  const fromColumn = i32x4.sub(u11, i32x4.shl(column, 11)), fromRow = i32x4.sub(v15, i32x4.shl(row, 15));
  v128.store64_lane(COLUMNS + to, i16x8.narrow_i32x4_s(fromColumn, fromColumn), 0);
  v128.store64_lane(ROWS + to, i16x8.narrow_i32x4_u(fromRow, fromRow), 0);
  v128.store64_lane(ALONG_U + to, i16x8.narrow_i32x4_s(alongU, alongU), 0);
  v128.store64_lane(ALONG_V + to, i16x8.narrow_i32x4_s(alongV, alongV), 0);
  v128.store(PLACES + 2 * to, i32x4.add(i32x4.mul(row, i32x4.splat(stride)), column));
}

/** Where every eight places lie within two rows and fifteen columns. */
// @ts-ignore: decorator
@inline
function near(from: i32, end: i32, two: bool, cover: bool): void {
  const lanes = v128.load(LANES), lowBytes = v128.load(LOW_BYTES), fraction = v128.load(FRACTION), both = v128.load(BOTH);
  const neighbour = v128.load(NEIGHBOUR), half = v128.load(HALF), whole = v128.load(WHOLE);
  const s = stride, p0 = first, p1 = second, pa = alpha, o0 = out, o1 = outSecond;
  for (let x = from, block = 0; x < end; x += 8, block += 2) {
    const u16 = i16x8.add(i16x8.mul(lanes, v128.load16_splat(ALONG_U + block)), v128.load16_splat(COLUMNS + block));
    const v16 = i16x8.add(i16x8.mul(lanes, v128.load16_splat(ALONG_V + block)), v128.load16_splat(ROWS + block));
    const fu = i16x8.shr_u(i16x8.shl(u16, 5), 9);
    const gu = i16x8.sub(whole, fu);
    const pattern = i16x8.add(i16x8.mul(i16x8.shr_u(u16, 11), both), neighbour);
    const lower = i16x8.shr_s(v16, 15);
    const fv = v128.and(v16, fraction);
    const at = load<i32>(PLACES + 2 * block);
    v128.store64_lane(o0 + x, ofRows(p0 + at, s, pattern, lower, fu, gu, fv, lowBytes, half), 0);
    if (two) v128.store64_lane(o1 + x, ofRows(p1 + at, s, pattern, lower, fu, gu, fv, lowBytes, half), 0);
    if (cover) v128.store64_lane(COVER + x, ofRows(pa + at, s, pattern, lower, fu, gu, fv, lowBytes, half), 0);
  }
}

/** From three rows of sixteen samples; `lower` marks the places between the second and the third. */
// @ts-ignore: decorator
@inline
function ofRows(at: usize, s: i32, pattern: v128, lower: v128, fu: v128, gu: v128, fv: v128, lowBytes: v128, half: v128): v128 {
  const r0 = v128.swizzle(v128.load(at), pattern);
  const r1 = v128.swizzle(v128.load(at + s), pattern);
  const r2 = v128.swizzle(v128.load(at + 2 * s), pattern);
  return between8(v128.bitselect(r1, r0, lower), v128.bitselect(r2, r1, lower), fu, gu, fv, lowBytes, half);
}

/** Pairs of neighbours (two bytes each) of two rows, weighed along the rows (× 128) and then down. */
// @ts-ignore: decorator
@inline
function between8(a: v128, b: v128, fu: v128, gu: v128, fv: v128, lowBytes: v128, half: v128): v128 {
  const upper = i16x8.add(i16x8.mul(v128.and(a, lowBytes), gu), i16x8.mul(i16x8.shr_u(a, 8), fu));
  const under = i16x8.add(i16x8.mul(v128.and(b, lowBytes), gu), i16x8.mul(i16x8.shr_u(b, 8), fu));
  const value = i16x8.shr_u(i16x8.add(i16x8.add(upper, i16x8.q15mulr_sat_s(i16x8.sub(under, upper), fv)), half), 7);
  return i8x16.narrow_i16x8_u(value, value);
}

/** Where they lie further apart: each has its own pairs of neighbours. */
function far(from: i32, end: i32, u0: i32, v0: i32, du0: i32, dv0: i32, ddu: i32, ddv: i32): void {
  const fractions = i32x4.splat(0xffff);
  const steps = v128.load(STEPS);
  let u = u0, v = v0, du = du0, dv = dv0;
  for (let x = from; x < end; x += 8) {
    const alongU = i32x4.splat(du >> 3), alongV = i32x4.splat(dv >> 3);
    const ul = i32x4.add(i32x4.splat(u), i32x4.mul(alongU, steps));
    const vl = i32x4.add(i32x4.splat(v), i32x4.mul(alongV, steps));
    const uh = i32x4.add(ul, i32x4.shl(alongU, 2)), vh = i32x4.add(vl, i32x4.shl(alongV, 2));
    const fu = i16x8.narrow_i32x4_s(i32x4.shr_u(v128.and(ul, fractions), 9), i32x4.shr_u(v128.and(uh, fractions), 9));
    const fv = i16x8.narrow_i32x4_s(i32x4.shr_u(v128.and(vl, fractions), 1), i32x4.shr_u(v128.and(vh, fractions), 1));
    v128.store(OFFSETS, i32x4.add(i32x4.mul(i32x4.shr_s(vl, 16), i32x4.splat(stride)), i32x4.shr_s(ul, 16)));
    v128.store(OFFSETS, i32x4.add(i32x4.mul(i32x4.shr_s(vh, 16), i32x4.splat(stride)), i32x4.shr_s(uh, 16)), 16);
    v128.store64_lane(out + x, ofPlaces(first, fu, fv), 0);
    if (second != 0) v128.store64_lane(outSecond + x, ofPlaces(second, fu, fv), 0);
    if (alpha != 0) v128.store64_lane(COVER + x, ofPlaces(alpha, fu, fv), 0);
    u += du;
    v += dv;
    du += ddu;
    dv += ddv;
  }
}

// @ts-ignore: decorator
@inline
function ofPlaces(plane: usize, fu: v128, fv: v128): v128 {
  const a0 = plane + load<i32>(OFFSETS), a1 = plane + load<i32>(OFFSETS, 4), a2 = plane + load<i32>(OFFSETS, 8), a3 = plane + load<i32>(OFFSETS, 12);
  const a4 = plane + load<i32>(OFFSETS, 16), a5 = plane + load<i32>(OFFSETS, 20), a6 = plane + load<i32>(OFFSETS, 24), a7 = plane + load<i32>(OFFSETS, 28);
  const s = stride;
  let top = v128.load(HALF), under = top;
  top = v128.load16_lane(a0, top, 0);
  under = v128.load16_lane(a0 + s, under, 0);
  top = v128.load16_lane(a1, top, 1);
  under = v128.load16_lane(a1 + s, under, 1);
  top = v128.load16_lane(a2, top, 2);
  under = v128.load16_lane(a2 + s, under, 2);
  top = v128.load16_lane(a3, top, 3);
  under = v128.load16_lane(a3 + s, under, 3);
  top = v128.load16_lane(a4, top, 4);
  under = v128.load16_lane(a4 + s, under, 4);
  top = v128.load16_lane(a5, top, 5);
  under = v128.load16_lane(a5 + s, under, 5);
  top = v128.load16_lane(a6, top, 6);
  under = v128.load16_lane(a6 + s, under, 6);
  top = v128.load16_lane(a7, top, 7);
  under = v128.load16_lane(a7 + s, under, 7);
  return between8(top, under, fu, i16x8.sub(v128.load(WHOLE), fu), fv, v128.load(LOW_BYTES), v128.load(HALF));
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
