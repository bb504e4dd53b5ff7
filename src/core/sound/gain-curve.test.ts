import { describe, expect, it } from '@jest/globals';
import { duckCurve, fadeCurve, levelCurve, pointsOf } from './gain-curve';
import { gainAt, gainOfDb } from './mix-plan';

const db = (gain: number) => 20 * Math.log10(gain);

describe('fades', () => {
  const span = { startMs: 1000, endMs: 11_000 };
  it('begin and end in silence, and leave alone what lies between', () => {
    const { at } = fadeCurve({ ...span, inMs: 2000, outMs: 3000 });
    expect([1000, 2000, 3000, 5000, 8000, 9500, 11_000].map(at)).toEqual([0, 0.5, 1, 1, 1, 0.5, 0]);
  });
  it.each([
    ['straight', 0.25],
    ['gentle', 0.5 - 0.5 * Math.cos(Math.PI / 4)],
    ['equal', Math.sin(Math.PI / 8)],
  ] as const)('that are %s go as that curve does', (curve, quarter) => {
    const { at } = fadeCurve({ ...span, inMs: 4000, outMs: 4000, inCurve: curve, outCurve: curve });
    expect(at(2000)).toBeCloseTo(quarter);
    expect(at(10_000)).toBeCloseTo(quarter);
  });
  it('of equal power keep two sounds that change places as loud as one', () => {
    const out = fadeCurve({ startMs: 0, endMs: 9000, inMs: 0, outMs: 3000, outCurve: 'equal' });
    const into = fadeCurve({ startMs: 6000, endMs: 15_000, inMs: 3000, outMs: 0, inCurve: 'equal' });
    for (let atMs = 6000; atMs <= 9000; atMs += 125) expect(out.at(atMs) ** 2 + into.at(atMs) ** 2).toBeCloseTo(1);
  });
  it('take half of a span each where both are longer than it', () => {
    const { at, corners } = fadeCurve({ startMs: 0, endMs: 1000, inMs: 5000, outMs: 5000 });
    expect([at(0), at(500), at(1000)]).toEqual([0, 1, 0]);
    expect(corners).toEqual([0, 500, 500, 1000]);
  });
  it('that are none are none', () => {
    const { at } = fadeCurve({ startMs: 0, endMs: 1000, inMs: 0, outMs: 0 });
    expect([at(0), at(1000)]).toEqual([1, 1]);
  });
});

describe('a level line', () => {
  it('is none without points', () => expect(levelCurve([], 0, 1000)).toBeNull());
  it('is straight in decibels between its points, and level outside of them', () => {
    const { at } = levelCurve(
      [
        { from: 'start', offsetMs: 1000, gainDb: 0 },
        { from: 'start', offsetMs: 3000, gainDb: -12 },
      ],
      500,
      9000,
    )!;
    expect([500, 1500, 2500, 3500, 9000].map((ms) => Math.round(db(at(ms))))).toEqual([0, 0, -6, -12, -12]);
  });
  it('moves its points with the end they are tied to', () => {
    const points = [
      { from: 'end', offsetMs: 1000, gainDb: -20 },
      { from: 'start', offsetMs: 0, gainDb: 0 },
    ] as const;
    for (const endMs of [5000, 60_000]) {
      const { at, corners } = levelCurve(points, 0, endMs)!;
      expect(corners).toEqual([0, endMs - 1000]);
      expect(db(at(endMs - 1000))).toBeCloseTo(-20);
      expect(db(at((endMs - 1000) / 2))).toBeCloseTo(-10);
    }
  });
});

describe('music under a voice', () => {
  const wishes = { db: 9, inMs: 300, outMs: 600 };
  it('is lower by what was set while it is spoken, and as before away from it', () => {
    const { at } = duckCurve([{ startMs: 5000, endMs: 8000 }], wishes)!;
    expect([0, 4700, 8600, 20_000].map((ms) => db(at(ms)) + 0)).toEqual([0, 0, 0, 0]);
    for (const ms of [5000, 6500, 8000]) expect(db(at(ms))).toBeCloseTo(-9);
    expect(db(at(4850))).toBeCloseTo(-4.5);
    expect(db(at(8300))).toBeCloseTo(-4.5);
  });
  it('stays down in a short pause, and comes up in a long one', () => {
    const short = duckCurve(
      [
        { startMs: 1000, endMs: 3000 },
        { startMs: 4000, endMs: 5000 },
      ],
      wishes,
    )!;
    expect(db(short.at(3500))).toBeCloseTo(-9);
    const long = duckCurve(
      [
        { startMs: 1000, endMs: 3000 },
        { startMs: 6000, endMs: 7000 },
      ],
      wishes,
    )!;
    expect(long.at(4500)).toBe(1);
  });
  it('is the same in whatever order voices are told, and where they overlap', () => {
    const stretches = [
      { startMs: 9000, endMs: 9500 },
      { startMs: 1000, endMs: 3000 },
      { startMs: 2000, endMs: 2500 },
    ];
    const [one, other] = [duckCurve(stretches, wishes)!, duckCurve([...stretches].reverse(), wishes)!];
    for (let ms = 0; ms < 12_000; ms += 70) expect(one.at(ms)).toBe(other.at(ms));
    expect(db(one.at(2900))).toBeCloseTo(-9);
  });
  it('never changes by more than 3 dB in 10 ms, however suddenly it is asked to', () => {
    const { at } = duckCurve([{ startMs: 1000, endMs: 2000 }], { db: 24, inMs: 80, outMs: 80 })!;
    for (let ms = 800; ms < 2300; ms += 1) expect(Math.abs(db(at(ms + 10)) - db(at(ms)))).toBeLessThanOrEqual(3.0001);
  });
  it('is nothing where nothing is spoken, or nothing was set', () => {
    expect(duckCurve([], wishes)).toBeNull();
    expect(duckCurve([{ startMs: 0, endMs: 1 }], { ...wishes, db: 0 })).toBeNull();
  });
});

describe('curves as points with straight lines between', () => {
  const span = { startMs: 0, endMs: 20_000 };
  const curves = [
    fadeCurve({ ...span, inMs: 4000, outMs: 6000, inCurve: 'gentle', outCurve: 'equal' }),
    levelCurve(
      [
        { from: 'start', offsetMs: 3000, gainDb: -3 },
        { from: 'end', offsetMs: 3000, gainDb: -18 },
      ],
      0,
      20_000,
    )!,
    duckCurve([{ startMs: 8000, endMs: 11_000 }], { db: 12, inMs: 250, outMs: 700 })!,
  ];
  const points = pointsOf(curves, span);
  it('lie within a tenth of a decibel of their product where it can be heard', () => {
    for (let ms = 0; ms <= 20_000; ms += 7) {
      const wanted = curves.reduce((product, { at }) => product * at(ms), 1);
      const got = gainAt(points, ms);
      if (wanted > gainOfDb(-40)) expect(Math.abs(db(got / wanted))).toBeLessThan(0.1);
      else expect(Math.abs(got - wanted)).toBeLessThan(0.001);
    }
  });
  it('rise in time, from the beginning of the span to its end', () => {
    expect([points[0]!.atMs, points.at(-1)!.atMs]).toEqual([0, 20_000]);
    points.slice(1).forEach(({ atMs }, at) => expect(atMs).toBeGreaterThan(points[at]!.atMs));
  });
  it('are few where nothing bends', () => {
    const flat = pointsOf([fadeCurve({ startMs: 0, endMs: 600_000, inMs: 0, outMs: 0 })], {
      startMs: 0,
      endMs: 600_000,
    });
    expect(flat.length).toBeLessThan(5);
    expect(points.length).toBeLessThan(200);
  });
});
