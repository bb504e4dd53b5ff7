// A page that is turned: one plane of the leaving frame rolled over a cylinder that crosses the incoming one.

let plane: usize = 0;
let rowBytes: i32 = 0;
let lastX: f64 = 0;
let lastY: f64 = 0;

/**
 * The page lies flat up to the line s = fold, goes up round a cylinder of the given radius and lies face down beyond its top; s is the distance of a sample along
 * (dirX, dirY), a unit vector towards the side that is lifted. `floor` is what darkness shades towards (16 for luma, 128 for chroma), `paper` the back of the page.
 * All lengths in this plane's samples.
 */
export function turnPagePlane(a: usize, b: usize, to: usize, stride: i32, widthPx: i32, heightPx: i32, dirX: f64, dirY: f64, fold: f64, radius: f64, floor: f64, paper: f64): void {
  plane = a;
  rowBytes = stride;
  lastX = <f64>widthPx - 1.0;
  lastY = <f64>heightPx - 1.0;
  const half = Math.PI * radius;
  tabulate(radius, floor, paper);
  // Far on the flat side nothing of the page's back reaches, far on the other no shadow falls: there rows are copied.
  const corners = Math.max(Math.max(0, <f64>widthPx * dirX), Math.max(<f64>heightPx * dirY, <f64>widthPx * dirX + <f64>heightPx * dirY));
  const flat = Math.min(fold - 3.0 * radius, 2.0 * fold + half - corners - 2.0);
  const bare = fold + 6.6 * radius;
  const shift = (half + 2.0 * fold) * dirX, stepX = 1.0 - 2.0 * dirX * dirX, stepY = -2.0 * dirX * dirY;
  for (let y = 0; y < heightPx; y += 1) {
    const from = a + y * stride, under = b + y * stride, line = to + y * stride;
    const s0 = 0.5 * dirX + (<f64>y + 0.5) * dirY;
    // Places along the row where s is so much, and which of two of them comes first.
    const atFlat = place(flat, s0, dirX, widthPx), atFold = place(fold, s0, dirX, widthPx), atTop = place(fold + radius, s0, dirX, widthPx), atBare = place(bare, s0, dirX, widthPx);
    const rising = dirX > 0;
    if (rising) {
      memory.copy(line, from, atFlat);
      memory.copy(line + atBare, under + atBare, widthPx - atBare);
    } else {
      memory.copy(line + atFlat, from + atFlat, widthPx - atFlat);
      memory.copy(line, under, atBare);
    }
    const flatFrom = rising ? atFlat : atFold, flatTo = rising ? atFold : atFlat;
    darken(line, from, flatFrom, flatTo, (fold - s0) / (3.0 * radius), -dirX / (3.0 * radius), 0.3, floor);
    const shadeFrom = rising ? atFold : atBare, shadeTo = rising ? atBare : atFold;
    darken(line, under, shadeFrom, shadeTo, (s0 - fold) / (6.6 * radius), dirX / (6.6 * radius), 0.45, floor);
    // The back of the page over the flat part: its places go in equal steps along the row.
    const px = shift - 2.0 * s0 * dirX, py = <f64>y + (half + 2.0 * fold - 2.0 * s0) * dirY;
    backOver(line, flatFrom, flatTo, px, py, stepX, stepY);
    const roundFrom = rising ? atFold : atTop, roundTo = rising ? atTop : atFold;
    for (let x = roundFrom; x < roundTo; x += 1) {
      const up = s0 + <f64>x * dirX - fold;
      const step = <i32>(up / radius * <f64>STEPS);
      const over = half - load<f64>(FRONT + 8 * step) - up;
      const backX = <f64>x + over * dirX, backY = <f64>y + over * dirY;
      // Half a sample at the cylinder's outermost line is antialiased.
      const rim = Math.min(1.0, radius - up);
      const backCover = within(backX, backY) * rim;
      let value = <f64>load<u8>(line + x);
      if (backCover < 1) {
        const upFront = load<f64>(FRONT + 8 * step) - up;
        const frontX = <f64>x + upFront * dirX, frontY = <f64>y + upFront * dirY;
        const frontCover = within(frontX, frontY) * rim;
        if (frontCover > 0) value += (floor + (sample(frontX, frontY) - floor) * load<f64>(FRONT_SHADE + 8 * step) - value) * frontCover;
      }
      if (backCover > 0) value += (shown(<f64>load<u8>(nearest(backX, backY)), floor, paper, load<f64>(BACK_SHADE + 8 * step)) - value) * backCover;
      store<u8>(line + x, <u8>Math.max(0, Math.min(255, value + 0.5)));
    }
  }
}

/** For steps of the way from the fold to the cylinder's outermost line: the way up round it in samples, and how light the page's face and back are there. */
const STEPS: i32 = 2048;
const FRONT: usize = memory.data(8 * 2049, 16);
const FRONT_SHADE: usize = memory.data(8 * 2049, 16);
const BACK_SHADE: usize = memory.data(8 * 2049, 16);
/** What the back of the lying page shows where a sample of its picture has a value. */
const BACK: usize = memory.data(256, 16);

function tabulate(radius: f64, floor: f64, paper: f64): void {
  for (let step = 0; step <= STEPS; step += 1) {
    const angle = Math.asin(Math.min(1.0, (<f64>step + 0.5) / <f64>STEPS));
    store<f64>(FRONT + 8 * step, radius * angle);
    store<f64>(FRONT_SHADE + 8 * step, 1.0 - 0.5 * (1.0 - Math.cos(angle)));
    store<f64>(BACK_SHADE + 8 * step, 0.62 + 0.35 * Math.cos(angle - 0.35));
  }
  for (let value = 0; value < 256; value += 1) store<u8>(BACK + value, <u8>(shown(<f64>value, floor, paper, 0.97) + 0.5));
}

/** The first column at or beyond the place where s is so much, along a row whose column 0 has s0. */
// @ts-ignore: decorator
@inline
function place(s: f64, s0: f64, step: f64, widthPx: i32): i32 {
  return <i32>Math.max(0, Math.min(<f64>widthPx, Math.ceil((s - s0) / step)));
}

const LANES: usize = memory.data(16, 16);
const LAST: usize = memory.data(16, 16);

/** Shades towards the floor: by all of `depth` where the distance is 0, falling with its square to nothing where it is 1. The distance goes in equal steps. In Q15. */
function darken(to: usize, from: usize, start: i32, end: i32, distance: f64, step: f64, depth: f64, floor: f64): void {
  for (let lane = 0; lane < 8; lane += 1) store<i16>(LANES + 2 * lane, <i16>(-32767.0 * step * <f64>lane));
  const lanes = v128.load(LANES), most = i16x8.splat(<i16>(32767.0 * depth)), ground = i16x8.splat(<i16>floor), none = i16x8.splat(0), full = i16x8.splat(32767), half = i16x8.splat(64);
  for (let x = start; x < end; x += 8) {
    const nearest = Math.max(-24000, Math.min(32767, 32767.0 * (1.0 - distance - <f64>x * step)));
    const near = i16x8.max_s(none, i16x8.add_sat_s(i16x8.splat(<i16>nearest), lanes));
    const light = i16x8.sub(full, i16x8.q15mulr_sat_s(most, i16x8.q15mulr_sat_s(near, near)));
    const above = i16x8.shl(i16x8.sub(v128.extend_low<u8>(v128.load64_zero(from + x)), ground), 7);
    const value = i16x8.add(ground, i16x8.shr_s(i16x8.add(i16x8.q15mulr_sat_s(above, light), half), 7));
    const out = i8x16.narrow_i16x8_u(value, value);
    if (x + 8 <= end) v128.store64_lane(to + x, out, 0);
    else {
      v128.store(LAST, out);
      memory.copy(to + x, LAST, end - x);
    }
  }
}

/** The back of the page where it lies: whole between its borders, weighed by its share of a sample on them. Its place for column 0, and the steps along the row. */
function backOver(line: usize, start: i32, end: i32, px: f64, py: f64, stepX: f64, stepY: f64): void {
  const from = max(enter(start, px, stepX, -1.0, lastX + 1.0), enter(start, py, stepY, -1.0, lastY + 1.0));
  const to = min(leave(end, px, stepX, -1.0, lastX + 1.0), leave(end, py, stepY, -1.0, lastY + 1.0));
  if (from >= to) return;
  const wholeFrom = min(to, max(from, max(enter(start, px, stepX, 0, lastX), enter(start, py, stepY, 0, lastY))));
  const wholeTo = max(wholeFrom, min(to, min(leave(end, px, stepX, 0, lastX), leave(end, py, stepY, 0, lastY))));
  for (let x = from; x < wholeFrom; x += 1) backPartly(line + x, px + <f64>x * stepX, py + <f64>x * stepY);
  for (let x = wholeTo; x < to; x += 1) backPartly(line + x, px + <f64>x * stepX, py + <f64>x * stepY);
  let u = <i32>((px + <f64>wholeFrom * stepX + 0.5) * 65536.0), v = <i32>((py + <f64>wholeFrom * stepY + 0.5) * 65536.0);
  const du = <i32>(stepX * 65536.0), dv = <i32>(stepY * 65536.0);
  for (let x = wholeFrom; x < wholeTo; x += 1, u += du, v += dv) store<u8>(line + x, load<u8>(BACK + <i32>load<u8>(plane + (v >> 16) * rowBytes + (u >> 16))));
}

function backPartly(to: usize, x: f64, y: f64): void {
  const cover = within(x, y);
  const value = <f64>load<u8>(to);
  store<u8>(to, <u8>(value + (<f64>load<u8>(BACK + <i32>load<u8>(nearest(x, y))) - value) * cover + 0.5));
}

/** The first column from `start` on at which a place that goes in equal steps is no lower than `low` and no higher than `high`; a column far out where it never is. */
function enter(start: i32, place: f64, step: f64, low: f64, high: f64): i32 {
  if (Math.abs(step) < 1e-9) return place >= low && place <= high ? start : 100000;
  return max(start, <i32>Math.ceil(Math.max(-100000, Math.min(100000, ((step > 0 ? low : high) - place) / step))));
}

/** One beyond the last such column before `end`. */
function leave(end: i32, place: f64, step: f64, low: f64, high: f64): i32 {
  if (Math.abs(step) < 1e-9) return place >= low && place <= high ? end : -100000;
  return min(end, <i32>Math.floor(Math.max(-100000, Math.min(100000, ((step > 0 ? high : low) - place) / step))) + 1);
}

/** 1 on the page, 0 beyond it, with half a sample on either side of its border between. */
// @ts-ignore: decorator
@inline
function within(x: f64, y: f64): f64 {
  if (x >= 0 && x <= lastX && y >= 0 && y <= lastY) return 1;
  const across = Math.min(x + 1.0, lastX + 1.0 - x), down = Math.min(y + 1.0, lastY + 1.0 - y);
  return Math.max(0, Math.min(1, across)) * Math.max(0, Math.min(1, down));
}

/** The back of the page: paper through which the picture shows a little. */
// @ts-ignore: decorator
@inline
function shown(value: f64, floor: f64, paper: f64, shade: f64): f64 {
  return floor + (paper + (value - paper) * 0.12 - floor) * shade;
}

/** So faint does it show that the nearest sample is as good as any between. */
// @ts-ignore: decorator
@inline
function nearest(x: f64, y: f64): usize {
  return plane + <i32>Math.max(0, Math.min(lastY, y + 0.5)) * rowBytes + <i32>Math.max(0, Math.min(lastX, x + 0.5));
}

function sample(x: f64, y: f64): f64 {
  const cx = Math.max(0, Math.min(lastX, x)), cy = Math.max(0, Math.min(lastY, y));
  const x0 = <i32>cx, y0 = <i32>cy;
  const fx = cx - <f64>x0, fy = cy - <f64>y0;
  const at = plane + y0 * rowBytes + x0;
  // The planes are padded: the right and lower neighbours of the last samples exist.
  const top = <f64>load<u8>(at) + (<f64>load<u8>(at, 1) - <f64>load<u8>(at)) * fx;
  const under = at + rowBytes;
  const low = <f64>load<u8>(under) + (<f64>load<u8>(under, 1) - <f64>load<u8>(under)) * fx;
  return top + (low - top) * fy;
}
