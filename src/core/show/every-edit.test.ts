import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { anyEdit, EDIT_KINDS, edits, HELD_TOGETHER } from './dealt-edits.testing';
import { applyEdit, type ShowEdit } from './edit';
import { placeOfLayer } from './edits/changing';
import { EDIT_RECORDS } from './edits/edit-records';
import { faultOfShow } from './faults';
import { layerIn } from './pile';
import type { Show } from './show';
import { collide, touched } from './touched';
import { parseShow } from '../../server/schema/show-schema';

/** Whatever an edit does, what comes out can be opened again, and its inverse gives back what was there. */
function assertSound(before: Show, edit: ShowEdit): Show {
  const result = applyEdit(before, edit);
  if (!result.ok) {
    expect(result.sentence).toMatch(/^[A-Z].+\.$/s);
    return before;
  }
  expect(faultOfShow(result.show)).toBeNull();
  const back = applyEdit(result.show, result.inverse);
  expect(back.ok && back.show).toEqual(before);
  if (back.ok) {
    const again = applyEdit(back.show, back.inverse);
    expect(again.ok && again.show).toEqual(result.show);
  }
  return result.show;
}

/** Words for a layer that is not there lay it: what another sets of that layer finds something to be set of only afterwards. */
function laysFor(one: ShowEdit, other: ShowEdit): boolean {
  if (one.kind !== 'set-words' || !one.words) return false;
  const slide = HELD_TOGETHER.slides.find(({ id }) => id === one.slideId);
  if (!slide || layerIn(slide.layers, one.layerId)) return false;
  return touched(other).some((place) => place.startsWith(placeOfLayer(one)));
}

describe('every kind of edit, dealt at random', () => {
  it.each(EDIT_KINDS)('%s leaves a sound show and is undone and done again exactly', (kind) => {
    const record = EDIT_RECORDS[kind];
    let accepted = 0;
    fc.assert(
      fc.property(edits(kind), (edit) => {
        if (assertSound(HELD_TOGETHER, edit) !== HELD_TOGETHER) accepted += 1;
        expect(touched(edit).every((place) => typeof place === 'string')).toBe(true);
        expect(record.sentence(edit as never).length).toBeGreaterThan(0);
      }),
      { numRuns: 150 },
    );
    // A kind whose every edit is refused would pass without having been looked at.
    expect(accepted).toBeGreaterThan(0);
  });
  it('one after the other leave shows that the schema takes, and all are undone in turn', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 12 }), (storm) => {
        let current = HELD_TOGETHER;
        const inverses: ShowEdit[] = [];
        for (const edit of storm) {
          const result = applyEdit(current, edit);
          if (!result.ok) continue;
          inverses.unshift(result.inverse);
          current = result.show;
        }
        const parsed = parseShow(JSON.parse(JSON.stringify(current)));
        expect(parsed.ok ? null : parsed.problem).toBeNull();
        for (const inverse of inverses) {
          const back = applyEdit(current, inverse);
          if (!back.ok) throw new Error(back.sentence);
          current = back.show;
        }
        expect(current).toEqual(HELD_TOGETHER);
      }),
      { numRuns: 150 },
    );
  });
  it('of two that set values and do not collide, either may come first', () => {
    const values = EDIT_KINDS.filter((kind) => kind.startsWith('set-') || kind === 'rename-show' || kind === 'let-be');
    const anyValue = fc.oneof(...values.map(edits));
    let met = 0;
    fc.assert(
      fc.property(anyValue, anyValue, (one, other) => {
        if (collide([one], [other]) || laysFor(one, other) || laysFor(other, one)) return;
        const [first, second] = [applyEdit(HELD_TOGETHER, one), applyEdit(HELD_TOGETHER, other)];
        if (!first.ok || !second.ok) return;
        const [then, before] = [applyEdit(first.show, other), applyEdit(second.show, one)];
        if (!then.ok || !before.ok) return;
        met += 1;
        expect(then.show).toEqual(before.show);
      }),
      { numRuns: 1500 },
    );
    expect(met).toBeGreaterThan(150);
  });
});
