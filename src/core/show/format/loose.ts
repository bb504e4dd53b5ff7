/** Something read from a document that nobody has checked yet. */
export type Loose = Readonly<Record<string, unknown>>;

export function isLoose(value: unknown): value is Loose {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** A list of an edit that was checked when it was accepted. */
export function entriesOf(entries: unknown): readonly Loose[] {
  return entries as readonly Loose[];
}
