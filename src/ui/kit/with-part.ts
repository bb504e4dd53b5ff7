/** An object with some of its parts set, or taken away where they are undefined; null when nothing is left of it. */
export function withPart<Whole extends object>(
  whole: Whole | undefined,
  part: Partial<Record<keyof Whole, unknown>>,
): Whole | null {
  const kept = Object.fromEntries(Object.entries({ ...whole, ...part }).filter(([, value]) => value !== undefined));
  return Object.keys(kept).length === 0 ? null : (kept as Whole);
}
