import { format } from 'date-fns';
import type { ShelfEntry } from '../../server/shows/show-service';

export type ShelfOrder = 'changed' | 'created' | 'title' | 'length';

export const SHELF_ORDERS: readonly { readonly value: ShelfOrder; readonly label: string }[] = [
  { value: 'changed', label: 'last changed first' },
  { value: 'created', label: 'newest first' },
  { value: 'title', label: 'by title' },
  { value: 'length', label: 'longest first' },
];

const natural = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** The shows of one place whose title has every word that was typed, in an order. Those of a series stand on its own page and are only found by name. */
export function shelfView(
  entries: readonly ShelfEntry[],
  place: ShelfEntry['place'],
  part: string,
  order: ShelfOrder,
): ShelfEntry[] {
  const words = plain(part).split(/\s+/).filter(Boolean);
  const compare: Record<ShelfOrder, (a: ShelfEntry, b: ShelfEntry) => number> = {
    changed: (a, b) => b.changedAt - a.changedAt,
    created: (a, b) => b.createdAt - a.createdAt,
    title: (a, b) => natural.compare(a.title, b.title),
    length: (a, b) => b.lengthMs - a.lengthMs,
  };
  return entries
    .filter((entry) => entry.place === place && (place !== 'shelf' || entry.series === null || words.length > 0))
    .filter((entry) => words.every((word) => plain(entry.title).includes(word)))
    .sort((a, b) => compare[order](a, b) || natural.compare(a.title, b.title));
}

/** Without accents and capitals, so that they need not be typed. */
function plain(text: string): string {
  return text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
}

/** What a show is called that begins with dropped files: as their folder, or by the day. */
export function titleFromFiles(
  folder: string | null,
  files: readonly { readonly webkitRelativePath?: string }[],
  today: Date,
): string {
  const named = folder ?? files[0]?.webkitRelativePath?.split('/').slice(0, -1).at(-1) ?? '';
  const title = named.replaceAll(/[_-]+/g, ' ').trim();
  return title === '' ? `Pictures of ${format(today, 'd MMMM yyyy')}` : title;
}
