import { describe, expect, it } from '@jest/globals';
import type { Channel, KeyedChannel, KeyTime } from '../../keys/channel';
import { applyEdit } from '../edit';
import { layerId, showId, slideId } from '../ids';
import type { SolidLayer } from '../layer';
import { MOST_KEYS } from '../limits';
import { blankSlide } from '../new-slide';
import { emptyShow, type Show } from '../show';
import type { SetKey } from './set-key';

const SLIDE = slideId('s');
const LAYER = layerId('l');
const start = (ms: number): KeyTime => ({ tied: 'start', ms });
const end = (ms: number): KeyTime => ({ tied: 'end', ms });
const showWith = (x?: Channel): Show => {
  const layer: SolidLayer = {
    kind: 'solid',
    id: LAYER,
    colour: '#102030',
    ...(x !== undefined && { channels: { x } }),
  };
  return { ...emptyShow(showId('x'), ''), slides: [{ ...blankSlide(5000, '#000000', () => SLIDE), layers: [layer] }] };
};
const xOf = (show: Show) => (show.slides[0]!.layers[0] as SolidLayer).channels?.x;
const edit = (at: KeyTime, key: SetKey['key'], after: KeyTime | null = null): SetKey => ({
  ...{ kind: 'set-key', slideId: SLIDE, layerId: LAYER, channel: 'x' },
  ...{ at, key, after },
});
const done = (show: Show, one: SetKey): Show => {
  const result = applyEdit(show, one);
  if (!result.ok) throw new Error(result.sentence);
  const back = applyEdit(result.show, result.inverse);
  // Whatever was done can be undone, to the letter.
  expect(back.ok && back.show).toEqual(show);
  return result.show;
};
const three = {
  keys: [
    { at: start(0), value: 0.2 },
    { at: start(1000), value: 0.5 },
    { at: end(0), value: 0.8 },
  ],
};

describe('a key', () => {
  it('is the first of a channel that stood still, or was not there', () => {
    expect(xOf(done(showWith(), edit(start(500), { value: 0.4 })))).toEqual({ keys: [{ at: start(500), value: 0.4 }] });
    expect(xOf(done(showWith(0.3), edit(start(500), { value: 0.4 })))).toEqual({
      keys: [{ at: start(500), value: 0.4 }],
    });
  });
  it('comes behind the one that is named, or first', () => {
    const values = (show: Show) => (xOf(show) as KeyedChannel).keys.map(({ value }) => value);
    expect(values(done(showWith(three), edit(start(2000), { value: 0.6 }, start(1000))))).toEqual([0.2, 0.5, 0.6, 0.8]);
    expect(values(done(showWith(three), edit(start(0.5), { value: 0.1 }, null)))).toEqual([0.1, 0.2, 0.5, 0.8]);
    // Behind one that is gone: at the end, so that nothing is lost.
    expect(values(done(showWith(three), edit(start(2000), { value: 0.6 }, start(1500))))).toEqual([0.2, 0.5, 0.8, 0.6]);
  });
  it('at a time that has one takes its place', () => {
    const after = done(showWith(three), edit(start(1000), { value: 0.55, easing: 'linear' }));
    expect((xOf(after) as typeof three).keys[1]).toEqual({ at: start(1000), value: 0.55, easing: 'linear' });
    expect((xOf(after) as typeof three).keys).toHaveLength(3);
  });
  it('is gone when it is taken away; the last one leaves the channel standing where it was', () => {
    expect((xOf(done(showWith(three), edit(start(1000), null))) as typeof three).keys).toHaveLength(2);
    expect(xOf(done(showWith({ keys: [three.keys[1]!] }), edit(start(1000), null)))).toBe(0.5);
  });
  it('leaves a smooth channel smooth', () => {
    const smooth = { ...three, smooth: true } as const;
    expect(xOf(done(showWith(smooth), edit(start(2000), { value: 0.6 }, start(1000))))).toMatchObject({ smooth: true });
  });
  it('tells times by what they are tied to', () => {
    const after = done(showWith(three), edit(start(0), { value: 0.9 }));
    expect((xOf(after) as typeof three).keys.map(({ value }) => value)).toEqual([0.9, 0.5, 0.8]);
    const other = done(showWith(three), edit(end(0), { value: 0.9 }));
    expect((xOf(other) as typeof three).keys.map(({ value }) => value)).toEqual([0.2, 0.5, 0.9]);
  });
  it('of one hand is undone without what another hand set meanwhile', () => {
    const mine = applyEdit(showWith(three), edit(start(1000), { value: 0.55 }));
    if (!mine.ok) throw new Error(mine.sentence);
    const theirs = applyEdit(mine.show, edit(end(0), { value: 0.7 }));
    if (!theirs.ok) throw new Error(theirs.sentence);
    const back = applyEdit(theirs.show, mine.inverse);
    expect(back.ok && (xOf(back.show) as typeof three).keys.map(({ value }) => value)).toEqual([0.2, 0.5, 0.7]);
  });
});

describe('a key is refused', () => {
  const reason = (show: Show, one: SetKey) => {
    const result = applyEdit(show, one);
    return result.ok ? null : result.reason;
  };
  it('where there is no such slide, layer or key', () => {
    expect(reason(showWith(three), { ...edit(start(0), { value: 0 }), slideId: slideId('gone') })).toBe(
      'slide-not-found',
    );
    expect(reason(showWith(three), { ...edit(start(0), { value: 0 }), layerId: layerId('gone') })).toBe(
      'layer-not-found',
    );
    expect(reason(showWith(three), edit(start(777), null))).toBe('layer-not-found');
  });
  it('where a channel has as many as there may be, unless it takes the place of one', () => {
    const many = { keys: Array.from({ length: MOST_KEYS }, (_, at) => ({ at: start(at), value: 0.5 })) };
    expect(reason(showWith(many), edit(start(MOST_KEYS), { value: 0.5 }, start(MOST_KEYS - 1)))).toBe('too-many-keys');
    expect(reason(showWith(many), edit(start(3), { value: 0.4 }))).toBeNull();
  });
  it('beyond what its channel can be', () => {
    expect(reason(showWith(), { ...edit(start(0), { value: 1.2 }), channel: 'opacity' })).toBe('unsound');
    expect(reason(showWith(), { ...edit(start(0), { value: 1 }), channel: 'opacity' })).toBeNull();
  });
});
