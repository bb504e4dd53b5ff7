import { describe, expect, it } from '@jest/globals';
import { applyEdit } from '../show/edit';
import { layerId, showId, slideId } from '../show/ids';
import { emptyShow, wordsOf, type Show, type Slide } from '../show/show';
import { asCsv, uncelled } from './csv';
import { ORDER_COLUMNS, orderTable } from './order-table';
import { readOrderTable } from './read-order-table';

const slide = (id: string, more: Partial<Slide> = {}): Slide => ({
  id: slideId(id),
  lengthMs: 5000,
  transition: { kind: 'cut' },
  backing: { kind: 'automatic' },
  layers: [],
  sounds: [],
  ...more,
});
const titled = (id: string, title: string, subtitle = ''): Slide =>
  slide(id, { layers: [{ kind: 'words', id: layerId(`w-${id}`), title, subtitle, place: 'top' }] });
const SHOW: Show = {
  ...emptyShow(showId('s'), 'Regatta'),
  slides: [
    titled('a', 'Dusk', 'Port Ellery'),
    slide('b', { script: 'We set out,\nall of us.' }),
    slide('c', { chapter: 'Night' }),
    titled('d', '=SUM(1)'),
    slide('e'),
  ],
};

let made = 0;
const read = (rows: readonly (readonly string[])[], show = SHOW) =>
  readOrderTable(show, rows, () => `new-${(made += 1)}`);
/** The rows of the table as any reader of CSV gets them. */
const table = (show = SHOW): string[][] => {
  const rows: string[][] = [[]];
  for (const [, quoted, plain, end] of orderTable(show, new Map())
    .slice(1)
    .matchAll(/(?:"((?:[^"]|"")*)"|([^",\r\n]*))(,|\r\n)/g)) {
    rows.at(-1)!.push(quoted === undefined ? plain! : quoted.replaceAll('""', '"'));
    if (end === '\r\n') rows.push([]);
  }
  return rows.slice(0, -1);
};
/** The table with some cells changed, by slide and column. */
const edited = (cells: Readonly<Record<string, Partial<Record<(typeof ORDER_COLUMNS)[number], string>>>>) =>
  table().map((row) => row.map((cell, at) => cells[row[0]!]?.[ORDER_COLUMNS[at]!] ?? cell));
const after = ({ edit }: ReturnType<typeof read>, show = SHOW): Show => {
  const result = applyEdit(show, edit!);
  if (!result.ok) throw new Error(result.sentence);
  return result.show;
};
const order = (show: Show) => show.slides.map(({ id }) => id).join('');

describe('the running order as a table', () => {
  it('has a row for each slide, and brought back as it is changes nothing', () => {
    expect(table().map((row) => row.slice(0, 4))).toEqual([
      ['slide', 'number', 'seconds', 'title'],
      ['a', '1', '5', 'Dusk'],
      ['b', '2', '5', ''],
      ['c', '3', '5', ''],
      ['d', '4', '5', "'=SUM(1)"],
      ['e', '5', '5', ''],
    ]);
    expect(read(table())).toEqual({ changes: [], moved: 0, left: 0, faults: [], edit: null });
  });
  it('keeps a spreadsheet from taking words for formulas, and takes the apostrophe off again', () => {
    expect(asCsv([['=1', '-2', 'plain', 'a;b']])).toBe('\uFEFF\'=1,\'-2,plain,"a;b"\r\n');
    expect(["'=1", "'tis", '=1'].map(uncelled)).toEqual(['=1', "'tis", '=1']);
  });
});

describe('a table brought back', () => {
  it('changes lengths, words, scripts and chapters as one step that can be undone, and says what beforehand', () => {
    const told = read(
      edited({
        a: { seconds: '6,5', title: 'Evening' },
        b: { script: 'We set out.', title: 'New words' },
        c: { chapter: '' },
        d: { seconds: '1:05', title: '' },
      }),
    );
    expect(told.changes.map(({ number, says }) => [number, ...says])).toEqual([
      [1, '5 s → 6.5 s', 'title: Dusk → Evening'],
      [2, 'title: New words', 'script: We set out,\nall of us. → We set out.'],
      [3, 'no chapter any more'],
      [4, '5 s → 65 s', 'no title any more'],
    ]);
    const show = after(told);
    expect(show.slides.map(({ lengthMs }) => lengthMs)).toEqual([6500, 5000, 5000, 65_000, 5000]);
    expect(show.slides[0]!.chosen?.length).toBe('hand');
    expect(wordsOf(show.slides[0]!)).toMatchObject({ title: 'Evening', subtitle: 'Port Ellery', place: 'top' });
    expect(wordsOf(show.slides[1]!)).toMatchObject({ title: 'New words', place: 'bottom-left' });
    expect(wordsOf(show.slides[3]!)).toBeNull();
    expect([show.slides[1]!.script, show.slides[2]!.chapter]).toEqual(['We set out.', undefined]);
    const back = applyEdit(show, (applyEdit(SHOW, told.edit!) as { inverse: typeof told.edit }).inverse!);
    expect(back.ok && back.show).toEqual(SHOW);
  });
  it('carries as few slides as it can to the new order', () => {
    const [heads, ...rows] = table();
    const told = read([heads!, rows[4]!, rows[0]!, rows[1]!, rows[2]!, rows[3]!]);
    expect([told.moved, order(after(told))]).toEqual([1, 'eabcd']);
    const turned = read([heads!, ...rows.toReversed()]);
    expect([turned.moved, order(after(turned))]).toEqual([4, 'edcba']);
  });
  it('leaves slides that are in no row behind the one they stand behind', () => {
    const [heads, a, , c, d] = table();
    const told = read([heads!, d!, c!, a!]);
    expect([told.left, order(after(told))]).toEqual([2, 'decab']);
  });
  it('knows its columns in any order and case, with brackets and a byte order mark, and leaves alone those that are not there', () => {
    const told = read([
      ['\uFEFFTitle', 'SECONDS (s)', ' Slide '],
      ['Harbour', '4', 'a'],
      ['', '', ''],
    ]);
    expect(told.changes).toEqual([{ slideId: 'a', number: 1, says: ['5 s → 4 s', 'title: Dusk → Harbour'] }]);
    expect(wordsOf(after(told).slides[0]!)!.subtitle).toBe('Port Ellery');
  });
  it('goes by numbers where there is no column of slides', () => {
    const told = read([
      ['number', 'seconds'],
      ['2', '9'],
    ]);
    expect(told.changes).toEqual([{ slideId: 'b', number: 2, says: ['5 s → 9 s'] }]);
  });
  it('names rows and cells that it does not understand, as a spreadsheet counts them, and takes the rest', () => {
    const told = read([
      ['slide', 'seconds', 'chapter'],
      ['a', 'soon', ''],
      ['nobody', '4', ''],
      ['b', '0.01', ''],
      ['b', '4', ''],
      ['', '4', ''],
      ['c', '7', 'x'.repeat(300)],
    ]);
    expect(told.faults).toEqual([
      { row: 2, says: '“soon” is no length: seconds, as 5.5, or minutes and seconds, as 1:05.' },
      { row: 3, says: 'There is no slide “nobody” in this show.' },
      { row: 4, says: 'A slide lasts 0.2 seconds to 24 hours, not 0.01.' },
      { row: 5, says: 'Slide 2 is in the table already, in row 4.' },
      { row: 6, says: 'It does not say which slide it is.' },
      { row: 7, says: 'Its chapter is longer than 200 letters.' },
    ]);
    expect(told.changes).toEqual([{ slideId: 'c', number: 3, says: ['5 s → 7 s'] }]);
  });
  it('without heads that it knows is told as such', () => {
    expect(read([['a', 'b']]).faults).toEqual([{ row: 0, says: expect.stringMatching(/no column “slide”/) }]);
    expect(read([]).edit).toBeNull();
  });
});
