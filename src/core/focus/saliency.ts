import type { Box } from './box';

/**
 * What stands out in a picture, by colour alone.
 *
 * Minimum barrier distance (Zhang, Sclaroff, Lin, Shen, Price and Měch 2015): a place stands out when every way from the picture’s border to it crosses a step
 * in colour. Worked out by raster scans, forwards and backwards, then combined with how unlike the border’s own colours a place is (the backgroundness cue of the same work),
 * with what is sharp where most is not, and with the middle of the picture weighing a little more.
 *
 * @param rgb three bytes a pixel, at most a few hundred pixels to a side
 * @param fine how fine the picture is at each pixel, in any unit
 * @returns 0…1 a pixel
 */
export function saliencyMap(rgb: Uint8Array, width: number, height: number, fine?: Float32Array): Float32Array {
  const channels = labOf(rgb);
  const map = new Float32Array(width * height);
  for (const channel of channels) {
    const barrier = barrierDistance(channel, width, height);
    for (let at = 0; at < map.length; at += 1) map[at]! += barrier[at]!;
  }
  normalise(map);
  const unlike = unlikeBorder(channels, width, height);
  for (let at = 0; at < map.length; at += 1) map[at] = map[at]! + unlike[at]!;
  normalise(map);
  if (fine) addSharpness(map, fine);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const away = Math.hypot((x + 0.5) / width - 0.5, (y + 0.5) / height - 0.5);
      map[y * width + x]! *= Math.max(0, 1 - 0.9 * away * away);
    }
  normalise(map);
  // Told apart: what is middling is pushed to one side or the other.
  return map.map((value) => 1 / (1 + Math.exp(-10 * (value - 0.5))));
}

/** Of what stands out, so much may lie outside its box on each of its four sides: specks elsewhere do not draw it there. */
const LEFT_OUT = 0.045;
/** What stands out covers at least so much of the picture, and at most so much, or nothing does. */
const LEAST_COVERED = 0.0006;
const MOST_COVERED = 0.55;

/**
 * The box around what stands out: of the highest values of a map, nearly all.
 *
 * @returns null when hardly anything stands out, or most of the picture does
 */
export function salientBox(map: Float32Array, width: number, height: number): Box | null {
  const mean = map.reduce((sum, value) => sum + value, 0) / map.length;
  const highest = map.reduce((most, value) => Math.max(most, value), 0);
  const threshold = Math.max(1.6 * mean, 0.5 * highest);
  const across = new Float64Array(width);
  const down = new Float64Array(height);
  let count = 0;
  for (let at = 0; at < map.length; at += 1) {
    if (map[at]! < threshold) continue;
    across[at % width]! += map[at]!;
    down[Math.floor(at / width)]! += map[at]!;
    count += 1;
  }
  if (count < LEAST_COVERED * map.length || count > MOST_COVERED * map.length) return null;
  const [x0, x1] = middleOf(across);
  const [y0, y1] = middleOf(down);
  return { left: x0 / width, top: y0 / height, width: (x1 - x0) / width, height: (y1 - y0) / height };
}

/** Where a run of weights begins and ends when `LEFT_OUT` of it is cut off on either side. */
function middleOf(weights: Float64Array): [number, number] {
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  let sum = 0;
  let begin = 0;
  let end = weights.length;
  for (let at = 0; at < weights.length; at += 1) {
    const before = sum;
    sum += weights[at]!;
    if (before <= LEFT_OUT * total && sum > LEFT_OUT * total) begin = at;
    if (before < (1 - LEFT_OUT) * total && sum >= (1 - LEFT_OUT) * total) end = at + 1;
  }
  return [begin, end];
}

/** A picture that is as fine everywhere says nothing by it; one that is fine in one place was focused there. */
function addSharpness(map: Float32Array, fine: Float32Array): void {
  const mean = fine.reduce((sum, value) => sum + value, 0) / fine.length;
  const spread = Math.sqrt(fine.reduce((sum, value) => sum + (value - mean) ** 2, 0) / fine.length);
  const weight = mean > 0 ? Math.min(1.2, Math.max(0, spread / mean - 0.7)) : 0;
  if (weight === 0) return;
  const own = fine.map((value) => Math.min(value, mean + 3 * spread));
  normalise(own);
  for (let at = 0; at < map.length; at += 1) map[at] = map[at]! * (1 - 0.3 * weight) + weight * own[at]!;
  normalise(map);
}

const PASSES = 3;

/** The least range of values that a way from the border to each place has to cross. */
function barrierDistance(values: Float32Array, width: number, height: number): Float32Array {
  const distance = new Float32Array(values.length).fill(Infinity);
  const high = values.slice();
  const low = values.slice();
  for (let x = 0; x < width; x += 1) distance[x] = distance[(height - 1) * width + x] = 0;
  for (let y = 0; y < height; y += 1) distance[y * width] = distance[y * width + width - 1] = 0;
  const relax = (at: number, from: number) => {
    const value = values[at]!;
    const newHigh = Math.max(high[from]!, value);
    const newLow = Math.min(low[from]!, value);
    if (newHigh - newLow >= distance[at]!) return;
    distance[at] = newHigh - newLow;
    high[at] = newHigh;
    low[at] = newLow;
  };
  for (let pass = 0; pass < PASSES; pass += 1) {
    if (pass % 2 === 0)
      for (let y = 1; y < height - 1; y += 1)
        for (let x = 1; x < width - 1; x += 1) {
          relax(y * width + x, y * width + x - 1);
          relax(y * width + x, (y - 1) * width + x);
        }
    else
      for (let y = height - 2; y > 0; y -= 1)
        for (let x = width - 2; x > 0; x -= 1) {
          relax(y * width + x, y * width + x + 1);
          relax(y * width + x, (y + 1) * width + x);
        }
  }
  return distance.map((value) => (Number.isFinite(value) ? value : 0));
}

/** How unlike the colours of each of the four borders a place is, the least like border left out of account. */
function unlikeBorder(channels: readonly Float32Array[], width: number, height: number): Float32Array {
  const depth = Math.max(1, Math.round(0.1 * Math.min(width, height)));
  const borders: number[][] = [[], [], [], []];
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const at = y * width + x;
      if (y < depth) borders[0]!.push(at);
      if (y >= height - depth) borders[1]!.push(at);
      if (x < depth) borders[2]!.push(at);
      if (x >= width - depth) borders[3]!.push(at);
    }
  const maps = borders.map((border) => {
    const stats = channels.map((channel) => {
      const mean = border.reduce((sum, at) => sum + channel[at]!, 0) / border.length;
      const spread = border.reduce((sum, at) => sum + (channel[at]! - mean) ** 2, 0) / border.length;
      return { mean, scale: 1 / (spread + 30) };
    });
    const map = new Float32Array(width * height);
    for (let at = 0; at < map.length; at += 1) {
      let sum = 0;
      channels.forEach((channel, index) => (sum += (channel[at]! - stats[index]!.mean) ** 2 * stats[index]!.scale));
      map[at] = Math.sqrt(sum);
    }
    normalise(map);
    return map;
  });
  const out = new Float32Array(width * height);
  for (let at = 0; at < out.length; at += 1) {
    const values = maps.map((map) => map[at]!);
    out[at] = values.reduce((sum, value) => sum + value, 0) - Math.max(...values);
  }
  normalise(out);
  return out;
}

function normalise(map: Float32Array): void {
  let [least, most] = [Infinity, -Infinity];
  for (const value of map) {
    least = Math.min(least, value);
    most = Math.max(most, value);
  }
  const range = most - least;
  for (let at = 0; at < map.length; at += 1) map[at] = range > 0 ? (map[at]! - least) / range : 0;
}

/** CIE L*a*b* (D65) planes of sRGB bytes. */
function labOf(rgb: Uint8Array): readonly Float32Array[] {
  const count = rgb.length / 3;
  const planes = [new Float32Array(count), new Float32Array(count), new Float32Array(count)];
  const linear = Float32Array.from({ length: 256 }, (_, value) =>
    value <= 10 ? value / 255 / 12.92 : ((value / 255 + 0.055) / 1.055) ** 2.4,
  );
  const root = (t: number) => (t > 0.008856 ? Math.cbrt(t) : 7.787 * t + 16 / 116);
  for (let at = 0; at < count; at += 1) {
    const [r, g, b] = [linear[rgb[3 * at]!]!, linear[rgb[3 * at + 1]!]!, linear[rgb[3 * at + 2]!]!];
    const x = root((0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.9505);
    const y = root(0.2126 * r + 0.7152 * g + 0.0722 * b);
    const z = root((0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.089);
    planes[0]![at] = 116 * y - 16;
    planes[1]![at] = 500 * (x - y);
    planes[2]![at] = 200 * (y - z);
  }
  return planes;
}
