/** Gaussian blur in place, edges repeated: the sampled kernel out to three sigma, rows then columns. */
export function blur(plane: Float32Array, width: number, height: number, sigma: number): void {
  const radius = Math.ceil(3 * sigma);
  const weights = Float32Array.from({ length: 2 * radius + 1 }, (_, index) =>
    Math.exp(-((index - radius) ** 2) / (2 * sigma * sigma)),
  );
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  for (let index = 0; index < weights.length; index += 1) weights[index] = weights[index]! / total;
  const pass = (lines: number, length: number, lineStep: number, step: number) => {
    const line = new Float32Array(length + 2 * radius);
    for (let at = 0; at < lines; at += 1) {
      const start = at * lineStep;
      for (let index = 0; index < line.length; index += 1)
        line[index] = plane[start + step * Math.min(length - 1, Math.max(0, index - radius))]!;
      for (let index = 0; index < length; index += 1) {
        let sum = 0;
        for (let tap = 0; tap < weights.length; tap += 1) sum += weights[tap]! * line[index + tap]!;
        plane[start + step * index] = sum;
      }
    }
  };
  pass(height, width, width, 1);
  pass(width, height, 1, width);
}
