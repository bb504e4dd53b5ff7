import { describe, expect, it } from '@jest/globals';
import { CLIP_FRAMINGS, clipFramingOf, clipMove } from './clip-move';
import { liesInside } from './crop';

const CLIPS = [16 / 9, 9 / 16, 4 / 3];

describe('a framing of a clip by a word', () => {
  it.each(CLIP_FRAMINGS.filter((framing) => framing !== 'whole'))(
    '%s never shows what lies beside the clip',
    (framing) => {
      for (const aspect of CLIPS)
        for (const box of [16 / 9, 1, 9 / 16]) {
          const { first, last } = clipMove(framing, aspect, box);
          const size = { widthPx: 1000 * aspect, heightPx: 1000 };
          expect([liesInside(first, size), liesInside(last, size)]).toEqual([true, true]);
          for (const { width, height } of [first, last]) expect((width * aspect) / height).toBeCloseTo(box, 6);
        }
    },
  );
  it('is known again by its move, and a move by hand is not', () => {
    for (const framing of CLIP_FRAMINGS.filter((word) => word !== 'whole'))
      expect(clipFramingOf(clipMove(framing, 4 / 3, 16 / 9), 4 / 3, 16 / 9)).toBe(framing);
    expect(clipFramingOf(clipMove('whole', 4 / 3, 16 / 9), 4 / 3, 16 / 9)).toBe('whole');
    const { first, last } = clipMove('closer', 4 / 3, 16 / 9);
    expect(clipFramingOf({ kind: 'set', first, last: { ...last, x: 0.45 } }, 4 / 3, 16 / 9)).toBeNull();
  });
});
