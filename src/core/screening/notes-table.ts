import type { SlideId } from '../show/ids';
import { asCsv } from '../tables/csv';
import type { KeptNote } from './guest-note';

const COLUMNS = ['moment', 'slide', 'kind', 'name', 'words', 'state', 'written', 'answer to'];

/**
 * A guest book as CSV.
 *
 * @param slides of the show as it is now; a note whose slide is gone has none
 */
export function notesTable(notes: readonly KeptNote[], slides: readonly { readonly id: SlideId }[]): string {
  const numbers = new Map(slides.map(({ id }, index) => [id, index + 1]));
  const rows = notes.map((note) => [
    moment(note.atMs),
    String((note.slideId && numbers.get(note.slideId)) ?? ''),
    note.kind,
    note.name,
    note.words,
    note.state,
    new Date(note.createdAt).toISOString(),
    notes.find(({ id }) => id === note.replyTo)?.words ?? '',
  ]);
  return asCsv([COLUMNS, ...rows]);
}

/** 75250 → 1:15.2 */
function moment(ms: number): string {
  const tenths = Math.floor(ms / 100);
  return `${Math.floor(tenths / 600)}:${String(Math.floor((tenths % 600) / 10)).padStart(2, '0')}.${tenths % 10}`;
}
