import type { ShowEdit } from '../show/edit';
import { layerId, type SlideId } from '../show/ids';
import {
  LONGEST_NAME,
  LONGEST_SCRIPT,
  LONGEST_SLIDE_MS,
  LONGEST_WORDS_SUBTITLE,
  LONGEST_WORDS_TITLE,
  SHORTEST_SLIDE_MS,
} from '../show/limits';
import { wordsOf, type Show, type Slide } from '../show/show';
import { textOf, type WordsText } from '../show/words-of-slide';
import { uncelled } from './csv';
import { ORDER_COLUMNS, secondsOf } from './order-table';

type Column = (typeof ORDER_COLUMNS)[number];

/** What a table would change of a slide. */
export interface TableChange {
  readonly slideId: SlideId;
  /** Where it stands now, from 1. */
  readonly number: number;
  /** “5 s → 6.5 s”, “title: Dusk → Night” */
  readonly says: readonly string[];
}

/** A row or a cell that is not understood; it is left out. */
export interface TableFault {
  /** As a spreadsheet counts, from 1; 0: the table as a whole. */
  readonly row: number;
  readonly says: string;
}

export interface ReadOrderTable {
  readonly changes: readonly TableChange[];
  /** How many slides are carried elsewhere. */
  readonly moved: number;
  /** Slides of the show that are in no row: they stay behind the one they stand behind. */
  readonly left: number;
  readonly faults: readonly TableFault[];
  /** All of it as one step; null when nothing changes. */
  readonly edit: ShowEdit | null;
}

const MOST_SAID = 60;

/**
 * A running order that was worked on in a spreadsheet. Columns may stand in any order and be left out; rows stand for slides by their `slide`, or, without that
 * column, by their `number`. Lengths are seconds with a point or a comma, or minutes and seconds.
 *
 * @param rows as they were read, the heads first
 * @param newId for words where there were none
 */
export function readOrderTable(show: Show, rows: readonly (readonly string[])[], newId: () => string): ReadOrderTable {
  const nothing = (says: string): ReadOrderTable => ({
    changes: [],
    moved: 0,
    left: 0,
    edit: null,
    faults: [{ row: 0, says }],
  });
  const columns = columnsIn(rows[0] ?? []);
  const key = columns.has('slide') ? 'slide' : 'number';
  if (!columns.has(key))
    return nothing('There is no column “slide”, by which rows are known. Its heads stand in the first row.');
  const numbers = new Map(show.slides.map(({ id }, index) => [id as string, index + 1]));
  const faults: TableFault[] = [];
  const order: SlideId[] = [];
  const wanted = new Map<SlideId, Partial<Record<Column, string>>>();
  const rowsOf = new Map<SlideId, number>();
  for (const [index, cells] of rows.entries()) {
    if (index === 0 || cells.every((cell) => cell.trim() === '')) continue;
    const said = Object.fromEntries([...columns].map(([column, at]) => [column, uncelled(cells[at] ?? '')]));
    const name = (said[key] ?? '').trim();
    const slide = key === 'slide' ? show.slides.find(({ id }) => id === name) : show.slides[Number(name) - 1];
    if (!slide)
      faults.push({
        row: index + 1,
        says:
          name === ''
            ? 'It does not say which slide it is.'
            : `There is no slide “${name.slice(0, MOST_SAID)}” in this show.`,
      });
    else if (wanted.has(slide.id))
      faults.push({
        row: index + 1,
        says: `Slide ${numbers.get(slide.id)} is in the table already, in row ${rowsOf.get(slide.id)}.`,
      });
    else {
      order.push(slide.id);
      wanted.set(slide.id, said);
      rowsOf.set(slide.id, index + 1);
    }
  }
  const edits: ShowEdit[] = [];
  const changes: TableChange[] = [];
  for (const slide of show.slides) {
    const said = wanted.get(slide.id);
    if (!said) continue;
    const says: string[] = [];
    const fault = (sentence: string) => void faults.push({ row: rowsOf.get(slide.id)!, says: sentence });
    edits.push(...editsOf(slide, said, says, fault, newId));
    if (says.length > 0) changes.push({ slideId: slide.id, number: numbers.get(slide.id)!, says });
  }
  const all = withTheOthers(
    show.slides.map(({ id }) => id),
    order,
  );
  const runs = runsTo(
    show.slides.map(({ id }) => id),
    all,
  );
  if (runs.length > 0) edits.unshift({ kind: 'move-slides', runs });
  return {
    changes,
    moved: runs.reduce((sum, { slideIds }) => sum + slideIds.length, 0),
    left: show.slides.length - order.length,
    faults: faults.toSorted((one, other) => one.row - other.row),
    edit: edits.length === 0 ? null : { kind: 'together', name: 'take over a table', edits: joined(edits) },
  };
}

/** Where each column stands; heads are told whatever their case, with or without what a person added in brackets. */
function columnsIn(heads: readonly string[]): Map<Column, number> {
  const found = new Map<Column, number>();
  for (const [at, head] of heads.entries()) {
    const name = head
      .replace(/^\uFEFF/, '')
      .replace(/\(.*\)/, '')
      .trim()
      .toLowerCase();
    const column = ORDER_COLUMNS.find((one) => one === name);
    if (column && !found.has(column)) found.set(column, at);
  }
  return found;
}

function editsOf(
  slide: Slide,
  said: Partial<Record<Column, string>>,
  says: string[],
  fault: (says: string) => void,
  newId: () => string,
): ShowEdit[] {
  const edits: ShowEdit[] = [];
  const lengthMs = said.seconds === undefined || said.seconds.trim() === '' ? null : lengthIn(said.seconds);
  if (lengthMs !== null && Number.isNaN(lengthMs))
    fault(`“${said.seconds!.slice(0, MOST_SAID)}” is no length: seconds, as 5.5, or minutes and seconds, as 1:05.`);
  else if (lengthMs !== null && (lengthMs < SHORTEST_SLIDE_MS || lengthMs > LONGEST_SLIDE_MS))
    fault(
      `A slide lasts ${SHORTEST_SLIDE_MS / 1000} seconds to ${LONGEST_SLIDE_MS / 3_600_000} hours, not ${said.seconds!.trim().slice(0, MOST_SAID)}.`,
    );
  else if (lengthMs !== null && lengthMs !== Math.round(slide.lengthMs)) {
    says.push(`${secondsOf(slide.lengthMs)} s → ${secondsOf(lengthMs)} s`);
    edits.push({ kind: 'set-lengths', lengths: [{ slideId: slide.id, lengthMs, by: 'hand' }] });
  }
  const words = wordsOf(slide);
  const was = { title: words?.title ?? '', subtitle: words?.subtitle ?? '' };
  const title = text(said.title, was.title, LONGEST_WORDS_TITLE, 'title', fault);
  const subtitle = text(said.subtitle, was.subtitle, LONGEST_WORDS_SUBTITLE, 'subtitle', fault);
  if (title !== was.title || subtitle !== was.subtitle) {
    if (title !== was.title) says.push(changed('title', was.title, title));
    if (subtitle !== was.subtitle) says.push(changed('subtitle', was.subtitle, subtitle));
    const base: WordsText = words ? textOf(words) : { title: '', subtitle: '', place: 'bottom-left' };
    const layer = words?.id ?? layerId(newId());
    const next = title === '' && subtitle === '' ? null : { ...base, title, subtitle };
    edits.push({ kind: 'set-words', slideId: slide.id, layerId: layer, words: next });
  }
  const script = text(said.script, slide.script ?? '', LONGEST_SCRIPT, 'script', fault);
  if (script !== (slide.script ?? '')) {
    says.push(changed('script', slide.script ?? '', script));
    edits.push({ kind: 'set-scripts', scripts: [{ slideId: slide.id, script: script === '' ? null : script }] });
  }
  const chapter = text(said.chapter, slide.chapter ?? '', LONGEST_NAME, 'chapter', fault);
  if (chapter !== (slide.chapter ?? '')) {
    says.push(changed('chapter', slide.chapter ?? '', chapter));
    edits.push({ kind: 'set-chapters', chapters: [{ slideId: slide.id, name: chapter === '' ? null : chapter }] });
  }
  return edits;
}

/** What a cell says; what it was where the column is not there or the cell says too much. Spreadsheets end lines in their own way. */
function text(
  said: string | undefined,
  was: string,
  most: number,
  name: string,
  fault: (says: string) => void,
): string {
  if (said === undefined) return was;
  const next = said.replaceAll('\r\n', '\n').replaceAll('\r', '\n');
  // Blanks at the ends are no words.
  const plain = next.trim() === was.trim() ? was : next.trim();
  if (plain.length <= most) return plain;
  fault(`Its ${name} is longer than ${most} letters.`);
  return was;
}

function changed(name: string, was: string, next: string): string {
  const short = (words: string) => (words.length > MOST_SAID ? `${words.slice(0, MOST_SAID)} …` : words);
  if (was === '') return `${name}: ${short(next)}`;
  return next === '' ? `no ${name} any more` : `${name}: ${short(was)} → ${short(next)}`;
}

/** “5,5”, “5.5 s”, “1:05” in milliseconds; NaN when it is no length. */
function lengthIn(said: string): number {
  const found = /^(?:(\d+):)?(\d+(?:[.,]\d+)?)\s*s?$/.exec(said.trim());
  if (!found) return Number.NaN;
  const [, minutes = '0', seconds] = found;
  return Math.round((Number(minutes) * 60 + Number(seconds!.replace(',', '.'))) * 1000);
}

/** An order of some of the slides, with the others behind those they stand behind now. */
function withTheOthers(now: readonly SlideId[], order: readonly SlideId[]): SlideId[] {
  const said = new Set(order);
  const all = [...order];
  for (const [index, id] of now.entries()) {
    if (said.has(id)) continue;
    const before = index === 0 ? -1 : all.indexOf(now[index - 1]!);
    all.splice(before + 1, 0, id);
  }
  return all;
}

/** What has to be carried where, as few as can be: all but a longest run that stands in the right order already. */
function runsTo(now: readonly SlideId[], next: readonly SlideId[]): { slideIds: SlideId[]; afterId: SlideId | null }[] {
  const places = new Map(now.map((id, index) => [id, index]));
  const stay = new Set(longestRising(next.map((id) => places.get(id)!)).map((place) => now[place]!));
  const runs: { slideIds: SlideId[]; afterId: SlideId | null }[] = [];
  let last: SlideId | null = null;
  let isOpen = false;
  for (const id of next) {
    if (stay.has(id)) {
      last = id;
      isOpen = false;
      continue;
    }
    if (!isOpen) runs.push({ slideIds: [], afterId: last });
    isOpen = true;
    runs.at(-1)!.slideIds.push(id);
  }
  return runs;
}

/** A longest rising part of numbers, by patience sorting. */
function longestRising(numbers: readonly number[]): number[] {
  const tops: number[] = [];
  const before = new Map<number, number | undefined>();
  for (const number of numbers) {
    let [low, high] = [0, tops.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (tops[middle]! < number) low = middle + 1;
      else high = middle;
    }
    before.set(number, low > 0 ? tops[low - 1] : undefined);
    tops[low] = number;
  }
  const rising: number[] = [];
  for (let at: number | undefined = tops.at(-1); at !== undefined; at = before.get(at)) rising.push(at);
  return rising.toReversed();
}

/** Edits of one kind that take lists are one edit. */
function joined(edits: readonly ShowEdit[]): ShowEdit[] {
  const lengths = edits.flatMap((edit) => (edit.kind === 'set-lengths' ? edit.lengths : []));
  const scripts = edits.flatMap((edit) => (edit.kind === 'set-scripts' ? edit.scripts : []));
  const chapters = edits.flatMap((edit) => (edit.kind === 'set-chapters' ? edit.chapters : []));
  return [
    ...edits.filter(({ kind }) => kind !== 'set-lengths' && kind !== 'set-scripts' && kind !== 'set-chapters'),
    ...(lengths.length > 0 ? [{ kind: 'set-lengths' as const, lengths }] : []),
    ...(scripts.length > 0 ? [{ kind: 'set-scripts' as const, scripts }] : []),
    ...(chapters.length > 0 ? [{ kind: 'set-chapters' as const, chapters }] : []),
  ];
}
