import { describe, expect, it } from '@jest/globals';
import { applyEdit } from '../show/edit';
import { layerId, showId } from '../show/ids';
import { blankSlide } from '../show/new-slide';
import { emptyShow, wordsOf, type Show } from '../show/show';
import { layText, partsOfText, type LaidText, type PastedText } from './pasted-text';

let counted = 0;
const newId = () => `n${(counted += 1)}`;
const blank = () => blankSlide(5000, '#000000', newId);
const named = {
  ...blank(),
  layers: [
    {
      kind: 'words' as const,
      id: layerId('w'),
      title: 'Old',
      subtitle: 'older',
      place: 'top' as const,
      style: { size: 0.1 },
    },
  ],
};
const show: Show = { ...emptyShow(showId('s'), 'S'), slides: [blank(), named, blank()] };
const ids = show.slides.map(({ id }) => id);
const pasted = (text: string, more: Partial<PastedText> = {}): PastedText => ({
  text,
  parts: 'paragraphs',
  as: 'first-line',
  ...more,
});
const laid = (text: string, more: Partial<PastedText> = {}, on = ids): LaidText => {
  const found = layText(show, on, pasted(text, more), newId);
  if (typeof found === 'string') throw new Error(found);
  return found;
};
const after = ({ edit }: LaidText) => {
  const result = applyEdit(show, edit);
  if (!result.ok) throw new Error(JSON.stringify(result));
  const back = applyEdit(result.show, result.inverse);
  if (!back.ok) throw new Error('cannot be undone');
  expect(back.show).toEqual(show);
  return result.show;
};
const says = (of: Show) => of.slides.map((slide) => [wordsOf(slide)?.title ?? null, wordsOf(slide)?.subtitle ?? null]);

describe('a text on slides', () => {
  it('is parted by empty lines, by lines, or not at all, and keeps its line breaks', () => {
    const text = '\r\nOne\r\ntwo\r\n\r\n \t\n  three\n\n\n';
    expect(partsOfText(text, 'paragraphs')).toEqual(['One\ntwo', 'three']);
    expect(partsOfText(text, 'lines')).toEqual(['One', 'two', '  three']);
    expect(partsOfText(text, 'whole')).toEqual(['One\ntwo\n\n \t\n  three']);
    expect(partsOfText(' \n\t\n', 'paragraphs')).toEqual([]);
  });
  it('goes to a slide each, the first line large; words that are there keep their place and look', () => {
    const done = laid('First\n\nSecond\nand more\nof it');
    expect(done).toMatchObject({ slides: 2, replaced: 1, added: 0 });
    const result = after(done);
    expect(says(result)).toEqual([
      ['First', ''],
      ['Second', 'and more\nof it'],
      [null, null],
    ]);
    expect(wordsOf(result.slides[1]!)).toMatchObject({ id: 'w', place: 'top', style: { size: 0.1 } });
  });
  it('goes on with blank slides after the last for what is left', () => {
    const done = laid('a\nb\nc\nd', { parts: 'lines', as: 'subtitle' }, [ids[2]!, ids[1]!]);
    expect(done).toMatchObject({ slides: 4, replaced: 1, added: 2 });
    const result = after(done);
    expect(says(result)).toEqual([
      [null, null],
      ['', 'a'],
      ['', 'b'],
      ['', 'c'],
      ['', 'd'],
    ]);
    expect(result.slides[3]).toMatchObject({ lengthMs: show.defaultLengthMs, backing: { kind: 'colour' } });
  });
  it('is all large on one slide when that is wanted', () => {
    expect(says(after(laid('a\n\nb', { parts: 'whole', as: 'title' })))[0]).toEqual(['a\n\nb', '']);
  });
  it('says what cannot be done, and leaves nothing out', () => {
    const refused = (text: string, more: Partial<PastedText> = {}, on = ids) =>
      layText(show, on, pasted(text, more), newId);
    expect(refused(' ')).toBe('There is no text yet.');
    expect(refused('a', {}, [])).toBe('No slide is chosen that could take it.');
    expect(refused(`a\n\n${'b'.repeat(2001)}`)).toBe('Part 2 is too long for one slide: part it by an empty line.');
    expect(refused('x\n'.repeat(10_001), { parts: 'lines' })).toBe('A show has at most 10,000 slides.');
  });
});
