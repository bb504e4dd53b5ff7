/** “3 June 2026”, in the reader’s own way. */
export function dayOf(at: number): string {
  return new Date(at).toLocaleDateString(undefined, { day: 'numeric', month: 'long', year: 'numeric' });
}

/** With the time of day. */
export function momentOf(at: number): string {
  return new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
}
