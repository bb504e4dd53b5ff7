import { LONGEST_SHOW_TITLE, LONGEST_WORDS_SUBTITLE, LONGEST_WORDS_TITLE } from '../show/limits';
import { everyLayer } from '../show/layer';
import type { Show } from '../show/show';
import { kindByName, type NamedKind } from './file-kinds';
import { TITLE_PLACE, type Place } from './places';
import { sameHead, type SeriesPlan } from './series';

/** What a row says is wrong, or worth knowing. */
export interface RowFault {
  /** From 1; 0: the whole table. */
  readonly row: number;
  /** No film can be made of it. */
  readonly grave: boolean;
  readonly says: string;
}

/** What a row puts where. Files are named by their path below the folder of the series. */
export interface RowWants {
  readonly title: string;
  /** By place, with what stood in braces filled in. */
  readonly words: ReadonlyMap<string, string>;
  /** Of places that are filled by a column. */
  readonly files: ReadonlyMap<string, string>;
  /** Pictures and clips of its folder, in order; null when no place is filled from one. */
  readonly folder: readonly string[] | null;
  /** What braces stand for, by `sameHead`. */
  readonly cells: ReadonlyMap<string, string>;
}

export interface ReadRow {
  readonly wants: RowWants;
  readonly faults: readonly RowFault[];
}

const NATURAL = new Intl.Collator('en', { numeric: true });
const MOST_SAID = 60;
const short = (said: string) => (said.length > MOST_SAID ? `${said.slice(0, MOST_SAID)} …` : said);

/** The files below the folder of a series, to be looked up as people write names: whatever the case and the slashes. */
export interface Listing {
  /** A file by its name, in a folder first where one is given, its ending left out or not. */
  file(name: string, within: string | null, kinds: readonly NamedKind[]): string | null;
  /** Files of a folder and the folders in it, by name; null when there is no such folder. */
  below(folder: string): readonly string[] | null;
}

/** @param paths of every file, with slashes */
export function listingOf(paths: readonly string[]): Listing {
  const files = new Map<string, string>();
  const bare = new Map<string, string[]>();
  const folders = new Map<string, string[]>();
  for (const path of paths) {
    const name = plain(path);
    files.set(name, path);
    const stem = name.replace(/\.[^./]*$/, '');
    bare.set(stem, [...(bare.get(stem) ?? []), path]);
    const parts = name.split('/');
    for (let depth = 0; depth < parts.length; depth += 1) {
      const folder = parts.slice(0, depth).join('/');
      const inside = folders.get(folder);
      if (inside) inside.push(path);
      else folders.set(folder, [path]);
    }
  }
  return {
    file(name, within, kinds) {
      const wanted = plain(name);
      if (wanted === '') return null;
      for (const place of within === null ? [wanted] : [`${plain(within)}/${wanted}`, wanted]) {
        const exact = files.get(place);
        if (exact !== undefined) return exact;
        const alike = (bare.get(place) ?? []).filter((path) => kinds.includes(kindByName(path)!));
        if (alike.length === 1) return alike[0]!;
      }
      return null;
    },
    below: (folder) => folders.get(plain(folder))?.toSorted(NATURAL.compare) ?? null,
  };
}

function plain(path: string): string {
  return path
    .normalize('NFC')
    .replaceAll('\\', '/')
    .split('/')
    .map((part) => part.trim())
    .filter((part) => part !== '' && part !== '.')
    .join('/')
    .toLowerCase();
}

/** The column whose cells name folders that are there, most of them: what a table says in whatever language. Of several the last: names come first, and folders may be called like them. Null when there is none. */
export function columnOfFolders(
  { columns, rows }: Pick<SeriesPlan, 'columns' | 'rows'>,
  listing: Listing,
): string | null {
  const shares = columns.map((column, at) => {
    const said = rows.map((cells) => cells[at] ?? '').filter((cell) => cell !== '');
    const there = said.filter((cell) => listing.below(cell) !== null).length;
    return { column, share: said.length === 0 ? 0 : there / said.length };
  });
  const best = shares.reduce((most, one) => (one.share >= most.share ? one : most), { column: '', share: 0 });
  return best.share >= 0.5 ? best.column : null;
}

/** What the film of a row is called. */
export function titleOfRow(plan: SeriesPlan, pattern: Pick<Show, 'title'>, number: number): string {
  const row = plan.rows[number - 1] ?? [];
  const cells = new Map(plan.columns.map((column, at) => [sameHead(column), row[at] ?? '']));
  const fill = plan.matches[TITLE_PLACE];
  return fill?.by === 'column'
    ? (cells.get(sameHead(fill.column)) ?? '').trim()
    : filledIn(pattern.title, cells).trim();
}

/** A text with what stands in braces in it put in, where a column is called so. */
export function filledIn(text: string, cells: ReadonlyMap<string, string>): string {
  return text.replace(BRACES, (all, head: string) => cells.get(sameHead(head)) ?? all);
}

/** Reads one row. @param number from 1 */
export function readRow(
  plan: SeriesPlan,
  places: readonly Place[],
  pattern: Show,
  number: number,
  listing: Listing,
): ReadRow {
  const faults: RowFault[] = [];
  const fault = (says: string, grave = true) => void faults.push({ row: number, grave, says });
  const row = plan.rows[number - 1] ?? [];
  const cells = new Map(plan.columns.map((column, at) => [sameHead(column), row[at] ?? '']));
  const cellOf = (column: string) => cells.get(sameHead(column)) ?? '';
  const filled = (text: string) => filledIn(text, cells);
  const fillOf = (id: string) => plan.matches[id] ?? { by: 'pattern' as const };

  const title = titleOfRow(plan, pattern, number);
  if (title === '') fault('It has no title: its film needs one.');
  if (title.length > LONGEST_SHOW_TITLE) fault(`Its title is longer than ${LONGEST_SHOW_TITLE} letters.`);

  const folderCell = plan.folderColumn === null ? null : cellOf(plan.folderColumn);
  const words = new Map<string, string>();
  const files = new Map<string, string>();
  let wantsFolder = false;
  for (const place of places) {
    const fill = fillOf(place.id);
    if (place.kind === 'words') {
      const said = fill.by === 'column' ? cellOf(fill.column) : filled(place.says);
      const most = place.part === 'title' ? LONGEST_WORDS_TITLE : LONGEST_WORDS_SUBTITLE;
      if (said.length > most) fault(`The words for slide ${place.number} are longer than ${most} letters.`);
      if (fill.by === 'column' && said === '')
        fault(
          `“${fill.column}” is empty: the words “${short(place.says)}” on slide ${place.number} are left out.`,
          false,
        );
      if (said !== place.says) words.set(place.id, said);
    } else if (place.kind === 'picture' && fill.by === 'folder') wantsFolder = true;
    else if (place.kind !== 'title' && fill.by === 'column') {
      const name = cellOf(fill.column);
      const kinds: readonly NamedKind[] = place.kind === 'song' ? ['sound'] : ['picture', 'clip'];
      const what = place.kind === 'song' ? 'song' : 'picture';
      if (name === '') fault(`“${fill.column}” is empty: the ${what} of the pattern stays.`, false);
      else {
        const found = listing.file(name, folderCell, kinds);
        if (found === null) fault(`There is no file “${short(name)}” for its ${what}.`);
        else if (!kinds.includes(kindByName(found)!)) fault(`“${short(name)}” is no ${what}.`);
        else files.set(place.id, found);
      }
    }
  }
  const folder = wantsFolder ? picturesIn(folderCell, listing, [...files.values()], fault) : null;
  return { wants: { title, words, files, folder, cells }, faults };
}

const BRACES = /\{([^{}\n]{1,200})\}/g;

function picturesIn(
  folder: string | null,
  listing: Listing,
  taken: readonly string[],
  fault: (says: string) => void,
): readonly string[] {
  if (folder === null) fault('No column says which folder its pictures are in.');
  else if (folder === '') fault('It does not say which folder its pictures are in.');
  else {
    const inside = listing.below(folder);
    if (inside === null) fault(`There is no folder “${short(folder)}”.`);
    else {
      const used = new Set(taken);
      const shown = inside.filter((path) => ['picture', 'clip'].includes(kindByName(path)!) && !used.has(path));
      if (shown.length === 0) fault(`There is no picture in the folder “${short(folder)}”.`);
      return shown;
    }
  }
  return [];
}

/** What braces in the pattern's texts, and matches, ask for that the table does not have. */
export function faultsOfPlan(plan: SeriesPlan, places: readonly Place[], pattern: Show): RowFault[] {
  const known = new Set(plan.columns.map(sameHead));
  const faults: RowFault[] = [];
  const say = (says: string) => void faults.push({ row: 0, grave: true, says });
  const lost = new Set<string>();
  for (const place of places) {
    const fill = plan.matches[place.id];
    if (fill?.by === 'column' && !known.has(sameHead(fill.column))) lost.add(fill.column);
  }
  if (plan.folderColumn !== null && !known.has(sameHead(plan.folderColumn))) lost.add(plan.folderColumn);
  for (const column of lost)
    say(`There is no column “${short(column)}” in the table any more. Match what it filled anew.`);
  for (const [text, where] of textsOf(pattern, plan, places))
    for (const [, head] of text.matchAll(BRACES))
      if (!known.has(sameHead(head!))) say(`${where} says {${short(head!)}}, and no column is called so.`);
  if (Object.values(plan.matches).every(({ by }) => by === 'pattern') && faults.length === 0 && !hasBraces(pattern))
    say('Nothing of the pattern changes from row to row yet. Match a column to what it is to fill.');
  return faults;
}

function* textsOf(pattern: Show, plan: SeriesPlan, places: readonly Place[]): Generator<readonly [string, string]> {
  if ((plan.matches[TITLE_PLACE]?.by ?? 'pattern') === 'pattern') yield [pattern.title, 'The title'];
  for (const place of places)
    if (place.kind === 'words' && (plan.matches[place.id]?.by ?? 'pattern') === 'pattern')
      yield [place.says, `Slide ${place.number}`];
  for (const [index, { script, chapter }] of pattern.slides.entries()) {
    if (script) yield [script, `The script of slide ${index + 1}`];
    if (chapter) yield [chapter, `The chapter at slide ${index + 1}`];
  }
}

function hasBraces({ title, slides }: Show): boolean {
  const has = (text: string) => text.search(BRACES) >= 0;
  return (
    has(title) ||
    slides.some((slide) =>
      [...everyLayer(slide.layers)].some(
        (layer) => layer.kind === 'words' && (has(layer.title) || has(layer.subtitle)),
      ),
    )
  );
}

/** Whether anything of the files is put anywhere. */
function usesFiles({ matches, folderColumn }: SeriesPlan, places: readonly Place[]): boolean {
  const filled = places.some(
    ({ id, kind }) => (kind === 'picture' || kind === 'song') && (matches[id]?.by ?? 'pattern') !== 'pattern',
  );
  return folderColumn !== null || filled;
}

function unusedSentence(count: number, column: string | null): string {
  const files =
    count === 1 ? 'One file was brought, and nothing uses it' : `${count} files were brought, and nothing uses them`;
  return column === null
    ? `${files}: say which column names a row’s folder, or a file for a place.`
    : `${files}: “${column}” names folders that are there. Choose it as a row’s folder.`;
}

/** Faults of the whole table, the plan's first. Rows of one title are told: their films would be mistaken for each other. */
export function faultsOfSeries(
  plan: SeriesPlan,
  places: readonly Place[],
  pattern: Show,
  paths: readonly string[],
): RowFault[] {
  const listing = listingOf(paths);
  const faults = faultsOfPlan(plan, places, pattern);
  if (paths.length > 0 && !usesFiles(plan, places))
    faults.push({ row: 0, grave: false, says: unusedSentence(paths.length, columnOfFolders(plan, listing)) });
  const titles = new Map<string, number>();
  plan.rows.forEach((cells, index) => {
    const number = index + 1;
    if (cells.every((cell) => cell === '')) return void faults.push({ row: number, grave: true, says: 'It is empty.' });
    const read = readRow(plan, places, pattern, number, listing);
    faults.push(...read.faults);
    const title = read.wants.title.toLowerCase();
    const other = titles.get(title);
    if (title !== '' && other !== undefined)
      faults.push({
        row: number,
        grave: false,
        says: `Its film is called “${short(read.wants.title)}”, as that of row ${other}.`,
      });
    else titles.set(title, number);
  });
  return faults;
}
