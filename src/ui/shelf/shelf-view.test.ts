import { describe, expect, it } from '@jest/globals';
import { showId } from '../../core/show/ids';
import type { ShelfEntry } from '../../server/shows/show-service';
import { shelfView, titleFromFiles, type ShelfOrder } from './shelf-view';

const entry = (title: string, changedAt: number, more: Partial<ShelfEntry> = {}): ShelfEntry => ({
  id: showId(title),
  title,
  slideCount: 1,
  lengthMs: 1000,
  posterAssetId: null,
  posterAtMs: null,
  changedAt,
  createdAt: 100 - changedAt,
  place: 'shelf',
  visiting: false,
  series: null,
  film: 'none',
  byteCount: 0,
  ...more,
});
const shows = [
  entry('Regatta 10', 3),
  entry('Régatta 9', 2, { lengthMs: 9000 }),
  entry('A wedding', 1),
  entry('Old regatta', 4, { place: 'archive' }),
];
const titles = (part: string, order: ShelfOrder = 'changed') =>
  shelfView(shows, 'shelf', part, order).map((show) => show.title);

describe('the shelf', () => {
  it.each<[ShelfOrder, string[]]>([
    ['changed', ['Regatta 10', 'Régatta 9', 'A wedding']],
    ['created', ['A wedding', 'Régatta 9', 'Regatta 10']],
    ['title', ['A wedding', 'Régatta 9', 'Regatta 10']],
    ['length', ['Régatta 9', 'A wedding', 'Regatta 10']],
  ])('in the order of %s', (order, expected) => expect(titles('', order)).toEqual(expected));
  it('finds by any words of the title, whatever their accents and capitals', () => {
    expect([titles('REGATTA'), titles('9 reg'), titles('nothing')]).toEqual([
      ['Regatta 10', 'Régatta 9'],
      ['Régatta 9'],
      [],
    ]);
  });
  it('keeps the archive apart', () =>
    expect(shelfView(shows, 'archive', '', 'changed').map((show) => show.title)).toEqual(['Old regatta']));
});

it.each<[string | null, string | undefined, string]>([
  ['Port_Ellery-June', undefined, 'Port Ellery June'],
  [null, 'evening/second/p.jpg', 'second'],
  [null, undefined, 'Pictures of 14 June 2031'],
  ['__', undefined, 'Pictures of 14 June 2031'],
])('a show from the folder %j is called as it, or by the day', (folder, webkitRelativePath, title) => {
  expect(titleFromFiles(folder, [{ webkitRelativePath }], new Date(2031, 5, 14))).toBe(title);
});
