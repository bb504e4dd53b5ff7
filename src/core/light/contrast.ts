/** WCAG 2.2’s contrast of two colours, 1…21. */
export function contrast(one: string, other: string): number {
  const [low, high] = [luminance(one), luminance(other)].toSorted((a, b) => a - b);
  return (high! + 0.05) / (low! + 0.05);
}

/** How bright a colour is to the eye, 0…1 (WCAG 2.2, relative luminance). */
export function luminance(colour: string): number {
  const [red, green, blue] = channels(colour).map((value) =>
    value <= 10.31475 ? value / 255 / 12.92 : ((value / 255 + 0.055) / 1.055) ** 2.4,
  );
  return 0.2126 * red! + 0.7152 * green! + 0.0722 * blue!;
}

/** Red, green and blue, 0…255. @param colour as `#rrggbb`; more letters (opacity) are left out of account */
export function channels(colour: string): number[] {
  return [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));
}
