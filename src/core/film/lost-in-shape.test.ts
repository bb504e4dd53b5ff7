import { describe, expect, it } from '@jest/globals';
import { prepareShow } from '../frame/plan-frame';
import type { AssetFacts } from '../show/asset-facts';
import { applyEdit } from '../show/edit';
import { assetId, showId, type AssetId } from '../show/ids';
import { slideFromAsset } from '../show/new-slide';
import type { Move } from '../show/layer';
import { inShape } from '../show/shape';
import { emptyShow, type Show } from '../show/show';
import { filmChapters } from './chapters';
import { lostInShape } from './lost-in-shape';

const [WIDE, FACE, TALL] = ['a', 'b', 'c'].map((letter) => assetId(letter.repeat(64))) as [AssetId, AssetId, AssetId];
const picture = (widthPx: number, heightPx: number): AssetFacts => ({
  kind: 'picture',
  widthPx,
  heightPx,
  hasTransparency: false,
  takenAt: null,
  camera: null,
  brightness: 0.5,
});
const facts = new Map<AssetId, AssetFacts>([
  [WIDE, picture(6000, 4000)],
  [
    FACE,
    {
      ...picture(6000, 4000),
      focus: {
        faces: [{ left: 0.78, top: 0.3, width: 0.1, height: 0.2, score: 0.9, sharpness: 0.5 }],
        subjects: [],
        salient: null,
        sharpness: 0.5,
      },
    } as AssetFacts,
  ],
  [TALL, picture(4000, 6000)],
]);
let counted = 0;
const show: Show = {
  ...emptyShow(showId('s'), 'Faces'),
  slides: [WIDE, FACE, TALL].map((id) => slideFromAsset(id, facts.get(id)!, 5000, () => `n${(counted += 1)}`)),
};
const lost = (of: Show, shape: string) => lostInShape(prepareShow(of, facts), prepareShow(inShape(of, shape), facts));

describe('what another shape loses', () => {
  it('is nothing in the show’s own', () => expect(lost(show, '16:9')).toEqual([]));
  it('is named with how much is still seen, and never the face of anyone', () => {
    const found = lost(show, '9:16');
    expect(found.map(({ assetId: id }) => id)).toEqual([FACE]);
    for (const { seen, seenOwn, cutsFocus, corrected } of found) {
      expect(seen).toBeLessThan(seenOwn - 0.2);
      expect([cutsFocus, corrected]).toEqual([false, false]);
    }
  });
  it('is what a clip is about, too, if people stand at both its ends; and it can be framed by hand for that shape alone', () => {
    const CLIP = assetId('d'.repeat(64));
    const face = (left: number) => ({ left, top: 0.3, width: 0.1, height: 0.2, score: 0.9, sharpness: 0.5 });
    const filmed: AssetFacts = {
      kind: 'clip',
      widthPx: 1920,
      heightPx: 1080,
      lengthMs: 9000,
      hasSound: false,
      takenAt: null,
      focus: { faces: [face(0.04), face(0.86)], subjects: [], salient: null, sharpness: 0.5 },
    };
    const known = new Map<AssetId, AssetFacts>([[CLIP, filmed]]);
    const slide = slideFromAsset(CLIP, filmed, 4000, () => `n${(counted += 1)}`);
    const boxed = { ...slide, layers: [{ ...slide.layers[0]!, channels: { width: 1, height: 1 } }] };
    const clips: Show = { ...emptyShow(showId('c'), 'Clips'), slides: [boxed] };
    const lostOf = (of: Show) => lostInShape(prepareShow(of, known), prepareShow(inShape(of, '9:16'), known));
    expect(lostOf(clips)).toMatchObject([{ assetId: CLIP, cutsFocus: true, corrected: false }]);
    const framing = { x: 0.5, y: 0.5, width: 1, height: 3.16, turnDegrees: 0 };
    const correcting = (move: Move) =>
      applyEdit(clips, {
        kind: 'set-shape',
        corrections: [{ slideId: slide.id, layerId: slide.layers[0]!.id, shape: '9:16', correction: { move } }],
      });
    const corrected = correcting({ kind: 'set', first: framing, last: framing });
    if (!corrected.ok) throw new Error(corrected.sentence);
    expect(lostOf(corrected.show)).toMatchObject([{ corrected: true, cutsFocus: false }]);
    expect(correcting({ kind: 'automatic' })).toMatchObject({
      ok: false,
      sentence: expect.stringMatching(/that is set/),
    });
  });
  it('is brought nearer to what a wide picture is about, with all of it in sight', () => {
    const shaped = prepareShow(inShape(show, '9:16'), facts);
    const face = show.slides[1]!;
    for (const framing of Object.values(shaped.moves.get(face.id)!.get(face.layers[0]!.id)!).filter(
      (value): value is { x: number; y: number; width: number; height: number; turnDegrees: number } =>
        typeof value === 'object' && 'width' in value,
    )) {
      expect(framing.x - framing.width / 2).toBeLessThanOrEqual(0.78);
      expect(framing.x + framing.width / 2).toBeGreaterThanOrEqual(0.88);
      // Half of the picture’s width at most, and its upper and lower edge within the frame.
      expect(framing.width).toBeLessThan(0.6);
      expect(framing.height).toBeGreaterThanOrEqual(0.99);
    }
  });
  it('says what a person has corrected, and what a correction cuts', () => {
    const face = show.slides[1]!;
    const away = { x: 0.2, y: 0.5, width: 0.4, height: 1, turnDegrees: 0 };
    const result = applyEdit(show, {
      kind: 'set-shape',
      corrections: [
        {
          slideId: face.id,
          layerId: face.layers[0]!.id,
          shape: '9:16',
          correction: { move: { kind: 'set', first: away, last: away } },
        },
      ],
    });
    if (!result.ok) throw new Error('the correction was refused');
    expect(lost(result.show, '9:16').find(({ assetId: id }) => id === FACE)).toMatchObject({
      corrected: true,
      cutsFocus: true,
      seen: expect.closeTo(0.4, 5),
    });
    expect(lost(result.show, '1:1').some(({ corrected }) => corrected)).toBe(false);
  });
});

describe('the chapters of a film', () => {
  const named = (...names: (string | undefined)[]): Show => ({
    ...show,
    slides: show.slides.map((slide, index) => ({ ...slide, ...(names[index] && { chapter: names[index] }) })),
  });
  const chapters = (of: Show, fromMs = 0, toMs = 15_000) => filmChapters(prepareShow(of, facts), fromMs, toMs);
  it.each<[string, Show, [number, number] | [], unknown]>([
    ['are none where none is named', named(), [], []],
    [
      'begin with the show’s name where the first begins later',
      named(undefined, 'Faces near', 'Towers'),
      [],
      [
        { title: 'Faces', startMs: 0, endMs: 5000 },
        { title: 'Faces near', startMs: 5000, endMs: 10_000 },
        { title: 'Towers', startMs: 10_000, endMs: 15_000 },
      ],
    ],
    [
      'of a stretch begin with the one that is on',
      named('One', 'Two', 'Three'),
      [7000, 12_000],
      [
        { title: 'Two', startMs: 0, endMs: 3000 },
        { title: 'Three', startMs: 3000, endMs: 5000 },
      ],
    ],
  ])('%s', (_name, of, stretch, wanted) => {
    expect(chapters(of, ...stretch)).toEqual(wanted);
  });
});
