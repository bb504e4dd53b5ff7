import { describe, expect, it } from '@jest/globals';
import { layerId, slideId } from '../show/ids';
import type { WordsLayer } from '../show/layer';
import { WORDS_UNITS, WORDS_WAYS } from '../show/words';
import type { SlideSpan } from '../timing/slide-span';
import { finerUnit, pieceState, planPassage } from './passage';

const span: SlideSpan = {
  slideId: slideId('s'),
  slideIndex: 1,
  startMs: 10_000,
  endMs: 16_000,
  transitionMs: 1000,
  leavesMs: 17_000,
};
const words = (more: Partial<WordsLayer> = {}): WordsLayer => ({
  kind: 'words',
  id: layerId('w'),
  title: 'Regatta',
  subtitle: '',
  place: 'centre',
  ...more,
});
const alone = { index: 0, count: 1 };

describe('planPassage', () => {
  it('fades words in once the picture has arrived when nothing was said, and lets them stay', () => {
    const share = (ms: number) => planPassage(words(), span, ms).entrance.share;
    expect([share(800), share(1100), share(1400), share(6900)]).toEqual([0, 0.5, 1, 1]);
    expect(planPassage(words(), span, 6900).exit.share).toBe(0);
  });
  it('counts an entrance from the slide’s start and an exit back from the next slide’s', () => {
    const layer = words({
      come: {
        entrance: { way: 'rise', by: 'word', atMs: 1000, lengthMs: 2000 },
        exit: { way: 'blur', by: 'all', atMs: 500, lengthMs: 1000 },
      },
    });
    expect(planPassage(layer, span, 2000)).toMatchObject({
      entrance: { way: 'rise', by: 'word', share: 0.5 },
      exit: { share: 0 },
    });
    expect(planPassage(layer, span, 5000).exit.share).toBe(0.5);
    expect(planPassage(layer, span, 5500).exit.share).toBe(1);
  });
  it('keeps an exit at the end when the slide grows', () => {
    const layer = words({
      come: {
        entrance: { way: 'none', by: 'all', atMs: 0, lengthMs: 0 },
        exit: { way: 'fade', by: 'all', atMs: 0, lengthMs: 1000 },
      },
    });
    expect(planPassage(layer, { ...span, endMs: 30_000, leavesMs: 31_000 }, 19_500).exit.share).toBe(0.5);
  });
  it('is there at once, or gone at once, where it says so', () => {
    const layer = words({
      come: {
        entrance: { way: 'none', by: 'all', atMs: 700, lengthMs: 500 },
        exit: { way: 'none', by: 'all', atMs: 300, lengthMs: 0 },
      },
    });
    expect([699, 700].map((ms) => planPassage(layer, span, ms).entrance.share)).toEqual([0, 1]);
    expect([5699, 5700].map((ms) => planPassage(layer, span, ms).exit.share)).toEqual([0, 1]);
  });
  it('lets units follow each other as closely as is said, and go by the curve that is said', () => {
    const plan = (more: object, share: number) => ({
      entrance: { way: 'fade' as const, by: 'word' as const, share, ...more },
      exit: { way: 'none' as const, by: 'all' as const, share: 0 },
      travel: null,
    });
    const shown = (more: object, share: number, count = 5) =>
      Array.from({ length: count }, (_, index) => pieceState(plan(more, share), { index, count }, alone).opacity);
    // All at once, one strictly after the other, and as it is when nothing is said.
    expect(shown({ stagger: 0 }, 0.5)).toEqual([0.5, 0.5, 0.5, 0.5, 0.5]);
    expect(shown({ stagger: 1 }, 0.5).map((value) => Math.round(100 * value))).toEqual([100, 100, 50, 0, 0]);
    expect(shown({ stagger: 0.6 }, 0.3)).toEqual(shown({}, 0.3));
    for (const stagger of [0, 0.3, 0.9, 1]) {
      expect(shown({ stagger }, 1)).toEqual([1, 1, 1, 1, 1]);
      expect(shown({ stagger }, 0)).toEqual([0, 0, 0, 0, 0]);
    }
    expect(shown({ easing: 'set-off', stagger: 0 }, 0.5)[0]).toBeLessThan(0.4);
    expect(shown({ easing: 'arrive', stagger: 0 }, 0.5)[0]).toBeGreaterThan(0.6);
    // What goes beyond its goal is never more than there.
    const rising = pieceState(
      { ...plan({}, 0.7), entrance: { way: 'rise', by: 'all', share: 0.7, easing: 'swing' } },
      alone,
      alone,
    );
    expect([rising.opacity, rising.down < 0]).toEqual([1, true]);
  });
  it('says in its plan what is said of the pace, and nothing more', () => {
    const passage = { way: 'fade', by: 'word', atMs: 0, lengthMs: 1000 } as const;
    const of = (more: object) =>
      planPassage(words({ come: { entrance: { ...passage, ...more }, exit: { ...passage, ...more } } }), span, 500);
    expect(of({}).entrance).toEqual({ way: 'fade', by: 'word', share: 0.5 });
    expect(of({ easing: 'swing', stagger: 0.2 })).toMatchObject({
      entrance: { easing: 'swing', stagger: 0.2 },
      exit: { easing: 'swing', stagger: 0.2 },
    });
  });
  it('takes travelling words across while the slide is seen, or as long as it is told', () => {
    expect(planPassage(words({ travel: { kind: 'roll', fromMs: 1000, lengthMs: null } }), span, 4000).travel).toEqual({
      kind: 'roll',
      share: 0.5,
    });
    expect(planPassage(words({ travel: { kind: 'crawl', fromMs: 1000, lengthMs: 2000 } }), span, 4000).travel).toEqual({
      kind: 'crawl',
      share: 1,
    });
    expect(planPassage(words({ travel: { kind: 'roll', fromMs: 0, lengthMs: null } }), span, 0).entrance.share).toBe(1);
  });
});

describe('pieceState', () => {
  const state = (way: (typeof WORDS_WAYS)[number], share: number, of = alone) =>
    pieceState(
      { entrance: { way, by: 'letter', share }, exit: { way: 'none', by: 'all', share: 0 }, travel: null },
      of,
      alone,
    );

  it.each(WORDS_WAYS)('%s leaves nothing before and everything in place after', (way) => {
    const before = state(way, 0);
    expect(before.opacity === 0 || before.shown === 0).toBe(true);
    expect(state(way, 1)).toEqual({ opacity: 1, down: 0, shown: 1, blur: 0 });
  });
  it.each(['fade', 'rise', 'wipe', 'blur'] as const)('%s gets nearer with every moment', (way) => {
    const away = (share: number) => {
      const { opacity, down, shown, blur } = state(way, share);
      return 1 - opacity + down + (1 - shown) + blur;
    };
    // At nothing at all it is simply not there, wherever it will come from.
    for (let step = 2; step <= 20; step += 1) expect(away(step / 20)).toBeLessThan(away((step - 1) / 20) + 1e-9);
  });
  it('lets pieces follow each other in the order they are read, and all arrive in time', () => {
    const opacities = (share: number) => [0, 1, 2, 3].map((index) => state('fade', share, { index, count: 4 }).opacity);
    const middle = opacities(0.5);
    expect([...middle].sort((a, b) => b - a)).toEqual(middle);
    expect(middle[0]).toBe(1);
    expect(middle[3]).toBe(0);
    expect(opacities(1)).toEqual([1, 1, 1, 1]);
  });
  it('types with an even beat', () => {
    const typed = (share: number) =>
      Array.from({ length: 10 }, (_, index) => state('type', share, { index, count: 10 }).opacity).filter(
        (opacity) => opacity === 1,
      ).length;
    expect([0.05, 0.25, 0.55, 0.95].map(typed)).toEqual([1, 3, 6, 10]);
  });
  it('goes the way it came, upwards where it rose', () => {
    const gone = pieceState(
      { entrance: { way: 'none', by: 'all', share: 1 }, exit: { way: 'rise', by: 'all', share: 0.5 }, travel: null },
      alone,
      alone,
    );
    expect(gone.down).toBeLessThan(0);
    expect(gone.opacity).toBeGreaterThan(0.1);
    expect(gone.opacity).toBeLessThan(1);
  });
});

describe('finerUnit', () => {
  it('is the smaller of two, whichever comes first', () => {
    for (const a of WORDS_UNITS) for (const b of WORDS_UNITS) expect(finerUnit(a, b)).toBe(finerUnit(b, a));
    expect([finerUnit('all', 'word'), finerUnit('letter', 'line'), finerUnit('line', 'line')]).toEqual([
      'word',
      'letter',
      'line',
    ]);
  });
});
