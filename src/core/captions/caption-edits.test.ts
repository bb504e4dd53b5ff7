import { describe, expect, it } from '@jest/globals';
import { applyEdit } from '../show/edit';
import type { SetCaptions } from '../show/edits/set-captions';
import { showId, slideId } from '../show/ids';
import { emptyShow, type Show } from '../show/show';
import { captionAdded, captionChanged, captionJoined, captionRemoved, captionSplit } from './caption-edits';

const show: Show = {
  ...emptyShow(showId('edits'), 'Edits'),
  slides: [
    {
      id: slideId('a'),
      lengthMs: 20_000,
      transition: { kind: 'cut' },
      backing: { kind: 'automatic' },
      layers: [],
      sounds: [],
      captions: {
        en: [
          { fromMs: 1000, toMs: 3000, text: 'One' },
          { fromMs: 4000, toMs: 8000, text: 'The boats came late,\nand the band played on.' },
          { fromMs: 9000, toMs: 9500, text: 'Three' },
        ],
      },
    },
  ],
};
const of = { show, facts: new Map() };
const at = (index: number) => ({ slideId: slideId('a'), language: 'en', index });
function after(edit: SetCaptions | null): (readonly [number, number, string])[] {
  const result = applyEdit(show, edit!);
  if (!result.ok) throw new Error(result.sentence);
  return result.show.slides[0]!.captions!.en!.map(({ fromMs, toMs, text }) => [fromMs, toMs, text] as const);
}

describe('captions by hand', () => {
  it('are moved and lengthened as far as their neighbours, and never end before they begin', () => {
    expect(after(captionChanged(of, at(0), { toMs: 3500 }))[0]).toEqual([1000, 3500, 'One']);
    expect(after(captionChanged(of, at(0), { toMs: 7000 }))[0]).toEqual([1000, 4000, 'One']);
    expect(after(captionChanged(of, at(1), { fromMs: 10 }))[1]![0]).toBe(3000);
    expect(after(captionChanged(of, at(2), { fromMs: 9900 }))[2]).toEqual([9200, 9500, 'Three']);
    expect(captionChanged(of, at(0), { fromMs: 1000 })).toBeNull();
  });
  it('say something else, or go when nothing is left of them', () => {
    expect(after(captionChanged(of, at(2), { text: ' Four ' }))[2]![2]).toBe('Four');
    expect(after(captionChanged(of, at(2), { text: '  ' })).length).toBe(2);
    expect(after(captionRemoved(of, at(0)))[0]![2]).toContain('boats');
  });
  it('are split where the text is broken best, in the share of time it takes to say, and joined again', () => {
    const [, first, second] = after(captionSplit(of, at(1)));
    expect([first![2], second![2]]).toEqual(['The boats came late,', 'and the band played on.']);
    expect(first![1]).toBe(second![0]);
    expect(Math.abs(first![1] - 5900)).toBeLessThan(300);
    expect(captionSplit(of, at(0))).toBeNull();
    expect(after(captionJoined(of, at(1)))[1]![2]).toContain('Three');
    expect(captionJoined(of, at(2))).toBeNull();
  });
  it('are added where there is room', () => {
    expect(after(captionAdded(of, at(0), 12_000, 'New')).at(-1)).toEqual([12_000, 14_000, 'New']);
    expect(after(captionAdded(of, at(0), 3100, 'Between'))[1]).toEqual([3100, 4000, 'Between']);
    expect(captionAdded(of, at(0), 2000, 'Over')).toBeNull();
  });
});
