import { describe, expect, it } from '@jest/globals';
import { showId } from '../show/ids';
import { blankSlide } from '../show/new-slide';
import { shapeName } from '../show/shape';
import { emptyShow, type Show } from '../show/show';
import { FRAME_RATES } from '../timing/frame-rate';
import { FORMAT_NAMES } from './film-formats';
import { faultOfFilm, faultOfSpec, showForFilm, type FilmSpec } from './film-spec';
import { PURPOSE_NAMES, specFor } from './purposes/purposes';

const HOUR = 3_600_000;
const lasting = (...lengths: number[]): Show => ({
  ...emptyShow(showId('s'), ''),
  slides: lengths.map((lengthMs, index) => blankSlide(lengthMs, '#000000', () => `s${index}`)),
});

describe('a film', () => {
  it.each<[string, Show, RegExp | null]>([
    ['needs a slide', lasting(), /no slides yet/],
    ['can last twelve hours', lasting(6 * HOUR, 6 * HOUR), null],
    ['and no longer', lasting(6 * HOUR, 6 * HOUR, 200), /12 hours at most/],
  ])('%s', (_name, show, sentence) => {
    if (sentence) expect(faultOfFilm(show)).toMatch(sentence);
    else expect(faultOfFilm(show)).toBeNull();
  });
  it('of a few seconds cannot be made of a whole show, nor one of a stretch that lies beyond it', () => {
    const show = lasting(60_000);
    const gif: FilmSpec = { ...specFor(show, 'teaser'), format: 'gif' };
    expect(faultOfFilm(show, gif)).toBeNull();
    const { span: _span, ...whole } = gif;
    expect(faultOfFilm(show, whole)).toMatch(/30 seconds at most/);
    expect(faultOfFilm(show, { ...gif, span: { fromMs: 70_000, toMs: 75_000 } })).toMatch(/after the show has ended/);
  });
});

describe('what is asked for', () => {
  const good = specFor(lasting(60_000), 'screen');
  it.each<[string, Partial<FilmSpec>, RegExp]>([
    ['odd sides', { widthPx: 1921 }, /even/],
    ['a size of another shape', { widthPx: 1080 }, /shape 16:9/],
    ['a shape that is none', { shape: '16:0' }, /two numbers/],
    ['a size of what has none', { format: 'vp9', mostBytes: 1e6 }, /cannot be made to a size/],
    ['a disc at another rate', { format: 'pal' }, /25 frames a second/],
    [
      'a disc of another shape',
      { format: 'pal', rate: FRAME_RATES['25']!, shape: '1:1', widthPx: 576, heightPx: 576 },
      /16:9 or 4:3/,
    ],
    ['hardly any time', { span: { fromMs: 100, toMs: 200 } }, /half a second/],
    ['a rate beyond all', { rate: { frames: 500, seconds: 1 } }, /frame rate/],
  ])('is refused for %s', (_name, part, sentence) => {
    expect(faultOfSpec(good)).toBeNull();
    expect(faultOfSpec({ ...good, ...part })).toMatch(sentence);
  });
});

describe('every purpose', () => {
  const shapes = [
    [1920, 1080],
    [1080, 1920],
    [1080, 1080],
    [1440, 1080],
  ] as const;
  it.each(PURPOSE_NAMES)('%s asks for what can be made, of shows of every shape and length', (purpose) => {
    for (const [widthPx, heightPx] of shapes)
      for (const lengthMs of [900, 17_000, 3 * HOUR]) {
        const show = { ...lasting(lengthMs), frame: { widthPx, heightPx, rate: FRAME_RATES['29.97']! } };
        const spec = specFor(show, purpose);
        expect(faultOfSpec(spec)).toBeNull();
        // Three hours do not go into a mail, and that is said before anything is drawn.
        if (purpose === 'email' && lengthMs === 3 * HOUR) expect(faultOfFilm(show, spec)).toMatch(/too long for 10 MB/);
        else expect(faultOfFilm(show, spec)).toBeNull();
        expect(FORMAT_NAMES).toContain(spec.format);
      }
  });
  it('by e-mail: the longer the show, the smaller the frame, and never larger than asked', () => {
    const widths = [20_000, 90_000, 400_000, 3 * HOUR].map(
      (lengthMs) => specFor(lasting(lengthMs), 'email', 1e7).widthPx,
    );
    expect(widths).toEqual([...widths].sort((a, b) => b - a));
    expect(new Set(widths).size).toBeGreaterThan(2);
  });
  it('in another shape and at another rate is the show laid out for that', () => {
    const show = lasting(4000);
    const upright = showForFilm(show, { ...specFor(show, 'upright'), rate: FRAME_RATES['25']! });
    expect([shapeName(upright.frame), upright.frame.rate]).toEqual(['9:16', FRAME_RATES['25']]);
    expect(showForFilm(show, specFor(show, 'screen'))).toBe(show);
  });
});
