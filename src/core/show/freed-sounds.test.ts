import { describe, expect, it } from '@jest/globals';
import { applyEdit, type ShowEdit } from './edit';
import { assetId, cueId, showId, slideId, type SlideId } from './ids';
import { blankSlide } from './new-slide';
import { songAfter, voiceHere, type Anchor, type PlacedSound } from './placed-sound';
import { emptyShow, type Show } from './show';

const file = assetId('a'.repeat(64));
const at = (id: string, offsetMs = 0): Anchor => ({ at: 'slide', slideId: slideId(id), offsetMs });
const song = (id: string, parts: Partial<PlacedSound>): PlacedSound => ({ ...songAfter(cueId(id), file, 0), ...parts });
const voice: PlacedSound = { ...voiceHere(cueId('v'), file, 0), ends: at('d') };
const show: Show = {
  ...emptyShow(showId('s'), ''),
  slides: ['a', 'b', 'c', 'd'].map((id) => ({
    ...blankSlide(3000, '#000000', () => id),
    sounds: id === 'a' ? [voice] : [],
  })),
  cues: [
    song('from b to d', { starts: at('b', 400), ends: at('d') }),
    song('from d', { starts: at('d', 100) }),
    song('free', {}),
  ],
};
const remove = (...ids: string[]): ShowEdit => ({ kind: 'remove-slides', slideIds: ids.map(slideId) });
const after = (edit: ShowEdit, to = show) => {
  const result = applyEdit(to, edit);
  if (!result.ok) throw new Error(result.sentence);
  const back = applyEdit(result.show, result.inverse);
  expect(back.ok && back.show).toEqual(to);
  return result.show;
};
const ties = ({ cues }: Show) => cues.map(({ starts, ends }) => [starts, ends]);

describe('sounds tied to slides that go', () => {
  it('begin with the slide after them, or with the last there is, and end with the next or with the show', () => {
    expect(ties(after(remove('b')))).toEqual([
      [at('c'), at('d')],
      [at('d', 100), { at: 'own-end' }],
      [{ at: 'after' }, { at: 'own-end' }],
    ]);
    expect(ties(after(remove('c', 'd')))).toEqual([
      [at('b', 400), { at: 'show-end', beforeMs: 0 }],
      [at('b'), { at: 'own-end' }],
      [{ at: 'after' }, { at: 'own-end' }],
    ]);
    expect(ties(after(remove('a', 'b', 'c', 'd')))[0]).toEqual([
      { at: 'moment', momentMs: 0 },
      { at: 'show-end', beforeMs: 0 },
    ]);
  });
  it('play to their own end when they lie on another slide, and go with their own', () => {
    expect(after(remove('d')).slides[0]!.sounds[0]!.ends).toEqual({ at: 'own-end' });
    expect(after(remove('a')).slides.flatMap((slide) => slide.sounds)).toEqual([]);
  });
  it('come with copies into a show that lacks the slide they ended with', () => {
    const copied = after(
      { kind: 'add-slides', runs: [{ afterId: null, slides: [show.slides[0]!] }] },
      emptyShow(showId('t'), ''),
    );
    expect(copied.slides[0]!.sounds[0]).toMatchObject({ id: 'v', ends: { at: 'own-end' } });
  });
  it('cannot be tied to a slide that is not there, nor lie on none and begin with it', () => {
    const set = (properties: Partial<PlacedSound>, holder: SlideId | null = null) =>
      applyEdit(show, { kind: 'set-sound', slideId: holder, soundId: cueId(holder ? 'v' : 'free'), properties });
    expect(set({ starts: at('gone') })).toMatchObject({ ok: false, sentence: expect.stringContaining('slide gone') });
    expect(set({ starts: { at: 'here', offsetMs: 0 } })).toMatchObject({ ok: false });
    expect(set({ starts: { at: 'after' } }, slideId('a'))).toMatchObject({ ok: false });
    expect(set({ starts: at('c') }).ok).toBe(true);
  });
});
