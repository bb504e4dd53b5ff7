import { describe, expect, it } from '@jest/globals';
import { runsPutIn, runsTakenOut } from './order';

const items = (text: string) => [...text].map((id) => ({ id }));
const text = (list: readonly { readonly id: string }[]) => list.map(({ id }) => id).join('');

/** The same numbers at each run. */
function dice(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (Math.imul(state, 1_103_515_245) + 12_345) & 0x7fffffff;
    return state % below;
  };
}

describe('things taken out of an order', () => {
  it('remember with whom they stood, and after whom', () => {
    const { rest, runs } = runsTakenOut(items('abcdefg'), ['b', 'c', 'f', 'a'])!;
    expect(text(rest)).toBe('deg');
    expect(runs.map(({ afterId, items: run }) => [afterId, text(run)])).toEqual([
      [null, 'abc'],
      ['e', 'f'],
    ]);
  });
  it('are those that are there; where none is, nothing is taken', () => {
    expect(text(runsTakenOut(items('abc'), ['x', 'b'])!.rest)).toBe('ac');
    expect(runsTakenOut(items('abc'), ['x'])).toBeNull();
    expect(runsTakenOut(items('abc'), [])).toBeNull();
  });
  it('are the very same things, in the order in which they stood, whatever order they are named in', () => {
    const all = items('abcd');
    const { runs } = runsTakenOut(all, ['d', 'c'])!;
    expect(runs[0]!.items[0]).toBe(all[2]);
    expect(text(runs[0]!.items)).toBe('cd');
  });
  it('come back to where they were, whichever of however many they were', () => {
    const roll = dice(7);
    for (let round = 0; round < 300; round += 1) {
      const all = items('abcdefghijklmnop'.slice(0, 1 + roll(16)));
      const ids = all.filter(() => roll(3) === 0).map(({ id }) => id);
      const taken = runsTakenOut(all, ids);
      if (ids.length === 0) expect(taken).toBeNull();
      else expect(text(runsPutIn(taken!.rest, taken!.runs))).toBe(text(all));
    }
  });
});

describe('things put into an order', () => {
  it('go to its beginning, behind the one that is named, and to its end when that one is gone', () => {
    const put = (afterId: string | null) => text(runsPutIn(items('abc'), [{ afterId, items: items('xy') }]));
    expect([put(null), put('a'), put('c'), put('gone')]).toEqual(['xyabc', 'axybc', 'abcxy', 'abcxy']);
  });
  it('can be named by those that come with them', () => {
    const runs = [
      { afterId: 'b', items: items('x') },
      { afterId: 'x', items: items('y') },
    ];
    expect(text(runsPutIn(items('abc'), runs))).toBe('abxyc');
  });
  it('leave the list that was given as it was', () => {
    const before = items('abc');
    runsPutIn(before, [{ afterId: null, items: items('x') }]);
    expect(text(before)).toBe('abc');
  });
});
