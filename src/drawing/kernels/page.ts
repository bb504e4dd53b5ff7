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
  // Far on the flat side nothing of the page's back reaches, far on the other no shadow falls: there rows are copied.
  const corners = Math.max(Math.max(0, <f64>widthPx * dirX), Math.max(<f64>heightPx * dirY, <f64>widthPx * dirX + <f64>heightPx * dirY));
  const flat = Math.min(fold - 3.0 * radius, 2.0 * fold + half - corners - 2.0);
  const bare = fold + 6.6 * radius;
  for (let y = 0; y < heightPx; y += 1) {
    memory.copy(to + y * stride, a + y * stride, widthPx);
    for (let x = 0; x < widthPx; x += 1) {
      const s = (<f64>x + 0.5) * dirX + (<f64>y + 0.5) * dirY;
      const at = y * stride + x;
      if (s < flat) continue;
      if (s > bare) {
        store<u8>(to + at, load<u8>(b + at));
        continue;
      }
      if (s < fold) {
        const shift = half + 2.0 * (fold - s);
        const px = <f64>x + shift * dirX, py = <f64>y + shift * dirY;
        const cover = within(px, py);
        let value = <f64>load<u8>(a + at);
        if (cover < 1.0) value = floor + (value - floor) * (1.0 - 0.3 * near(fold - s, radius));
        if (cover > 0) value += (back(px, py, floor, paper, 0.97) - value) * cover;
        store<u8>(to + at, <u8>(value + 0.5));
        continue;
      }
      let value = <f64>load<u8>(b + at);
      value = floor + (value - floor) * (1.0 - 0.45 * near(s - fold, 2.2 * radius));
      if (s < fold + radius) {
        const angle = Math.asin((s - fold) / radius);
        // Half a sample at the cylinder's outermost line is antialiased.
        const rim = Math.min(1.0, fold + radius - s);
        const upFront = radius * angle - (s - fold);
        const frontCover = within(<f64>x + upFront * dirX, <f64>y + upFront * dirY) * rim;
        if (frontCover > 0) {
          const face = floor + (sample(<f64>x + upFront * dirX, <f64>y + upFront * dirY) - floor) * (1.0 - 0.5 * (1.0 - Math.cos(angle)));
          value += (face - value) * frontCover;
        }
        const over = radius * (Math.PI - angle) - (s - fold);
        const backCover = within(<f64>x + over * dirX, <f64>y + over * dirY) * rim;
        if (backCover > 0) {
          const shade = 0.62 + 0.35 * Math.cos(angle - 0.35);
          value += (back(<f64>x + over * dirX, <f64>y + over * dirY, floor, paper, shade) - value) * backCover;
        }
      }
      store<u8>(to + at, <u8>Math.max(0, Math.min(255, value + 0.5)));
    }
  }
}

/** 1 beside the fold, falling to 0 within about three radii. */
// @ts-ignore: decorator
@inline
function near(distance: f64, radius: f64): f64 {
  const share = 1.0 - distance / (3.0 * radius);
  return share <= 0 ? 0 : share * share;
}

/** 1 on the page, 0 beyond it, with half a sample on either side of its border between. */
// @ts-ignore: decorator
@inline
function within(x: f64, y: f64): f64 {
  const across = Math.min(x + 1.0, lastX + 1.0 - x), down = Math.min(y + 1.0, lastY + 1.0 - y);
  return Math.max(0, Math.min(1, across)) * Math.max(0, Math.min(1, down));
}

/** The back of the page: paper through which the picture shows a little. */
// @ts-ignore: decorator
@inline
function back(x: f64, y: f64, floor: f64, paper: f64, shade: f64): f64 {
  // So faint that the nearest sample is as good as any between.
  const at = <i32>Math.max(0, Math.min(lastY, y + 0.5)) * rowBytes + <i32>Math.max(0, Math.min(lastX, x + 0.5));
  const shows = paper + (<f64>load<u8>(plane + at) - paper) * 0.12;
  return floor + (shows - floor) * shade;
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
