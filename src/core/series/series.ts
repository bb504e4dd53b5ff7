import { list, maybe, object, oneOf, record, text, truth, whole, type Schema } from '../schema/schema';
import { PURPOSE_NAMES, type PurposeName } from '../film/purposes/purposes';
import { LONGEST_SHOW_TITLE } from '../show/limits';

/** More than a night's work. */
export const MOST_ROWS = 2000;
export const MOST_COLUMNS = 60;
export const LONGEST_CELL = 10_000;
export const LONGEST_HEAD = 200;
/** Longest name of a folder or file below the folder of a series. */
export const LONGEST_PATH = 1000;

/** Where what stands in a place of the pattern comes from. */
export type Fill =
  /** As it is in the pattern. */
  | { readonly by: 'pattern' }
  /** What the row says in a column: words, or the name of a file. */
  | { readonly by: 'column'; readonly column: string }
  /** The next picture of the row's folder. */
  | { readonly by: 'folder' };

/** By `Place.id`; a place that is not named is as in the pattern. */
export type Matches = Readonly<Record<string, Fill>>;

/** What is done with pictures of a folder for which the pattern has no place: they get slides of their own, or the best are chosen. */
export type Spare = 'slides' | 'best';

/** How one show becomes many: what the rows of a table put where. */
export interface SeriesPlan {
  /** Heads of the columns, each once. */
  readonly columns: readonly string[];
  readonly rows: readonly (readonly string[])[];
  readonly matches: Matches;
  /** The column that names a row's folder; null: none does. */
  readonly folderColumn: string | null;
  readonly spare: Spare;
}

/** What a series is asked to be; what is left out stays as it is. */
export interface SeriesChange {
  readonly title?: string;
  readonly columns?: readonly string[];
  readonly rows?: readonly (readonly string[])[];
  readonly matches?: Matches;
  /** Empty: none. */
  readonly folderColumn?: string;
  readonly spare?: Spare;
  /** What all of its films are for. */
  readonly purpose?: PurposeName;
  /** Below the folder of the server's disk that was opened; empty: files come from the browser. */
  readonly folder?: string;
  /** Each film gets a screening, and all of them a page. */
  readonly screened?: boolean;
}

const COLUMN = text(LONGEST_HEAD, 1);
const FILL: Schema = object<{ by: string; column?: string }>({
  by: oneOf(['pattern', 'column', 'folder']),
  column: maybe(COLUMN),
});

export const SERIES_CHANGE: Schema = object<SeriesChange>({
  title: maybe(text(LONGEST_SHOW_TITLE, 1)),
  columns: maybe(list(COLUMN, MOST_COLUMNS, 1)),
  rows: maybe(list(list(text(LONGEST_CELL), MOST_COLUMNS), MOST_ROWS)),
  matches: maybe(record(text(200, 1), FILL, 20_000)),
  folderColumn: maybe(text(LONGEST_HEAD)),
  spare: maybe(oneOf(['slides', 'best'])),
  purpose: maybe(oneOf(PURPOSE_NAMES)),
  folder: maybe(text(LONGEST_PATH)),
  screened: maybe(truth),
});

/** Which rows are meant; all when it is not said. */
export const ROWS_WANTED: Schema = object<{ rows?: readonly number[] }>({
  rows: maybe(list(whole(1, MOST_ROWS), MOST_ROWS, 1)),
});
export const ROW_WANTED: Schema = object<{ row: number }>({ row: whole(1, MOST_ROWS) });

/** How far the film of a row is. */
export type RowState = 'new' | 'preparing' | 'ready-to-make' | 'making' | 'done' | 'failed';
export const ROW_STATES: readonly RowState[] = ['new', 'preparing', 'ready-to-make', 'making', 'done', 'failed'];

/** How far a series is. */
export const SERIES_STATES = ['open', 'making', 'stopped', 'done'] as const;
export type SeriesState = (typeof SERIES_STATES)[number];

/** A row as its table shows it. */
export interface SeriesRow {
  /** From 1: the first below the heads. */
  readonly number: number;
  /** What its film is called. */
  readonly title: string;
  readonly state: RowState;
  /** How much of its film is made, 0…1. */
  readonly share: number;
  readonly problem: string | null;
  /** What came out otherwise than one might think. */
  readonly told: readonly string[];
  readonly showId: string | null;
  readonly filmId: string | null;
  /** Its show was changed by hand: it is not made anew from the pattern. */
  readonly byHand: boolean;
}

/** Cells of a table read from a file as columns and rows, with what is wrong with them as a whole. */
export function tableOf(cells: readonly (readonly string[])[]): {
  readonly columns: readonly string[];
  readonly rows: readonly (readonly string[])[];
  readonly fault: string | null;
} {
  const heads = (cells[0] ?? []).map((head) => head.replace(/^\uFEFF/, '').trim());
  // A column is there when anything stands in it, whether it has a head or not.
  const width = Math.max(0, ...cells.map((row) => row.findLastIndex((cell) => cell.trim() !== '') + 1));
  while (heads.length < width) heads.push('');
  heads.length = Math.min(heads.length, width);
  const rows = cells
    .slice(1)
    .map((row) => heads.map((_, at) => (row[at] ?? '').replaceAll('\r\n', '\n').replaceAll('\r', '\n').trim()));
  while (rows.length > 0 && rows.at(-1)!.every((cell) => cell === '')) rows.pop();
  return { columns: heads, rows, fault: faultOfTable(heads, rows) };
}

function faultOfTable(heads: readonly string[], rows: readonly (readonly string[])[]): string | null {
  if (heads.length === 0) return 'There is nothing in its first row, where the heads of the columns stand.';
  const empty = heads.indexOf('');
  if (empty >= 0) return `Column ${empty + 1} has no head. Give it one, in the first row.`;
  const known = new Set<string>();
  for (const head of heads) {
    if (known.has(sameHead(head))) return `Two columns are called “${head}”. Call one of them otherwise.`;
    known.add(sameHead(head));
  }
  if (heads.length > MOST_COLUMNS) return `It has ${heads.length} columns; ${MOST_COLUMNS} can be used.`;
  if (rows.length === 0) return 'There is no row below its heads. Each row becomes a film.';
  if (rows.length > MOST_ROWS) return `It has ${rows.length} rows; a series has ${MOST_ROWS} at most. Part it.`;
  const long = heads.find((head) => head.length > LONGEST_HEAD);
  if (long) return `The head “${long.slice(0, 60)} …” is longer than ${LONGEST_HEAD} letters.`;
  const row = rows.findIndex((cells) => cells.some((cell) => cell.length > LONGEST_CELL));
  return row < 0 ? null : `A cell of row ${row + 1} is longer than ${LONGEST_CELL} letters.`;
}

/** Heads are told apart whatever their case. */
export const sameHead = (head: string): string => head.trim().toLowerCase();
