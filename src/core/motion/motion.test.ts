import { describe, expect, it } from '@jest/globals';
import { cubicBezier, linear, settle } from '../keys/easing';
import { assetId, layerId, showId, slideId } from '../show/ids';
import { emptyShow } from '../show/show';
import { slideSpans } from '../timing/slide-span';
import { automaticMove, LARGEST_ENLARGEMENT, standingFraming } from './automatic-move';
import { betweenFramings, type Framing } from './framing';
import { planMoves } from './plan-moves';
import { seedOf } from './seed';

const FULL_HD = { widthPx: 1920, heightPx: 1080, rate: { frames: 30, seconds: 1 } };
const SIZES = [
  [6000, 4000],
  [4000, 6000],
  [4032, 3024],
  [3024, 4032],
  [1920, 1080],
  [2400, 2400],
  [9000, 3000],
  [1280, 720],
  [800, 600],
  [640, 480],
  [300, 900],
  [60, 40],
  [1921, 1081],
] as const;

/** How far the framing reaches beyond the picture, as a fraction. */
const beyond = (framing: Framing) =>
  Math.max(Math.abs(framing.x - 0.5) + framing.width / 2, Math.abs(framing.y - 0.5) + framing.height / 2) - 0.5;

describe('automaticMove', () => {
  const all = SIZES.flatMap(([widthPx, heightPx]) =>
    [2, 5, 12].flatMap((seconds) =>
      Array.from({ length: 12 }, (_, seed) => ({
        widthPx,
        heightPx,
        seconds,
        isLong: Math.max(widthPx / heightPx, heightPx / widthPx) >= 2.2,
        move: automaticMove({ widthPx, heightPx }, FULL_HD, seconds * 1000, `seed ${seed}`),
      })),
    ),
  );

  it('keeps the frame’s shape on the picture', () => {
    for (const { widthPx, heightPx, move } of all)
      for (const framing of [move.first, move.last])
        expect((framing.width * widthPx) / (framing.height * heightPx)).toBeCloseTo(16 / 9, 6);
  });
  it('never enlarges past the picture’s pixels by more than 1.5', () => {
    for (const { widthPx, move } of all)
      for (const framing of [move.first, move.last])
        expect(1920 / (framing.width * widthPx)).toBeLessThanOrEqual(LARGEST_ENLARGEMENT + 1e-9);
  });
  it('stays inside the picture all the way, or shows it whole all the way', () => {
    for (const { move, isLong } of all) {
      if (isLong) continue;
      const way = Array.from({ length: 21 }, (_, step) => betweenFramings(move.first, move.last, step / 20));
      const inside = way.every((framing) => beyond(framing) <= 1e-9);
      const whole = way.every(
        (framing) =>
          framing.width >= 1 &&
          framing.height >= 1 &&
          Math.abs(framing.x - 0.5) <= (framing.width - 1) / 2 + 1e-9 &&
          Math.abs(framing.y - 0.5) <= (framing.height - 1) / 2 + 1e-9,
      );
      expect(inside || whole).toBe(true);
    }
  });
  it.each([
    ['a panorama', 9000, 2400],
    ['a small panorama', 2000, 420],
    ['a tall strip', 1200, 9000],
    ['a small tall strip', 300, 900],
  ])('travels along %s, from within it to within it, as large as its pixels allow', (_name, widthPx, heightPx) => {
    for (let seed = 0; seed < 6; seed += 1) {
      const { first, last } = automaticMove({ widthPx, heightPx }, FULL_HD, 6000, `seed ${seed}`);
      const [along, size] = widthPx > heightPx ? (['x', 'width'] as const) : (['y', 'height'] as const);
      const across = along === 'x' ? 'y' : 'x';
      expect([first[across], last[across]]).toEqual([0.5, 0.5]);
      // Two thirds of what is seen at once, in six seconds, or all there is.
      const way = Math.min(1 - first[size], 0.66 * first[size]);
      expect(Math.abs(first[along] - last[along])).toBeCloseTo(way, 6);
      for (const framing of [first, last]) {
        expect(Math.abs(framing[along] - 0.5) + framing[size] / 2).toBeLessThanOrEqual(0.5 + 1e-9);
        expect(1920 / (framing.width * widthPx)).toBeLessThanOrEqual(LARGEST_ENLARGEMENT + 1e-9);
      }
    }
  });
  it('moves every picture, and never hastily', () => {
    for (const { move, isLong, seconds } of all) {
      const zoom = Math.abs(Math.log(move.last.width / move.first.width));
      const shift = Math.hypot(
        (move.last.x - move.first.x) / move.first.width,
        (move.last.y - move.first.y) / move.first.height,
      );
      expect(zoom + shift).toBeGreaterThan(0.012);
      expect(zoom).toBeLessThan(0.25);
      expect(shift).toBeLessThan(isLong ? 0.115 * seconds : 0.3);
    }
  });
  it('fills the frame with ordinary photographs and shows upright ones whole', () => {
    expect(automaticMove({ widthPx: 6000, heightPx: 4000 }, FULL_HD, 5000, 's').first.width).toBeLessThanOrEqual(1);
    expect(automaticMove({ widthPx: 4000, heightPx: 6000 }, FULL_HD, 5000, 's').first.width).toBeGreaterThan(2);
  });
  it('gives the same move for the same seed', () => {
    const move = () => automaticMove({ widthPx: 6000, heightPx: 4000 }, FULL_HD, 5000, 'k', { unlike: 'closer' });
    expect(move()).toEqual(move());
  });
});

describe('planMoves', () => {
  const id = assetId('a'.repeat(64));
  const slides = Array.from({ length: 300 }, (_, index) => ({
    id: slideId(`s${index}`),
    lengthMs: 5000,
    transition: { kind: 'cut' as const },
    backing: { kind: 'automatic' as const },
    sounds: [],
    layers: [{ kind: 'picture' as const, id: layerId(`p${index}`), assetId: id, move: { kind: 'automatic' as const } }],
  }));
  const show = { ...emptyShow(showId('x'), ''), slides };
  const facts = new Map([
    [
      id,
      {
        kind: 'picture' as const,
        widthPx: 6000,
        heightPx: 4000,
        hasTransparency: false,
        takenAt: null,
        camera: null,
        brightness: 0.5,
      },
    ],
  ]);
  const moves = planMoves(show, facts, slideSpans(slides));

  it('gives no two neighbours the same move, and uses them all', () => {
    const names = slides.map((slide) => moves.get(slide.id)!.get(slide.layers[0]!.id)!.name);
    expect(names.slice(1).filter((name, index) => name === names[index])).toEqual([]);
    expect(new Set(names).size).toBeGreaterThanOrEqual(5);
  });
  it('leaves out pictures nothing is known about', () => {
    expect([...planMoves(show, new Map(), slideSpans(slides)).values()].every((of) => of.size === 0)).toBe(true);
  });
});

describe('standingFraming', () => {
  it('fills with a clip that is a little small, but shows a tiny one whole', () => {
    expect(standingFraming({ widthPx: 1280, heightPx: 720 }, FULL_HD, 3)).toMatchObject({ width: 1, height: 1 });
    expect(standingFraming({ widthPx: 320, heightPx: 180 }, FULL_HD, 1.5).width).toBe(4);
  });
});

describe('betweenFramings', () => {
  const first: Framing = { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };
  const last: Framing = { x: 0.6, y: 0.4, width: 0.5, height: 0.5, turnDegrees: 10 };
  it('begins at the first and ends at the last', () => {
    expect(betweenFramings(first, last, 0)).toEqual(first);
    const end = betweenFramings(first, last, 1);
    expect([end.x, end.y, end.width, end.turnDegrees]).toEqual(
      [0.6, 0.4, 0.5, 10].map((value) => expect.closeTo(value, 12)),
    );
  });
  it('zooms in equal ratios and keeps the fixed point in place', () => {
    const middle = betweenFramings(first, last, 0.5);
    expect(middle.width).toBeCloseTo(Math.SQRT1_2, 12);
    // The point that lies at the same place of both framings: 0.7 across.
    const placeOf = (framing: Framing) => (0.7 - framing.x) / framing.width;
    expect(placeOf(middle)).toBeCloseTo(placeOf(first), 12);
  });
});

describe('easing', () => {
  it('meets the CSS curve ease-in-out at its known values', () => {
    const curve = cubicBezier(0.42, 0, 0.58, 1);
    expect(curve(0.5)).toBeCloseTo(0.5, 9);
    expect(curve(0.25)).toBeCloseTo(0.12916, 4);
  });
  it('holds outside 0…1, rises throughout, and refuses impossible curves', () => {
    expect([settle(-1), settle(2), linear(-1), linear(2)]).toEqual([0, 1, 0, 1]);
    for (let step = 1; step <= 100; step += 1) expect(settle(step / 100)).toBeGreaterThan(settle((step - 1) / 100));
    expect(() => cubicBezier(1.2, 0, 0.5, 1)).toThrow('x1 and x2 must lie within 0…1, got 1.2 and 0.5');
  });
});

describe('seedOf', () => {
  it('spreads evenly over 0…1', () => {
    const tenths = new Array(10).fill(0) as number[];
    for (let index = 0; index < 5000; index += 1) tenths[Math.floor(seedOf(`slide ${index}`, 1) * 10)]! += 1;
    expect(Math.min(...tenths)).toBeGreaterThan(400);
    expect(Math.max(...tenths)).toBeLessThan(600);
  });
});
