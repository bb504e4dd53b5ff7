import { describe, expect, it } from '@jest/globals';
import { PICTURE } from '../layers/slides.testing';
import { assetId } from '../show/ids';
import type { Mark } from '../show/mark';
import { markOfRating, marksOfRatings, ratingBeside, ratingInXmp, xmpFiles, xmpOf } from './xmp';

const [A, B, C] = ['a', 'b', 'c'].map((letter) => assetId(letter.repeat(64)));
const file = (id: ReturnType<typeof assetId>, fileName: string, rating?: number) => ({
  assetId: id,
  fileName,
  facts: { ...PICTURE, ...(rating !== undefined && { rating }) },
});

describe('ratings', () => {
  it.each<[number, Mark | null]>([
    [-1, 'leave-out'],
    [0, null],
    [1, null],
    [2, null],
    [3, 'keep'],
    [4, 'keep'],
    [5, 'linger'],
  ])('of %i are the mark %s', (rating, mark) => {
    expect(markOfRating(rating)).toBe(mark);
  });
  it.each<[string, number | null]>([
    ['<rdf:Description xmlns:xmp="http://ns.adobe.com/xap/1.0/" xmp:Rating="4"/>', 4],
    ["<d xmlns:x1='http://ns.adobe.com/xap/1.0/'><x1:Rating> -1 </x1:Rating></d>", -1],
    ['<d xmlns:xmp="http://elsewhere.example/" xmp:Rating="4"/>', null],
    ['<d xmlns:xmp="http://ns.adobe.com/xap/1.0/" xmp:Rating="9"/>', null],
    ['<d xmlns:xmp="http://ns.adobe.com/xap/1.0/" xmp:Rating="0"/>', null],
    ['<d xmlns:xmp="http://ns.adobe.com/xap/1.0/"/>', null],
    ['no xml', null],
  ])('in %s are read', (text, rating) => {
    expect(ratingInXmp(text)).toBe(rating);
  });
  it.each<Mark>(['keep', 'linger', 'leave-out'])('are written for %s, and read back as that', (mark) => {
    expect(markOfRating(ratingInXmp(xmpOf(mark))!)).toBe(mark);
  });
  it('are taken from the file beside a picture before those in it', () => {
    const files = [file(A!, 'A.JPG', 5), { ...file(B!, 'b.jpg', 5), rating: -1 }, file(C!, 'c.jpg', 1)];
    expect(marksOfRatings(files)).toEqual([
      { assetId: A, mark: 'linger' },
      { assetId: B, mark: 'leave-out' },
    ]);
  });
  it.each([
    ['A.JPG', -1],
    ['b.jpg', 3],
    ['b.nef', null],
    ['c.jpg', null],
  ])('beside %s are found by either way of naming that file', (name, rating) => {
    expect(
      ratingBeside(
        name,
        new Map([
          ['a.xmp', -1],
          ['B.jpg.XMP', 3],
        ]),
      ),
    ).toBe(rating);
  });
  it('are written beside pictures that are marked, by names that differ', () => {
    const files = [file(A!, 'one.jpg'), file(B!, 'one.nef'), file(C!, 'two.jpg')];
    expect([...xmpFiles(files, { [A!]: 'keep', [C!]: 'linger' }).keys()]).toEqual(['one.jpg.xmp', 'two.xmp']);
  });
});
