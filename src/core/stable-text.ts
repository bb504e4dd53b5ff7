/** JSON with the parts of every object in the order of their names: equal values, equal texts, in whatever order they were written. */
export function stableText(value: unknown): string {
  return JSON.stringify(value, (_key, part: unknown) => {
    if (typeof part !== 'object' || part === null || Array.isArray(part)) return part;
    return Object.fromEntries(Object.entries(part).sort(([one], [other]) => (one < other ? -1 : 1)));
  });
}
