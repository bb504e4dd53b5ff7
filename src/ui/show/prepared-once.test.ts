import { describe, expect, it } from '@jest/globals';
import type { AssetFacts, FactsById } from '../../core/show/asset-facts';
import { assetId, showId } from '../../core/show/ids';
import { slideFromAsset } from '../../core/show/new-slide';
import { emptyShow, type Show } from '../../core/show/show';
import { preparedOnce } from './prepared-once';

const picture: AssetFacts = {
  kind: 'picture',
  widthPx: 6000,
  heightPx: 4000,
  hasTransparency: false,
  takenAt: null,
  camera: null,
  brightness: 0.5,
};
const ids = ['a', 'b', 'c'].map((name) => assetId(name.repeat(64)));
const facts: FactsById = new Map(ids.map((id) => [id, picture]));
let counted = 0;
const show: Show = {
  ...emptyShow(showId('s'), 'Evening'),
  slides: ids.map((id) => slideFromAsset(id, picture, 4000, () => `n${(counted += 1)}`)),
};
const moveOf = (prepared: ReturnType<typeof preparedOnce>, index: number) =>
  prepared.moves.get(prepared.show.slides[index]!.id)?.get(prepared.show.slides[index]!.layers[0]!.id);

describe('preparedOnce', () => {
  it('gives all who ask for the same show the same answer', () => {
    expect(preparedOnce(show, facts)).toBe(preparedOnce(show, facts));
  });
  it('keeps what was worked out of the slides when something else of the show changes', () => {
    const before = preparedOnce(show, facts);
    const renamed = { ...show, title: 'Another evening' };
    const after = preparedOnce(renamed, facts);
    expect([after.show, after.spans === before.spans, after.moves === before.moves]).toEqual([renamed, true, true]);
  });
  it('works it out anew when a slide, the frame’s shape or what is known of a picture changes, and only for the slides that it touches', () => {
    const before = preparedOnce(show, facts);
    const longer = {
      ...show,
      slides: show.slides.map((slide, index) => (index === 1 ? { ...slide, lengthMs: 9000 } : slide)),
    };
    const after = preparedOnce(longer, facts);
    expect([after.lengthMs, moveOf(after, 0) === moveOf(before, 0)]).toEqual([17_000, true]);
    expect(moveOf(after, 1)).not.toEqual(moveOf(before, 1));
    const tall = { ...longer, frame: { ...show.frame, widthPx: 1080, heightPx: 1920 } };
    expect(moveOf(preparedOnce(tall, facts), 0)).not.toEqual(moveOf(after, 0));
    const small = new Map([...facts, [ids[2]!, { ...picture, widthPx: 300, heightPx: 200 }]]);
    const known = preparedOnce(longer, small);
    expect(moveOf(known, 2)).not.toEqual(moveOf(after, 2));
  });
  it('gives the same moves as working everything out at once, whatever was asked before', () => {
    const reversed = { ...show, slides: [...show.slides].reverse() };
    preparedOnce(show, facts);
    const kept = preparedOnce(reversed, facts);
    const copied = { ...reversed, slides: reversed.slides.map((slide) => ({ ...slide })) };
    expect(preparedOnce(copied, facts).moves).toEqual(kept.moves);
  });
});
