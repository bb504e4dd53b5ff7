import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { layerId, slideId } from '../show/ids';
import type { WordsLayer } from '../show/layer';
import type { Slide } from '../show/show';
import { readableSpan } from '../words/passage';
import { shortestReadMs } from '../words/reading-speed';
import { LEAST_TRANSITION_MS } from './room-for-words';
import { slideSpans } from './slide-span';

const words = (title: string, more: Partial<WordsLayer> = {}): WordsLayer => ({
  ...{ kind: 'words', id: layerId('w'), title, subtitle: '', place: 'bottom' },
  ...more,
});
const titled = (layers: Slide['layers'], lengthMs: number, transitionMs: number, overWords?: boolean): Slide => ({
  ...{ id: slideId('titled'), lengthMs, backing: { kind: 'automatic' }, layers, sounds: [] },
  transition: { kind: 'dissolve', lengthMs: transitionMs, ...(overWords && { overWords }) },
});
const before: Slide = { ...titled([], 60_000, 0), id: slideId('before') };
const comesIn = (slide: Slide) => slideSpans([before, slide])[1]!.transitionMs;
const TEN = 'Ten words that stand on a slide of four seconds';

describe('a transition into a slide with words', () => {
  it('takes what was asked for where the words have time enough', () => {
    expect(comesIn(titled([words('Two words')], 4000, 1000))).toBe(1000);
  });
  it('gives way just so far that they can be read: ten words, there after 0.9 s and half the transition, take 2.7 s', () => {
    expect(shortestReadMs(TEN)).toBe(2728);
    const room = comesIn(titled([words(TEN)], 4000, 2000));
    // 4.0 – 2.728 – 0.9 = 0.372 s are left for its half.
    expect(room).toBeGreaterThan(700);
    expect(room).toBeLessThanOrEqual(744);
  });
  it('gives way to words that are there at once, since nothing is read while the slide comes in', () => {
    const entrance = { way: 'none', by: 'all', atMs: 0, lengthMs: 0 } as const;
    const room = comesIn(titled([words(TEN, { come: { entrance, exit: null } })], 4000, 2000));
    expect(room).toBeGreaterThan(1250);
    expect(room).toBeLessThanOrEqual(1272);
  });
  it('is never a flash, however much there is to read, and is left alone when it is short already', () => {
    const long = words(`${TEN} ${TEN} ${TEN}`);
    expect(comesIn(titled([long], 4000, 2000))).toBe(LEAST_TRANSITION_MS);
    expect(comesIn(titled([long], 4000, 300))).toBe(300);
  });
  it('takes all of it when it was told to, and when the words travel by themselves', () => {
    expect(comesIn(titled([words(TEN)], 4000, 2000, true))).toBe(2000);
    const rolling = words(TEN, { travel: { kind: 'roll', fromMs: 0, lengthMs: null } });
    expect(comesIn(titled([rolling], 4000, 2000))).toBe(2000);
  });
  it('leaves all words that a slide is long enough for the time they need, for any lengths and ways to come and go', () => {
    const passage = fc.record({
      way: fc.constantFrom('none' as const, 'fade' as const, 'rise' as const),
      by: fc.constant('all' as const),
      atMs: fc.integer({ min: 0, max: 2000 }),
      lengthMs: fc.integer({ min: 0, max: 2000 }),
    });
    const come = fc.option(fc.record({ entrance: passage, exit: fc.option(passage) }), { nil: undefined });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 30 }), come), { maxLength: 3 }),
        fc.integer({ min: 1000, max: 20_000 }),
        fc.integer({ min: 0, max: 10_000 }),
        (texts, lengthMs, askedMs) => {
          const layers = texts.map(([count, how], at) =>
            words('word '.repeat(count), { id: layerId(`w${at}`), ...(how && { come: how }) }),
          );
          const slide = titled(layers, lengthMs, askedMs);
          const [, span] = slideSpans([before, slide]);
          const fits = (transitionMs: number) =>
            layers.every((layer) => {
              const { startMs, endMs } = readableSpan(layer, { ...span!, transitionMs });
              return endMs - startMs >= shortestReadMs(layer.title);
            });
          const least = Math.min(LEAST_TRANSITION_MS, askedMs, Math.floor(lengthMs / 2));
          expect(span!.transitionMs).toBeGreaterThanOrEqual(least);
          expect(span!.transitionMs).toBeLessThanOrEqual(askedMs);
          if (fits(least)) expect(fits(span!.transitionMs)).toBe(true);
        },
      ),
    );
  });
});
