import { describe, expect, it } from '@jest/globals';
import { applyEdit, type ShowEdit } from '../../core/show/edit';
import { showId, slideId } from '../../core/show/ids';
import { blankSlide } from '../../core/show/new-slide';
import { emptyShow, type Show } from '../../core/show/show';
import { changeOf, withChange } from './show-change';

let counted = 0;
const blank = () => blankSlide(2000, '#102030', () => `n${(counted += 1)}`);
const show: Show = { ...emptyShow(showId('s'), 'Evening'), slides: Array.from({ length: 20 }, blank) };
const after = (edit: ShowEdit, on = show) => {
  const result = applyEdit(on, edit);
  if (!result.ok) throw new Error(result.reason);
  return result.show;
};
const ids = show.slides.map((slide) => slide.id);

describe('what became of a show', () => {
  it.each<[string, ShowEdit, number]>([
    ['one length', { kind: 'set-lengths', lengths: [{ slideId: ids[3]!, lengthMs: 900 }] }, 1],
    ['moved slides', { kind: 'move-slides', runs: [{ slideIds: [ids[4]!, ids[5]!], afterId: ids[15]! }] }, 0],
    ['removed slides', { kind: 'remove-slides', slideIds: ids.slice(2, 9) }, 0],
    ['new slides', { kind: 'add-slides', runs: [{ afterId: ids[7]!, slides: [blank(), blank()] }] }, 2],
    ['a title', { kind: 'rename-show', title: 'Regatta' }, 0],
  ])('carries %s and nothing else, and comes out the same', (_, edit, count) => {
    const now = after(edit);
    const change = structuredClone(changeOf(show, now));
    expect(change.slides).toHaveLength(count);
    expect(withChange(structuredClone(show), change)).toEqual(now);
  });
  it('refuses a change that was made on another show', () => {
    expect(() => withChange(show, { rest: show, order: [slideId('elsewhere')], slides: [] })).toThrow(
      'got none for elsewhere',
    );
  });
});
