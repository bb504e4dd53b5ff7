import { describe, expect, it } from '@jest/globals';
import { applyEdit, type ShowEdit } from './edit';
import { isHeld } from './chosen';
import { assetId, layerId, showId, slideId } from './ids';
import { blankSlide } from './new-slide';
import { emptyShow, type Show } from './show';

const show: Show = {
  ...emptyShow(showId('s'), ''),
  slides: ['a', 'b'].map((id) => blankSlide(3000, '#000000', () => id)),
};
const done = (edit: ShowEdit, to = show) => {
  const result = applyEdit(to, edit);
  if (!result.ok) throw new Error(result.sentence);
  const back = applyEdit(result.show, result.inverse);
  expect(back.ok && back.show).toEqual(to);
  return result.show;
};
const length = (by?: 'hand' | 'music' | null): ShowEdit => ({
  kind: 'set-lengths',
  lengths: [{ slideId: slideId('a'), lengthMs: 4000, ...(by !== undefined && { by }) }],
});

describe('who chose a value', () => {
  it('is a hand unless somebody else is named', () => {
    expect([length(), length('music'), length(null)].map((edit) => done(edit).slides[0]!.chosen)).toEqual([
      { length: 'hand' },
      { length: 'music' },
      undefined,
    ]);
    expect(
      done({ kind: 'set-transitions', transitions: [{ slideId: slideId('a'), transition: { kind: 'cut' } }] })
        .slides[0]!.chosen,
    ).toEqual({ transition: 'hand' });
  });
  it('is noted for moves, words, light and backings too, and for none of them when they go back to what is automatic', () => {
    const on = { slideId: slideId('a'), layerId: layerId('p') };
    const picture = done({
      kind: 'add-layers',
      slideId: on.slideId,
      runs: [
        {
          into: null,
          aboveId: null,
          layers: [{ kind: 'picture', id: on.layerId, assetId: assetId('a'.repeat(64)), move: { kind: 'automatic' } }],
        },
      ],
    });
    const chosen = (to: Show) => [to.slides[0]!.chosen, to.slides[0]!.layers[0]!.chosen];
    let now = done({ kind: 'set-move', ...on, move: { kind: 'still' } }, picture);
    now = done({ kind: 'set-light', lights: [{ ...on, light: { sepia: 1 }, by: 'look' }] }, now);
    now = done({ kind: 'set-backing', slideId: on.slideId, backing: { kind: 'colour', colour: '#000000' } }, now);
    expect(chosen(now)).toEqual([{ backing: 'hand' }, { move: 'hand', light: 'look' }]);
    now = done({ kind: 'set-choosers', choosers: [{ ...on, value: 'move', by: null }] }, now);
    expect(chosen(now)[1]).toEqual({ light: 'look' });
    now = done({ kind: 'set-light', lights: [{ ...on, light: null }] }, now);
    now = done({ kind: 'set-move', ...on, move: { kind: 'automatic' } }, now);
    now = done({ kind: 'set-backing', slideId: on.slideId, backing: { kind: 'automatic' } }, now);
    expect(chosen(now)).toEqual([undefined, undefined]);
    expect(applyEdit(now, { kind: 'set-choosers', choosers: [{ ...on, value: 'length', by: null }] })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining('a layer’s its move, words and light'),
    });
  });
  it('is let go and held again without the value changing', () => {
    const held = done(length());
    const free = done({ kind: 'set-choosers', choosers: [{ slideId: slideId('a'), value: 'length', by: null }] }, held);
    expect([isHeld(held.slides[0]!, 'length'), isHeld(free.slides[0]!, 'length'), free.slides[0]!.lengthMs]).toEqual([
      true,
      false,
      4000,
    ]);
    expect(
      done({ kind: 'set-choosers', choosers: [{ slideId: slideId('a'), value: 'length', by: 'hand' }] }, free),
    ).toEqual(held);
  });
});
