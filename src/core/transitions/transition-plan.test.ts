import { describe, expect, it } from '@jest/globals';
import { TRANSITION_FAMILIES, type TransitionFamily } from '../show/transition';
import { FAMILIES } from './transitions';
import { dealt, planTransition, transitionProgress } from './transition-plan';

const shuffle = (family: TransitionFamily | 'all', seed: number) => ({
  kind: 'shuffle' as const,
  lengthMs: 900,
  family,
  seed,
});

describe('a shuffle', () => {
  it('deals the same hand for the same seed, another for another', () => {
    const hand = (seed: number) =>
      Array.from({ length: 40 }, (_, index) => JSON.stringify(dealt(shuffle('all', seed), `slide-${index}`)));
    expect(hand(3)).toEqual(hand(3));
    expect(hand(3).filter((card, index) => card === hand(4)[index]).length).toBeLessThan(12);
    expect(new Set(hand(3)).size).toBeGreaterThan(15);
  });
  it.each(TRANSITION_FAMILIES)('of %s deals every one of the family and no other, with its own length', (family) => {
    const cards = Array.from({ length: 300 }, (_, index) => dealt(shuffle(family, 1), String(index)));
    expect(new Set(cards.map((card) => card.kind))).toEqual(new Set(FAMILIES[family]));
    expect(cards.every((card) => card.lengthMs === 900)).toBe(true);
  });
  it('deals directions, shapes and patterns too', () => {
    const directions = new Set(
      Array.from({ length: 200 }, (_, index) => {
        const card = dealt(shuffle('wipes', 5), String(index));
        return 'direction' in card ? `${card.kind} ${card.direction}` : '';
      }),
    );
    expect(directions.size).toBeGreaterThan(12);
  });
});

describe('a transition', () => {
  it('has at least twenty-four looks', () => {
    expect(Object.values(FAMILIES).flat().length).toBeGreaterThanOrEqual(18);
    const looks = new Set(
      Array.from({ length: 3000 }, (_, index) =>
        JSON.stringify(planTransition(shuffle('all', 9), String(index))).replace(/"seed":\d+/, ''),
      ),
    );
    expect(looks.size).toBeGreaterThanOrEqual(24);
  });
  it('goes evenly when it only mixes and softly when it moves, unless told otherwise', () => {
    expect(transitionProgress({ kind: 'dissolve', lengthMs: 1000 }, 'a', 0.25)).toBe(0.25);
    expect(transitionProgress({ kind: 'push', lengthMs: 1000 }, 'a', 0.1)).toBeLessThan(0.05);
    expect(transitionProgress({ kind: 'push', lengthMs: 1000, easing: 'linear' }, 'a', 0.1)).toBeCloseTo(0.1, 9);
    expect(transitionProgress({ kind: 'dissolve', lengthMs: 1000, easing: 'swing' }, 'a', 0.8)).toBe(1);
  });
  it('never has a border thinner than a pixel', () => {
    expect(planTransition({ kind: 'wipe', lengthMs: 1000, softness: 0 }, 'a')).toMatchObject({
      kind: 'map',
      softness: 0.002,
    });
  });
});
