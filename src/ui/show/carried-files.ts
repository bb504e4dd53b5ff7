/** Files dropped on the shelf wait here while the page of their new show opens. */
const carried = new Map<string, readonly File[]>();

export function carryFiles(showId: string, files: readonly File[]): void {
  carried.set(showId, files);
}

/** Hands them out once. */
export function takeCarriedFiles(showId: string): readonly File[] {
  const files = carried.get(showId) ?? [];
  carried.delete(showId);
  return files;
}
