import { describe, expect, it } from '@jest/globals';
import { planFilm } from '../film/plan-film';
import { handedOut } from '../film/handed-out';
import { segmentBasis } from '../film/segment-basis';
import { aloneShow } from '../frame/alone';
import { planFrame, prepareShow } from '../frame/plan-frame';
import type { AssetFacts, PictureFacts } from '../show/asset-facts';
import { assetId, layerId, showId, type AssetId } from '../show/ids';
import { slideFromAsset } from '../show/new-slide';
import { emptyShow, type Show } from '../show/show';
import { leastLengthMs } from '../timing/least-length';
import { fieldValues, filledSlide, filledWords, hasFields, NO_FIELDS, WORD_FIELDS } from './fields';

const ASSETS = ['a', 'b', 'c'].map((letter) => assetId(letter.repeat(64)));
const picture = (more: Partial<PictureFacts> = {}): PictureFacts => ({
  kind: 'picture',
  widthPx: 3000,
  heightPx: 2000,
  hasTransparency: false,
  takenAt: '2026-06-14T21:08:33',
  camera: 'Pinhole Nine, 35 mm',
  brightness: 0.5,
  place: 'The old slip, Marrow Quay',
  caption: 'Both crews',
  ...more,
});
const facts = new Map<AssetId, AssetFacts>([
  [ASSETS[0]!, picture()],
  [
    ASSETS[1]!,
    {
      kind: 'picture',
      widthPx: 900,
      heightPx: 900,
      hasTransparency: false,
      takenAt: null,
      camera: null,
      brightness: 0.5,
    },
  ],
  [ASSETS[2]!, picture({ takenAt: 'soon' })],
]);
let counted = 0;
const withWords = (title: string, subtitle = ''): Show => ({
  ...emptyShow(showId('s'), 'Regatta'),
  slides: ASSETS.map((id) => {
    const slide = slideFromAsset(id, facts.get(id)!, 5000, () => `n${(counted += 1)}`);
    return {
      ...slide,
      layers: [
        ...slide.layers,
        { kind: 'words' as const, id: layerId(`w${(counted += 1)}`), title, subtitle, place: 'left' as const },
      ],
    };
  }),
});
const FRAME = { widthPx: 640, heightPx: 360 };
const said = (show: Show, momentMs: number) => {
  const plan = planFrame(prepareShow(show, facts), momentMs, FRAME)!;
  return (plan.incoming?.slide ?? plan.slide).layers.flatMap(({ content }) =>
    content.kind === 'words' ? [[content.look.title, content.look.subtitle]] : [],
  )[0];
};

describe('fields in words', () => {
  const show = withWords('{place}\n{date}, {time}', '{number} of {of}: {caption}');

  it('say what the file, the slide and the show say, in the frame as it is drawn', () => {
    expect(said(show, 3000)).toEqual(['The old slip, Marrow Quay\n14 June 2026, 21:08', '1 of 3: Both crews']);
    expect(said(withWords('{title}'), 3000)).toEqual(['Regatta', '']);
  });
  it('leave out a line that finds nothing, keep one that says something else, and never show half a date', () => {
    expect(said(show, 8000)).toEqual(['', '2 of 3']);
    expect(filledWords('{place}, {date} – {caption}', { ...NO_FIELDS, date: '14 June' })).toBe('14 June');
    expect(said(withWords('{place}\nThe quay'), 8000)).toEqual(['The quay', '']);
    expect(said(withWords('{date}'), 8000)).toBeUndefined();
    expect(fieldValues(show, facts, 2).date).toBe('');
  });
  it('are written in the language of the show, with the camera’s clock put right', () => {
    const german = { ...show, language: 'de', clocks: { 'Pinhole Nine': 3 * 3_600_000 } };
    expect(fieldValues(german, facts, 0)).toMatchObject({ date: '15. Juni 2026', time: '00:08' });
  });
  it('are nothing else between braces', () => {
    expect(filledWords('{Name} and {dates}', NO_FIELDS)).toBe('{Name} and {dates}');
    expect([hasFields('{Name}'), hasFields('a {date}'), hasFields('a {date}')]).toEqual([false, true, true]);
    for (const field of WORD_FIELDS) expect(hasFields(`{${field}}`)).toBe(true);
  });
  it('make a film anew where what they say has changed, and nowhere else', () => {
    const bases = (of: Show, known = facts) => {
      const prepared = prepareShow(of, known);
      return planFilm(prepared).segments.map((segment) => segmentBasis(prepared, segment, FRAME));
    };
    const numbered = withWords('{number}');
    const other = new Map(facts).set(ASSETS[0]!, picture({ place: 'Elsewhere' }));
    expect(bases(numbered, other)).toEqual(bases(numbered));
    const placed = withWords('{place}');
    expect(bases(placed, other)[0]).not.toBe(bases(placed)[0]);
    expect(bases(placed, other).at(-1)).toBe(bases(placed).at(-1));
  });
  it('go along filled where what they are filled from stays at home', () => {
    const handed = handedOut(show, facts);
    expect(JSON.stringify([...handed.facts.values()])).not.toMatch(/Marrow|crews|2026/);
    const words = handed.show.slides[0]!.layers.at(-1);
    expect(words).toMatchObject({ title: 'The old slip, Marrow Quay\n14 June 2026, 21:08' });
    expect(aloneShow(prepareShow(show, facts), 2).slides[0]!.layers.at(-1)).toMatchObject({
      subtitle: '3 of 3: Both crews',
    });
    const plain = withWords('Plain');
    expect(filledSlide(plain, facts, 0)).toBe(plain.slides[0]);
  });
  it('count with what they say where a slide is given the time to be read', () => {
    const long = new Map(facts).set(ASSETS[0]!, picture({ caption: 'word '.repeat(60).trim() }));
    const slide = withWords('{caption}').slides[0]!;
    expect(leastLengthMs(slide, long, undefined)).toBeGreaterThan(leastLengthMs(slide, facts, undefined) + 5000);
  });
});
