/**
 * Nearly a Gaussian blur in place, edges repeated, in a time that does not grow with sigma: three running means one after the other (Wells 1986), within a few percent of the Gaussian. For effects, where
 * a reach of dozens of pixels is usual.
 */
export function smooth(plane: Float32Array, width: number, height: number, sigma: number): void {
  for (const radius of boxRadii(sigma)) {
    if (radius < 1) continue;
    meanOfRows(plane, width, height, radius);
    meanOfColumns(plane, width, height, radius);
  }
}

/** Three widths whose variances add up to sigma’s. */
function boxRadii(sigma: number): readonly number[] {
  const ideal = Math.sqrt(4 * sigma * sigma + 1);
  const lower = Math.max(1, 2 * Math.floor((ideal - 1) / 2) + 1);
  const lowerCount = Math.round((12 * sigma * sigma - 3 * lower * lower - 12 * lower - 9) / (-4 * lower - 4));
  return [0, 1, 2].map((index) => ((index < lowerCount ? lower : lower + 2) - 1) / 2);
}

function meanOfRows(plane: Float32Array, width: number, height: number, radius: number): void {
  const line = new Float32Array(width);
  const share = 1 / (2 * radius + 1);
  for (let y = 0; y < height; y += 1) {
    const start = y * width;
    line.set(plane.subarray(start, start + width));
    const [first, last] = [line[0]!, line[width - 1]!];
    let sum = (radius + 1) * first;
    for (let x = 0; x < radius; x += 1) sum += line[Math.min(width - 1, x)]!;
    for (let x = 0; x < width; x += 1) {
      sum += (x + radius < width ? line[x + radius]! : last) - (x > radius ? line[x - radius - 1]! : first);
      plane[start + x] = sum * share;
    }
  }
}

/** All columns at once, a row at a time, as they lie in memory. */
function meanOfColumns(plane: Float32Array, width: number, height: number, radius: number): void {
  const from = plane.slice();
  const sums = new Float32Array(width);
  const share = 1 / (2 * radius + 1);
  const row = (y: number) => width * Math.min(height - 1, Math.max(0, y));
  for (let y = -radius - 1; y < radius; y += 1)
    for (let x = 0, at = row(y); x < width; x += 1) sums[x]! += from[at + x]!;
  for (let y = 0; y < height; y += 1) {
    const [coming, going, to] = [row(y + radius), row(y - radius - 1), y * width];
    for (let x = 0; x < width; x += 1) {
      sums[x]! += from[coming + x]! - from[going + x]!;
      plane[to + x] = sums[x]! * share;
    }
  }
}
