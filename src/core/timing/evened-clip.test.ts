import { describe, expect, it } from '@jest/globals';
import { applyEdit } from '../show/edit';
import { assetId, layerId, showId } from '../show/ids';
import type { ClipLayer } from '../show/layer';
import { blankSlide } from '../show/new-slide';
import { emptyShow, type Show } from '../show/show';
import { evenedRate, evenedWithinMs, LONGEST_DRAWN_MS, withEvenedCopy } from './evened-clip';
import { FRAME_RATES, faultOfRate, framesPerSecond } from './frame-rate';

const rate = (name: string) => FRAME_RATES[name]!;

describe('the rate of an evened copy', () => {
  it.each(Object.keys(FRAME_RATES))(
    'is that of the film, %s, where the clip is played as fast as it was filmed',
    (name) => {
      expect(evenedRate(rate(name), 1)).toEqual(rate(name));
    },
  );
  it.each([
    ['30', 0.5, 60],
    ['25', 0.25, 100],
    ['30', 0.75, 40],
    ['24', 2, 12],
    ['29.97', 0.5, 59.94],
  ] as const)('goes into a film of %s a second one by one at speed %d: %d', (film, speed, each) => {
    expect(framesPerSecond(evenedRate(rate(film), speed))).toBeCloseTo(each, 2);
  });
  it.each([
    ['60', 0.25],
    ['59.94', 0.1],
    ['50', 0.3],
  ] as const)(
    'is one that may be asked for and goes evenly into a film of %s a second, however slowly it is played: %d',
    (film, speed) => {
      const evened = evenedRate(rate(film), speed);
      expect(faultOfRate(evened)).toBeNull();
      const times = framesPerSecond(rate(film)) / (framesPerSecond(evened) * speed);
      expect(Math.abs(times - Math.round(times))).toBeLessThan(0.001 * times);
    },
  );
});

describe('how long an evened copy takes', () => {
  const clip = { widthPx: 1280, heightPx: 720, lengthMs: 10_000 };
  it('grows with what there is to make, and drawing between takes far longer than mixing', () => {
    const mixed = evenedWithinMs(clip, rate('30'), 'mixed')!;
    expect(evenedWithinMs({ ...clip, lengthMs: 20_000 }, rate('30'), 'mixed')).toBeCloseTo(2 * mixed);
    expect(evenedWithinMs(clip, rate('60'), 'mixed')).toBeCloseTo(2 * mixed);
    expect(evenedWithinMs(clip, rate('30'), 'drawn')!).toBeGreaterThan(8 * mixed);
  });
  it('is not said of frames drawn between in a clip of hours', () => {
    const long = { ...clip, lengthMs: LONGEST_DRAWN_MS + 1 };
    expect(evenedWithinMs(long, rate('30'), 'drawn')).toBeNull();
    expect(evenedWithinMs(long, rate('30'), 'mixed')).toBeGreaterThan(0);
  });
});

describe('an evened copy in its clip’s place', () => {
  const [clip, copy] = [assetId('a'.repeat(64)), assetId('b'.repeat(64))];
  const layer = {
    kind: 'clip',
    id: layerId('c'),
    assetId: clip,
    trimStartMs: 400,
    speed: 0.5,
    soundGainDb: -6,
  } as ClipLayer;
  const bare: Show = {
    ...emptyShow(showId('s'), 'Clips'),
    slides: [{ ...blankSlide(4000, '#000000', () => 's'), layers: [layer] }],
  };
  it.each([
    ['nothing', {}],
    ['its print and its licence', { posters: { [clip]: 1200 }, licences: { [clip]: 'Ours' } }],
  ] as const)('takes %s along, keeps its part and speed, and is undone in one step', (_what, said) => {
    const show = { ...bare, ...said };
    const laid = applyEdit(show, withEvenedCopy(show, clip, copy));
    if (!laid.ok) throw new Error('refused');
    expect(laid.show.slides[0]!.layers).toEqual([{ ...layer, assetId: copy }]);
    expect(laid.show.posters?.[copy]).toBe(show.posters?.[clip]);
    expect(laid.show.licences?.[copy]).toBe(show.licences?.[clip]);
    const back = applyEdit(laid.show, laid.inverse);
    expect(back.ok && back.show).toEqual(show);
  });
});
