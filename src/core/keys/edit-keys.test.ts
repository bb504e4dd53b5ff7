import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { keyTimes, valueAt, type Channel, type Key, type KeyedChannel } from './channel';
import { colourAt, type KeyedColour } from './colour';
import { EASING_NAMES, type Easing } from './easing';
import {
  anyValueAt,
  keyIndexAt,
  withEasing,
  withKeyAt,
  withKeyMoved,
  withKeyTied,
  withKeyValue,
  withoutKey,
  withSmooth,
  withValueAt,
  type Keyed,
} from './edit-keys';

const SEEN_MS = 10_000;
const channel: KeyedChannel = {
  keys: [
    { at: { tied: 'start', ms: 1000 }, value: 10, easing: 'linear' },
    { at: { tied: 'stretch', share: 0.5 }, value: 20, easing: 'hold' },
    { at: { tied: 'end', ms: 1000 }, value: 40 },
  ],
};
const MOMENTS = Array.from({ length: 201 }, (_, step) => step * 50);
const values = (of: Channel) => MOMENTS.map((at) => valueAt(of, at, SEEN_MS));

const EASINGS = fc.oneof<fc.Arbitrary<Easing>[]>(
  fc.constantFrom(...EASING_NAMES),
  fc.record({ bezier: fc.constant([0.2, -0.3, 0.4, 1.4] as const) }),
);
const dealt = (smooth: boolean) =>
  fc
    .array(fc.record({ value: fc.double({ min: -5, max: 5, noNaN: true }), easing: EASINGS }), {
      minLength: 2,
      maxLength: 6,
    })
    .map((keys): KeyedChannel => {
      const timed: Key[] = keys.map((key, index) => ({
        at: { tied: 'stretch', share: (index + 0.5) / keys.length },
        ...key,
      }));
      return smooth ? { keys: timed, smooth: true } : { keys: timed };
    });

describe('a key put between two', () => {
  it.each([false, true])('changes nothing that is seen, whatever the easings (smooth: %s)', (smooth) => {
    fc.assert(
      fc.property(
        dealt(smooth),
        fc.integer({ min: 1, max: 9999 }),
        fc.integer({ min: 1, max: 9999 }),
        (dealtNow, one, two) => {
          const more = withKeyAt(withKeyAt(dealtNow, one, SEEN_MS), two, SEEN_MS);
          values(more).forEach((value, index) => expect(value).toBeCloseTo(values(dealtNow)[index]!, 7));
          expect(keyIndexAt(more, one, SEEN_MS)).toBeGreaterThanOrEqual(0);
        },
      ),
      { numRuns: 60 },
    );
  });
  it('takes the value that was there and is tied as its forerunner is', () => {
    expect(withKeyAt(channel, 3000, SEEN_MS).keys[1]).toEqual({
      at: { tied: 'start', ms: 3000 },
      value: 15,
      easing: 'linear',
    });
    expect(withKeyAt(channel, 9500, SEEN_MS).keys[3]).toEqual({ at: { tied: 'end', ms: 500 }, value: 40 });
  });
  it('is not put where one stands', () => expect(withKeyAt(channel, 1004, SEEN_MS)).toBe(channel));
  it('of a colour takes the colour that was there', () => {
    const colours: KeyedColour = {
      keys: [
        { at: { tied: 'start', ms: 0 }, colour: '#d8371f', easing: 'linear' },
        { at: { tied: 'end', ms: 0 }, colour: '#33708f' },
      ],
    };
    const more = withKeyAt(colours, 5000, SEEN_MS);
    expect(more.keys[1]!.colour).toBe(colourAt(colours, 5000, SEEN_MS));
    expect(more.keys[1]!.colour).not.toBe('#d8371f');
  });
});

describe('a value set', () => {
  it('is taken for good where nothing is keyed, and is a key from the first key on', () => {
    expect(withValueAt<Channel>(0.2, 0.7, 4000, SEEN_MS)).toBe(0.7);
    const first = withKeyAt(0.2 as Channel, 1000, SEEN_MS);
    expect(first).toEqual({ keys: [{ at: { tied: 'start', ms: 1000 }, value: 0.2 }] });
    const second = withValueAt(first, 0.9, 9000, SEEN_MS) as KeyedChannel;
    expect(second.keys.map((key) => key.value)).toEqual([0.2, 0.9]);
    expect(withValueAt(second, 0.5, 9000, SEEN_MS)).toMatchObject({ keys: [{ value: 0.2 }, { value: 0.5 }] });
  });
  it('late on the slide begins with a key tied to its end', () => {
    expect(withKeyAt(1 as Channel, 9000, SEEN_MS)).toMatchObject({ keys: [{ at: { tied: 'end', ms: 1000 } }] });
  });
});

describe('a key changed', () => {
  it('is moved no further than its neighbours, and tied otherwise without moving', () => {
    expect(keyTimes((withKeyMoved(channel, 1, 12_000, SEEN_MS) as Keyed).keys, SEEN_MS)).toEqual([1000, 9000, 9000]);
    expect(keyTimes((withKeyMoved(channel, 1, 0, SEEN_MS) as Keyed).keys, SEEN_MS)).toEqual([1000, 1000, 9000]);
    const tied = withKeyTied(channel, 1, 'end', SEEN_MS) as Keyed;
    expect(tied.keys[1]!.at).toEqual({ tied: 'end', ms: 5000 });
    expect(values(tied as Channel)).toEqual(values(channel));
  });
  it('takes another value or easing and leaves the others alone', () => {
    expect((withKeyValue(channel, 1, 7) as KeyedChannel).keys.map((key) => key.value)).toEqual([10, 7, 40]);
    expect((withEasing(channel, 0, 'rush') as KeyedChannel).keys.map((key) => key.easing)).toEqual([
      'rush',
      'hold',
      undefined,
    ]);
  });
  it('leaves its value behind when it was the last', () => {
    const one = withoutKey(withoutKey(channel, 0) as Keyed, 0) as Keyed;
    expect(withoutKey(one, 0)).toBe(40);
    expect(anyValueAt(withoutKey({ keys: [{ at: { tied: 'end', ms: 0 }, colour: '#102030' }] }, 0), 0, 1)).toBe(
      '#102030',
    );
  });
});

describe('a smooth channel', () => {
  const places: KeyedChannel = {
    smooth: true,
    keys: [0.1, 0.5, 0.5, 0.2, 0.9].map((value, index) => ({
      at: { tied: 'stretch', share: index / 4 },
      value,
      easing: 'linear',
    })),
  };
  it('goes through its keys and rests where two are equal', () => {
    for (const [index, key] of places.keys.entries())
      expect(valueAt(places, (index / 4) * SEEN_MS, SEEN_MS)).toBeCloseTo(key.value, 12);
    for (const at of MOMENTS.filter((moment) => moment >= 2500 && moment <= 5000))
      expect(valueAt(places, at, SEEN_MS)).toBeCloseTo(0.5, 12);
  });
  it('has no corner at a key it passes', () => {
    const rising: KeyedChannel = {
      ...places,
      keys: places.keys.map((key, index) => ({ ...key, value: index * index })),
    };
    const before = valueAt(rising, 5000, SEEN_MS) - valueAt(rising, 4999, SEEN_MS);
    const after = valueAt(rising, 5001, SEEN_MS) - valueAt(rising, 5000, SEEN_MS);
    expect(before / after).toBeCloseTo(1, 2);
    const straight = withSmooth(rising, false);
    const corner = valueAt(straight, 5001, SEEN_MS) - valueAt(straight, 5000, SEEN_MS);
    expect(Math.abs(before / corner - 1)).toBeGreaterThan(0.1);
  });
  it('is straight again as it was', () => {
    const straight = withSmooth(places, false);
    expect(withSmooth(withSmooth(straight, true), false)).toEqual(straight);
  });
});
