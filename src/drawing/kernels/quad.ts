// A picture drawn through any projective map: bilinear, with antialiased straight edges, over a frame or a sheet.
//
// Two rows are sampled at a time into a scratch of Y, U, V and transparency side by side, then laid over the target's planes; chroma takes the even columns of both rows.
// Along a row the map is worked out exactly every sixteen samples and goes in equal steps between, which is exact without perspective.

/** See `QuadOrder` in `quad-order.ts`, which writes it. */
const ORDER: usize = memory.data(8 * 80, 16);
const SCRATCH_BYTES: i32 = 4 * 8256;
const SCRATCH: usize = memory.data(2 * 4 * 8256, 16);
const EDGES: i32 = 29;
const BLOCK: i32 = 16;

export function quadOrder(): usize {
  return ORDER;
}

// @ts-ignore: decorator
@inline
function given(index: i32): f64 {
  return load<f64>(ORDER + 8 * index);
}

let packed: usize = 0;
let packedStride: i32 = 0;
let sourceW: i32 = 0;
let sourceH: i32 = 0;
let strength: i32 = 0;
let left: i32 = 0;
let right: i32 = 0;
let insideFrom: i32 = 0;
let insideTo: i32 = 0;

export function drawQuad(): void {
  packed = <usize>given(0);
  packedStride = <i32>given(1);
  sourceW = <i32>given(2);
  sourceH = <i32>given(3);
  const y = <usize>given(5), u = <usize>given(6), v = <usize>given(7), a = <usize>given(8), ha = <usize>given(9);
  const yStride = <i32>given(10), cStride = <i32>given(11);
  strength = <i32>Math.round(given(14) * 32767);
  const x0 = <i32>given(15), y0 = <i32>given(16), x1 = <i32>given(17), y1 = <i32>given(18);
  for (let row = y0; row < y1; row += 2) {
    let from = x1, to = x0;
    for (let part = 0; part < 2; part += 1) {
      range(row + part, x0, x1);
      if (left < right) {
        from = min(from, left);
        to = max(to, right);
      }
    }
    if (from >= to) continue;
    from &= ~15;
    to = (to + 15) & ~15;
    memory.fill(SCRATCH + 4 * from, 0, 4 * (to - from));
    memory.fill(SCRATCH + SCRATCH_BYTES + 4 * from, 0, 4 * (to - from));
    for (let part = 0; part < 2; part += 1) sampleRow(row + part, SCRATCH + part * SCRATCH_BYTES, x0, x1);
    lay(from, to, y + row * yStride, a == 0 ? 0 : a + row * yStride, yStride);
    layChroma(from, to, u + (row >> 1) * cStride, v + (row >> 1) * cStride, ha == 0 ? 0 : ha + (row >> 1) * cStride);
  }
}

/** Which samples of a row the quad touches (left…right) and which it covers wholly (insideFrom…insideTo). */
function range(row: i32, x0: i32, x1: i32): void {
  left = x0;
  right = x1;
  insideFrom = x0;
  insideTo = x1;
  const count = <i32>given(19);
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

function sampleRow(row: i32, to: usize, x0: i32, x1: i32): void {
  range(row, x0, x1);
  if (left >= right) return;
  run(row, to, left, right);
  // Samples are written in pairs: the one past the end is taken back.
  store<u32>(to + 4 * right, 0);
  if (strength < 32767) weaken(to, insideFrom, insideTo, strength);
  for (let x = left; x < min(insideFrom, right); x += 1) partly(row, to, x);
  for (let x = max(insideTo, left); x < right; x += 1) partly(row, to, x);
}

/** Share of a sample that lies within all edges: the product of how far it lies within each. */
function partly(row: i32, to: usize, x: i32): void {
  const count = <i32>given(19);
  let share = 1.0;
  for (let edge = 0; edge < count; edge += 1) {
    const d = given(EDGES + 3 * edge) * (<f64>x + 0.5) + given(EDGES + 3 * edge + 1) * (<f64>row + 0.5) + given(EDGES + 3 * edge + 2);
    share *= Math.max(0, Math.min(1, d + 0.5));
  }
  weaken(to, x, x + 1, <i32>Math.round(share * <f64>strength));
}

function weaken(to: usize, from: i32, end: i32, by: i32): void {
  const weight = i16x8.splat(<i16>by);
  const half = i16x8.splat(64);
  for (let x = from; x < end; x += 1) {
    const values = i16x8.shl(v128.extend_low<u8>(v128.load32_zero(to + 4 * x)), 7);
    const weaker = i16x8.shr_u(i16x8.add(i16x8.q15mulr_sat_s(values, weight), half), 7);
    v128.store32_lane(to + 4 * x, i8x16.narrow_i16x8_u(weaker, weaker), 0);
  }
}

/** Samples from…end of a row, into `to` + 4·x. */
function run(row: i32, to: usize, from: i32, end: i32): void {
  const m0 = given(20), m1 = given(21), m2 = given(22), m3 = given(23), m4 = given(24), m5 = given(25), m6 = given(26), m7 = given(27), m8 = given(28);
  const py = <f64>row + 0.5;
  const bu = m1 * py + m2, bv = m4 * py + m5, bw = m7 * py + m8;
  const lastU = <f64>sourceW + 1.0, lastV = <f64>sourceH - 0.001;
  let w0 = 1.0 / (m6 * (<f64>from + 0.5) + bw);
  let u0 = (m0 * (<f64>from + 0.5) + bu) * w0;
  let v0 = (m3 * (<f64>from + 0.5) + bv) * w0;
  for (let x = from; x < end; x += BLOCK) {
    const ex = <f64>(x + BLOCK) + 0.5;
    const w1 = 1.0 / (m6 * ex + bw);
    const u1 = (m0 * ex + bu) * w1;
    const v1 = (m3 * ex + bv) * w1;
    const count = min(BLOCK, end - x);
    const safe = Math.min(u0, u1) >= -4.0 && Math.max(u0, u1) <= lastU && Math.min(v0, v1) >= -2.0 && Math.max(v0, v1) <= lastV;
    if (safe) block(to + 4 * x, <i32>(u0 * 65536.0 + 0.5), <i32>(v0 * 65536.0 + 0.5), <i32>((u1 - u0) * 4096.0), <i32>((v1 - v0) * 4096.0), count);
    else careful(to + 4 * x, u0, v0, (u1 - u0) / 16.0, (v1 - v0) / 16.0, count);
    u0 = u1;
    v0 = v1;
  }
}

// @ts-ignore: decorator
@inline
function block(to: usize, u: i32, v: i32, du: i32, dv: i32, count: i32): void {
  const half = i16x8.splat(64);
  // An odd last sample is drawn with a neighbour that the next block, or nothing, overwrites.
  for (let index = 0; index < count; index += 2) {
    const atA = packed + (v >> 16) * packedStride + 4 * (u >> 16);
    const ub = u + du, vb = v + dv;
    const atB = packed + (vb >> 16) * packedStride + 4 * (ub >> 16);
    const upperA = i16x8.shl(v128.extend_low<u8>(v128.load64_zero(atA)), 7);
    const lowerA = i16x8.shl(v128.extend_low<u8>(v128.load64_zero(atA + packedStride)), 7);
    const upperB = i16x8.shl(v128.extend_low<u8>(v128.load64_zero(atB)), 7);
    const lowerB = i16x8.shl(v128.extend_low<u8>(v128.load64_zero(atB + packedStride)), 7);
    const a = i16x8.add(upperA, i16x8.q15mulr_sat_s(i16x8.sub(lowerA, upperA), i16x8.splat(<i16>((v & 0xffff) >> 1))));
    const b = i16x8.add(upperB, i16x8.q15mulr_sat_s(i16x8.sub(lowerB, upperB), i16x8.splat(<i16>((vb & 0xffff) >> 1))));
    const first = v128.shuffle<u64>(a, b, 0, 2);
    const second = v128.shuffle<u64>(a, b, 1, 3);
    const share = v128.shuffle<u64>(i16x8.splat(<i16>((u & 0xffff) >> 1)), i16x8.splat(<i16>((ub & 0xffff) >> 1)), 0, 2);
    const both = i16x8.shr_u(i16x8.add(i16x8.add(first, i16x8.q15mulr_sat_s(i16x8.sub(second, first), share)), half), 7);
    v128.store64_lane(to + 4 * index, i8x16.narrow_i16x8_u(both, both), 0);
    u = ub + du;
    v = vb + dv;
  }
}

/** Near the picture's border: every position is held to what lies in memory. */
function careful(to: usize, u: f64, v: f64, du: f64, dv: f64, count: i32): void {
  const lastU = <f64>sourceW + 1.0, lastV = <f64>sourceH - 0.001;
  for (let index = 0; index < count; index += 1) {
    const cu = <i32>(Math.max(-4.0, Math.min(lastU, u)) * 65536.0 + 0.5);
    const cv = <i32>(Math.max(-2.0, Math.min(lastV, v)) * 65536.0 + 0.5);
    block(to + 4 * index, cu, cv, 0, 0, 1);
    u += du;
    v += dv;
  }
}

/** target · (255 − alpha) / 255 + picture, rounded; exact where alpha is 0 or 255. */
// @ts-ignore: decorator
@inline
function over(target: v128, picture: v128, alpha: v128): v128 {
  const full = i16x8.splat(255);
  const round = i16x8.splat(128);
  const lo = i16x8.add(i16x8.mul(v128.extend_low<u8>(target), i16x8.sub(full, v128.extend_low<u8>(alpha))), round);
  const hi = i16x8.add(i16x8.mul(v128.extend_high<u8>(target), i16x8.sub(full, v128.extend_high<u8>(alpha))), round);
  const kept = i8x16.narrow_i16x8_u(
    i16x8.shr_u(i16x8.add(lo, i16x8.shr_u(lo, 8)), 8),
    i16x8.shr_u(i16x8.add(hi, i16x8.shr_u(hi, 8)), 8),
  );
  return i8x16.add_sat_u(kept, picture);
}

/** Both rows' luma, and their transparency where the target has one. */
function lay(from: i32, end: i32, y: usize, a: usize, stride: i32): void {
  for (let part = 0; part < 2; part += 1) {
    const row = SCRATCH + part * SCRATCH_BYTES;
    const to = y + part * stride;
    for (let x = from; x < end; x += 16) {
      const p0 = v128.load(row + 4 * x), p1 = v128.load(row + 4 * x, 16), p2 = v128.load(row + 4 * x, 32), p3 = v128.load(row + 4 * x, 48);
      const a0 = v128.shuffle<u8>(p0, p1, 3, 7, 11, 15, 19, 23, 27, 31, 0, 4, 8, 12, 16, 20, 24, 28);
      const a1 = v128.shuffle<u8>(p2, p3, 3, 7, 11, 15, 19, 23, 27, 31, 0, 4, 8, 12, 16, 20, 24, 28);
      const alpha = v128.shuffle<u64>(a0, a1, 0, 2);
      if (!v128.any_true(alpha)) continue;
      const luma = v128.shuffle<u64>(a0, a1, 1, 3);
      if (i8x16.all_true(i8x16.eq(alpha, i8x16.splat(-1)))) {
        v128.store(to + x, luma);
        if (a != 0) v128.store(a + part * stride + x, alpha);
        continue;
      }
      v128.store(to + x, over(v128.load(to + x), luma, alpha));
      if (a != 0) v128.store(a + part * stride + x, over(v128.load(a + part * stride + x), alpha, alpha));
    }
  }
}

/** Chroma of both rows together, from their even columns: that is where H.264 expects it. */
function layChroma(from: i32, end: i32, u: usize, v: usize, ha: usize): void {
  const row = SCRATCH;
  const under = SCRATCH + SCRATCH_BYTES;
  for (let x = from; x < end; x += 16) {
    const even0 = v128.shuffle<u32>(v128.load(row + 4 * x), v128.load(row + 4 * x, 16), 0, 2, 4, 6);
    const even1 = v128.shuffle<u32>(v128.load(row + 4 * x, 32), v128.load(row + 4 * x, 48), 0, 2, 4, 6);
    const under0 = v128.shuffle<u32>(v128.load(under + 4 * x), v128.load(under + 4 * x, 16), 0, 2, 4, 6);
    const under1 = v128.shuffle<u32>(v128.load(under + 4 * x, 32), v128.load(under + 4 * x, 48), 0, 2, 4, 6);
    const e0 = i8x16.avgr_u(even0, under0);
    const e1 = i8x16.avgr_u(even1, under1);
    const ua = v128.shuffle<u8>(e0, e1, 1, 5, 9, 13, 17, 21, 25, 29, 3, 7, 11, 15, 19, 23, 27, 31);
    const vv = v128.shuffle<u8>(e0, e1, 2, 6, 10, 14, 18, 22, 26, 30, 2, 6, 10, 14, 18, 22, 26, 30);
    const alpha = v128.shuffle<u64>(ua, ua, 1, 1);
    if (!v128.any_true(alpha)) continue;
    const at = x >> 1;
    v128.store64_lane(u + at, over(v128.load64_zero(u + at), ua, alpha), 0);
    v128.store64_lane(v + at, over(v128.load64_zero(v + at), vv, alpha), 0);
    if (ha != 0) v128.store64_lane(ha + at, over(v128.load64_zero(ha + at), alpha, alpha), 0);
  }
}
