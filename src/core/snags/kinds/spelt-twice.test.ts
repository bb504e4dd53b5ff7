import { describe, expect, it } from '@jest/globals';
import { applyEdit } from '../../show/edit';
import { layerId } from '../../show/ids';
import { wordsOf } from '../../show/show';
import { fixesOf, lookOver } from '../look-over';
import { clean, lookAt, shown, withLayers, withSlide, words, type Laid } from '../looks.testing';

/** Slides that say so, one after the other. */
const saying = (...texts: readonly string[]): Laid =>
  texts.reduce((laid, text, at) => withLayers(laid, at, [shown(at), words(text)]), clean());
const found = (laid: Laid) => lookOver(lookAt(laid), ['spelt-twice']);

describe('one name spelt in two ways', () => {
  it.each([
    ['Ellery', 'Elery'],
    ['Ellery', 'Ellary'],
    ['Ellery', 'Elelry'],
    ['Matthews', 'Mathews'],
    ['Höfner', 'Hofner'],
    ['Wilhelmina', 'Wilhelmine'],
    ['Katharina', 'Catharina'],
  ])('is found in %s and %s, unless they begin with another letter', (one, other) => {
    const snags = found(saying(`With ${one}`, `With ${one} again`, `And ${other}`));
    if (one[0] !== other[0]) return expect(snags).toEqual([]);
    expect(snags.map(({ sentence, slideId }) => [sentence, slideId])).toEqual([
      [`It says “${other}” here and “${one}” in 2 other places.`, 's2'],
    ]);
  });
  it.each([
    ['Ellery', 'Ellerys'],
    ['Brandt', 'Brandtin'],
    ['Fischer', 'Fischern'],
    ['Ellery', 'Ellery’s'],
    ['Anders', 'Anderson'],
    ['Marina', 'Martin'],
    ['Anna', 'Anne'],
    ['Hall', 'Ball'],
  ])('is not %s and %s', (one, other) => {
    expect(found(saying(`With ${one}`, `And ${other}`))).toEqual([]);
  });
  it('is no word that stands in small letters as well', () => {
    expect(found(saying('Lantern light', 'Lanterm light'))).toHaveLength(1);
    expect(found(saying('Lantern light', 'Lanterm light', 'every lantern of them', 'a lanterm too'))).toEqual([]);
  });
  it('is told once, at the rarer spelling, however often each is said', () => {
    const snags = found(saying('Ellery', 'Ellery', 'Elery', 'Ellery', 'Elery'));
    expect(snags).toHaveLength(1);
    expect(snags[0]!.sentence).toBe('It says “Elery” here and “Ellery” in 3 other places.');
  });
  it('is found in what is spoken as well', () => {
    const spoken = withSlide(saying('The Ellery choir'), 4, (slide) => ({ ...slide, script: 'Here comes Elery.' }));
    const [snag] = found(spoken);
    expect([snag!.sentence, snag!.slideId]).toEqual(['It says “Elery” here and “Ellery” elsewhere.', 's4']);
  });
});

describe('the ways out of two spellings', () => {
  const laid = withSlide(
    withLayers(saying('Ellery, Elery’s friend', 'Elery'), 2, [
      shown(2),
      words('Elerysson and Elery', { id: layerId('x') }),
    ]),
    5,
    (slide) => ({ ...slide, script: 'Elery, and Elery again.' }),
  );
  const look = lookAt(laid);
  const [snag] = lookOver(look, ['spelt-twice']);
  const taken = (name: RegExp) => {
    const fix = fixesOf(look, snag!).find((one) => name.test(one.name))!;
    const result = applyEdit(laid.show, fix.edit);
    if (!result.ok) throw new Error(result.sentence);
    const back = applyEdit(result.show, result.inverse);
    expect(back.ok && back.show).toEqual(laid.show);
    const { slides } = result.show;
    return [...[0, 1, 2].map((at) => wordsOf(slides[at]!)!.title), slides[5]!.script];
  };
  it('write one of them wherever the other stands as a whole word', () => {
    expect(taken(/^Write “Elery”$/)).toEqual([
      'Elery, Elery’s friend',
      'Elery',
      'Elerysson and Elery',
      'Elery, and Elery again.',
    ]);
  });
  it('or the other', () => {
    expect(taken(/^Write “Ellery” everywhere$/)).toEqual([
      'Ellery, Elery’s friend',
      'Ellery',
      'Elerysson and Ellery',
      'Ellery, and Ellery again.',
    ]);
  });
});
