/** Share of a picture that may be lost to pure black, and to pure white. */
const LEFT_OUT = 0.005;

/**
 * Black and white points of a picture: what one click on levels takes.
 *
 * @param histogram counts by brightness, first for black, last for white
 * @returns both 0…1, at least a fifth apart, so that a plain grey is not torn to black and white
 */
export function tonePoints(histogram: readonly number[]): { black: number; white: number } {
  const total = histogram.reduce((sum, count) => sum + count, 0);
  const edge = (order: readonly number[]) => {
    let passed = 0;
    for (const index of order) {
      passed += histogram[index]!;
      if (passed > LEFT_OUT * total) return index / (histogram.length - 1);
    }
    return order[0]! / (histogram.length - 1);
  };
  const rising = histogram.map((_, index) => index);
  const [black, white] = [edge(rising), edge([...rising].reverse())];
  const missing = Math.max(0, 0.2 - (white - black));
  return { black: Math.max(0, black - missing / 2), white: Math.min(1, white + missing / 2) };
}
