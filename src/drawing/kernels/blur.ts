// Gaussian blur of a plane. A wide blur is made small first: the plane is averaged over squares, blurred there by a sampled Gaussian and brought back between the
// squares' middles; what averaging and bringing back blur by themselves is taken off. Values are kept × 64 in 16 bits and dithered on the way out, so that no steps show.
const ROW: usize = memory.data(2 * 8448, 16);
const TAPS: usize = memory.data(2 * 64, 16);
/** An ordered pattern of 0…63, as even as can be (Bayer, 1973). */
const PATTERN: usize = memory.data(64, 16);
let patterned: bool = false;

let radius: i32 = 0;

/**
 * Blurs `from` into `to` (which may be the same). `scratch` holds `blurScratchBytes`.
 * The plane's border is repeated outwards.
 */
export function blurPlane(from: usize, fromStride: i32, to: usize, toStride: i32, widthPx: i32, heightPx: i32, sigma: f64, scratch: usize): void {
  if (sigma < 0.2) {
    for (let row = 0; row < heightPx; row += 1) memory.copy(to + row * toStride, from + row * fromStride, widthPx);
    return;
  }
  let square = 1;
  while (sigma / <f64>square >= 4.0 && square < 32) square *= 2;
  // Squares beyond the border, of the border's own samples: it is repeated as finely as it is.
  const pad = square == 1 ? 0 : 1;
  const w = (widthPx + square - 1) / square + 2 * pad;
  const h = (heightPx + square - 1) / square + 2 * pad;
  const stride = (w + 23) & ~7;
  const other = scratch + 2 * stride * (h + 2);
  const s = sigma / <f64>square;
  // A square's average and linear interpolation have the variances 1/12 and 1/6 of a square.
  weigh(square == 1 ? s : Math.sqrt(Math.max(0.05, s * s - 0.25)));
  shrink(from, fromStride, widthPx, heightPx, square, scratch + 2 * pad * (stride + 1), stride, w - 2 * pad, h - 2 * pad);
  if (pad != 0) surround(from, fromStride, widthPx, heightPx, square, scratch, stride, w, h);
  for (let row = 0; row < h; row += 1) across(scratch + 2 * row * stride, other + 2 * row * stride, w);
  down(other, scratch, stride, w, h);
  enlarge(scratch, stride, w, h, square, <f64>pad - 0.5, to, toStride, widthPx, heightPx);
}

export function blurScratchBytes(widthPx: i32, heightPx: i32): i32 {
  return 4 * (widthPx + 32) * (heightPx + 4) + 256;
}

/** Weights of a sampled Gaussian out to three sigma, in Q15, but for the middle's, which is what is left. */
function weigh(sigma: f64): void {
  radius = min(15, <i32>Math.ceil(3.0 * sigma));
  let total = 0.0;
  for (let tap = -radius; tap <= radius; tap += 1) total += Math.exp(-<f64>(tap * tap) / (2.0 * sigma * sigma));
  for (let tap = 1; tap <= radius; tap += 1) store<i16>(TAPS + 2 * tap, <i16>Math.round((32768.0 * Math.exp(-<f64>(tap * tap) / (2.0 * sigma * sigma))) / total));
}

/** Rows are summed first, then squares along them: up to 32 rows of 255 fit sixteen bits. Squares that reach over the border count it again. */
function shrink(from: usize, fromStride: i32, widthPx: i32, heightPx: i32, square: i32, to: usize, stride: i32, w: i32, h: i32): void {
  for (let row = 0; row < h; row += 1) {
    const y0 = row * square;
    for (let x = 0; x < widthPx; x += 16) {
      let lo = i16x8.splat(0), hi = i16x8.splat(0);
      for (let y = y0; y < y0 + square; y += 1) {
        const value = v128.load(from + min(heightPx - 1, y) * fromStride + x);
        lo = i16x8.add(lo, v128.extend_low<u8>(value));
        hi = i16x8.add(hi, v128.extend_high<u8>(value));
      }
      v128.store(ROW + 2 * x, lo);
      v128.store(ROW + 2 * x, hi, 16);
    }
    const line = to + 2 * row * stride;
    if (square == 1) {
      for (let x = 0; x < w; x += 8) v128.store(line + 2 * x, i16x8.shl(v128.load(ROW + 2 * x), 6));
      continue;
    }
    // Squares have a power of two of samples: dividing is shifting.
    const shift = 2 * ctz(square), half = (square * square) >> 1;
    for (let x = widthPx; x < w * square; x += 1) store<i16>(ROW + 2 * x, load<i16>(ROW + 2 * (widthPx - 1)));
    if (square == 2) {
      const halves = i32x4.splat(half);
      for (let column = 0; column < w; column += 8) {
        const lo = i32x4.extadd_pairwise_i16x8_u(v128.load(ROW + 4 * column)), hi = i32x4.extadd_pairwise_i16x8_u(v128.load(ROW + 4 * column, 16));
        v128.store(line + 2 * column, i16x8.narrow_i32x4_s(i32x4.shr_u(i32x4.add(i32x4.shl(lo, 6), halves), 2), i32x4.shr_u(i32x4.add(i32x4.shl(hi, 6), halves), 2)));
      }
      continue;
    }
    for (let column = 0; column < w; column += 1) {
      const x0 = column * square;
      let sum: i32 = 0;
      for (let x = x0; x < x0 + square; x += 1) sum += <i32>load<u16>(ROW + 2 * x);
      store<i16>(line + 2 * column, <i16>((sum * 64 + half) >> shift));
    }
  }
}

/** Fills the outermost squares: each is the mean of the border samples it continues. */
function surround(from: usize, fromStride: i32, widthPx: i32, heightPx: i32, square: i32, to: usize, stride: i32, w: i32, h: i32): void {
  const shift = ctz(square), half = square >> 1;
  const last = from + (heightPx - 1) * fromStride;
  for (let row = 1; row < h - 1; row += 1) {
    let left: i32 = 0, right: i32 = 0;
    for (let step = 0; step < square; step += 1) {
      const line = from + min(heightPx - 1, (row - 1) * square + step) * fromStride;
      left += <i32>load<u8>(line);
      right += <i32>load<u8>(line + widthPx - 1);
    }
    store<i16>(to + 2 * row * stride, <i16>((left * 64 + half) >> shift));
    store<i16>(to + 2 * (row * stride + w - 1), <i16>((right * 64 + half) >> shift));
  }
  for (let column = 1; column < w - 1; column += 1) {
    let top: i32 = 0, bottom: i32 = 0;
    for (let step = 0; step < square; step += 1) {
      const x = min(widthPx - 1, (column - 1) * square + step);
      top += <i32>load<u8>(from + x);
      bottom += <i32>load<u8>(last + x);
    }
    store<i16>(to + 2 * column, <i16>((top * 64 + half) >> shift));
    store<i16>(to + 2 * ((h - 1) * stride + column), <i16>((bottom * 64 + half) >> shift));
  }
  store<i16>(to, <i16>(<i32>load<u8>(from) << 6));
  store<i16>(to + 2 * (w - 1), <i16>(<i32>load<u8>(from + widthPx - 1) << 6));
  store<i16>(to + 2 * (h - 1) * stride, <i16>(<i32>load<u8>(last) << 6));
  store<i16>(to + 2 * ((h - 1) * stride + w - 1), <i16>(<i32>load<u8>(last + widthPx - 1) << 6));
}

function across(from: usize, to: usize, w: i32): void {
  for (let x = 0; x < radius; x += 1) {
    store<i16>(ROW + 2 * x, load<i16>(from));
    store<i16>(ROW + 2 * (radius + w + x), load<i16>(from + 2 * (w - 1)));
  }
  memory.copy(ROW + 2 * radius, from, 2 * w);
  for (let x = 0; x < w; x += 8) {
    // What each pair of neighbours differs by from the middle is added: a plane of one value stays it exactly.
    let sum = v128.load(ROW + 2 * (x + radius));
    const twice = i16x8.shl(sum, 1);
    for (let tap = 1; tap <= radius; tap += 1) {
      const both = i16x8.sub(i16x8.add(v128.load(ROW + 2 * (x + radius - tap)), v128.load(ROW + 2 * (x + radius + tap))), twice);
      sum = i16x8.add(sum, i16x8.q15mulr_sat_s(both, i16x8.splat(load<i16>(TAPS + 2 * tap))));
    }
    v128.store(to + 2 * x, sum);
  }
}

/** Two values at × 64 together reach 32 640, which still fits. */
function down(from: usize, to: usize, stride: i32, w: i32, h: i32): void {
  for (let row = 0; row < h; row += 1) {
    for (let x = 0; x < w; x += 8) {
      let sum = v128.load(from + 2 * (row * stride + x));
      const twice = i16x8.shl(sum, 1);
      for (let tap = 1; tap <= radius; tap += 1) {
        const above = from + 2 * (max(0, row - tap) * stride + x);
        const below = from + 2 * (min(h - 1, row + tap) * stride + x);
        sum = i16x8.add(sum, i16x8.q15mulr_sat_s(i16x8.sub(i16x8.add(v128.load(above), v128.load(below)), twice), i16x8.splat(load<i16>(TAPS + 2 * tap))));
      }
      v128.store(to + 2 * (row * stride + x), sum);
    }
  }
}

/** Per group of eight columns: where its first left neighbour lies, which of the next are whose (bytes of a swizzle), and the shares of the right neighbours. */
const BASES: usize = memory.data(4 * 1056, 16);
const NEIGHBOURS: usize = memory.data(16 * 1056, 16);
const SHARES: usize = memory.data(2 * 8448, 16);

/** @param shift where the first square's middle lies, in squares from the plane's border */
function enlarge(from: usize, stride: i32, w: i32, h: i32, square: i32, shift: f64, to: usize, toStride: i32, widthPx: i32, heightPx: i32): void {
  makePattern();
  const step = 1.0 / <f64>square;
  for (let group = 0; group < (widthPx + 7) >> 3; group += 1) {
    let base: i32 = 0;
    for (let lane = 0; lane < 8; lane += 1) {
      const at = Math.max(0, Math.min(<f64>(w - 1), (<f64>(8 * group + lane) + 0.5) * step + shift));
      const left = max<i32>(0, min<i32>(w - 2, <i32>at));
      if (lane == 0) base = left;
      store<u8>(NEIGHBOURS + 16 * group + 2 * lane, <u8>(2 * (left - base)));
      store<u8>(NEIGHBOURS + 16 * group + 2 * lane + 1, <u8>(2 * (left - base) + 1));
      const share = w < 2 ? 0.0 : (at - <f64>left) * 32767.0;
      store<i16>(SHARES + 2 * (8 * group + lane), <i16>share);
    }
    store<i32>(BASES + 4 * group, base);
  }
  for (let y = 0; y < heightPx; y += 1) {
    const at = Math.max(0, Math.min(<f64>(h - 1), (<f64>y + 0.5) * step + shift));
    const upper = max<i32>(0, min<i32>(h - 2, <i32>at));
    const down = h < 2 ? 0.0 : (at - <f64>upper) * 32767.0;
    const share = i16x8.splat(<i16>down);
    const a = from + 2 * upper * stride, b = h < 2 ? a : a + 2 * stride;
    for (let x = 0; x <= w; x += 8) {
      const va = v128.load(a + 2 * x);
      v128.store(ROW + 2 * x, i16x8.add(va, i16x8.q15mulr_sat_s(i16x8.sub(v128.load(b + 2 * x), va), share)));
    }
    const noise = v128.extend_low<u8>(v128.load64_zero(PATTERN + 8 * (y & 7)));
    const line = to + y * toStride;
    for (let group = 0; group < (widthPx + 7) >> 3; group += 1) {
      let value: v128;
      if (square == 1) value = v128.load(ROW + 16 * group);
      else {
        const near = ROW + 2 * load<i32>(BASES + 4 * group);
        const neighbours = v128.load(NEIGHBOURS + 16 * group);
        const first = v128.swizzle(v128.load(near), neighbours);
        const second = v128.swizzle(v128.load(near, 2), neighbours);
        value = i16x8.add(first, i16x8.q15mulr_sat_s(i16x8.sub(second, first), v128.load(SHARES + 16 * group)));
      }
      const out = i16x8.shr_s(i16x8.add(value, noise), 6);
      v128.store64_lane(line + 8 * group, i8x16.narrow_i16x8_u(out, out), 0);
    }
  }
}

export function makePattern(): usize {
  if (patterned) return PATTERN;
  patterned = true;
  for (let y = 0; y < 8; y += 1) for (let x = 0; x < 8; x += 1) {
    let value = 0;
    for (let bit = 0; bit < 3; bit += 1) value |= ((((x ^ y) >> bit) & 1) << (2 * (2 - bit) + 1)) | (((y >> bit) & 1) << (2 * (2 - bit)));
    store<u8>(PATTERN + 8 * y + x, <u8>value);
  }
  return PATTERN;
}

/** Blocks of one value each: the mean of what they cover. Blocks are counted from the middle; sizes and offsets in samples, may be fractional. */
export function mosaicPlane(from: usize, to: usize, stride: i32, widthPx: i32, heightPx: i32, blockW: f64, blockH: f64): void {
  const middleX = <f64>widthPx / 2.0, middleY = <f64>heightPx / 2.0;
  let y = 0;
  while (y < heightPx) {
    const rowIndex = Math.floor((<f64>y + 0.5 - middleY) / blockH + 0.5);
    const y1 = max(y + 1, min(heightPx, <i32>Math.round(middleY + (rowIndex + 0.5) * blockH)));
    let x = 0;
    while (x < widthPx) {
      const columnIndex = Math.floor((<f64>x + 0.5 - middleX) / blockW + 0.5);
      const x1 = max(x + 1, min(widthPx, <i32>Math.round(middleX + (columnIndex + 0.5) * blockW)));
      let sum = 0;
      for (let yy = y; yy < y1; yy += 1) for (let xx = x; xx < x1; xx += 1) sum += <i32>load<u8>(from + yy * stride + xx);
      const count = (x1 - x) * (y1 - y);
      const mean = (sum + (count >> 1)) / count;
      for (let yy = y; yy < y1; yy += 1) memory.fill(to + yy * stride + x, <u8>mean, x1 - x);
      x = x1;
    }
    y = y1;
  }
}
