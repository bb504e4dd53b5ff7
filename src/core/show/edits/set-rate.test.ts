import { describe, expect, it } from '@jest/globals';
import { PURPOSE_NAMES, PURPOSES, specFor } from '../../film/purposes/purposes';
import { FRAME_RATES } from '../../timing/frame-rate';
import { applyEdit, type ShowEdit } from '../edit';
import { showId } from '../ids';
import { blankSlide } from '../new-slide';
import { emptyShow, type Show } from '../show';
import { collide } from '../touched';

const show: Show = { ...emptyShow(showId('x'), 'Clips'), slides: [blankSlide(4000, '#000000', () => 's')] };
const at = (name: string): ShowEdit => ({ kind: 'set-rate', rate: FRAME_RATES[name]! });

describe('how many frames a second a show has', () => {
  it.each(Object.keys(FRAME_RATES))('is %s once it is said so, changes nothing else, and is undone', (name) => {
    const result = applyEdit(show, at(name));
    if (!result.ok) throw new Error(result.sentence);
    expect(result.show).toEqual({ ...show, frame: { ...show.frame, rate: FRAME_RATES[name] } });
    expect(result.show.slides).toBe(show.slides);
    const back = applyEdit(result.show, result.inverse);
    expect(back.ok && back.show).toEqual(show);
  });
  it('is what films for every purpose have that have none of their own', () => {
    const result = applyEdit(show, at('25'));
    if (!result.ok) throw new Error(result.sentence);
    const rates = PURPOSE_NAMES.map((name) => [name, specFor(result.show, name).rate] as const);
    const others = rates.filter(([, rate]) => rate !== FRAME_RATES['25'] && rate !== result.show.frame.rate);
    // A disc has its own; a teaser moves by itself on pages.
    expect(others.map(([name]) => name).filter((name) => !/disc|teaser/.test(name))).toEqual([]);
    expect(Object.keys(PURPOSES).length).toBe(rates.length);
  });
  it.each([[{ frames: 1, seconds: 2 }], [{ frames: 240, seconds: 1 }], [{ frames: 0, seconds: 1 }]])(
    'cannot be %p',
    (rate) => {
      const result = applyEdit(show, { kind: 'set-rate', rate });
      expect(result.ok).toBe(false);
      expect(!result.ok && result.sentence).toMatch(/^\p{Lu}.*\.$/u);
    },
  );
  it('is one thing for two windows: the later one counts', () => {
    expect(collide([at('25')], [at('24')])).toBe(true);
    expect(collide([at('25')], [{ kind: 'rename-show', title: 'Other' }])).toBe(false);
  });
});
