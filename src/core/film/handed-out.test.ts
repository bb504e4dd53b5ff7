import { describe, expect, it } from '@jest/globals';
import { planFrame, prepareShow } from '../frame/plan-frame';
import type { AssetFacts } from '../show/asset-facts';
import { assetId, cueId, showId, type AssetId } from '../show/ids';
import { slideFromAsset } from '../show/new-slide';
import { songAfter } from '../show/placed-sound';
import { emptyShow, type Show } from '../show/show';
import { handedOut } from './handed-out';

const PICTURES = ['a', 'b', 'c', 'd', 'e', 'f'].map((letter) => assetId(letter.repeat(64)));
const CLIP = assetId('1'.repeat(64));
const SONG = assetId('2'.repeat(64));
const LEFT_OUT = assetId('3'.repeat(64));
const picture = (index: number): AssetFacts => ({
  kind: 'picture',
  widthPx: 3000 + 400 * index,
  heightPx: 2000,
  hasTransparency: index === 3,
  takenAt: '2026-06-01T20:15:00',
  camera: 'Pinhole Nine',
  caption: 'Behind the boathouse',
  rating: 4,
  likeness: 'f0f0',
  brightness: 0.2 * index,
  focus: {
    faces: [{ left: 0.7, top: 0.1, width: 0.1, height: 0.12, score: 0.9, sharpness: 0.5, eyes: 0.31 }],
    subjects: [],
    salient: null,
    sharpness: 0.5,
  },
});
const facts = new Map<AssetId, AssetFacts>([
  ...[...PICTURES, LEFT_OUT].map((id, index) => [id, picture(index)] as const),
  [
    CLIP,
    {
      kind: 'clip',
      widthPx: 1280,
      heightPx: 720,
      lengthMs: 9000,
      hasSound: true,
      takenAt: '2026-06-01T21:00:00',
    },
  ],
  [SONG, { kind: 'sound', lengthMs: 90_000, title: 'Mine alone', artist: 'Nobody' }],
]);
let counted = 0;
const nextId = () => `n${(counted += 1)}`;
const show: Show = {
  ...emptyShow(showId('the-very-one'), 'Boats'),
  temperament: 'lively',
  language: 'de',
  slides: [...PICTURES, CLIP].map((id, index) => ({
    ...slideFromAsset(id, facts.get(id)!, 4000, nextId),
    script: 'Said in confidence.',
    captions: { de: [{ fromMs: 0, toMs: 900, text: 'Guten Abend' }] },
    ...(index === 2 && { chapter: 'Evening', waits: true as const }),
    chosen: { length: 'hand' as const },
  })),
  cues: [songAfter(cueId('q'), SONG, 0)],
  marks: { [PICTURES[0]!]: 'keep', [LEFT_OUT]: 'leave-out' } as never,
  licences: { [SONG]: 'bought from a friend' },
  letBe: { 'soft n1': 'He likes it soft' },
  focus: { [PICTURES[1]!]: [{ x: 0.8, y: 0.2, radius: 0.2 }], [LEFT_OUT]: [] },
};
const FRAME = { widthPx: 640, heightPx: 360 };
const frames = (of: Show, known: ReadonlyMap<AssetId, AssetFacts>) => {
  const prepared = prepareShow(of, known);
  return Array.from({ length: 90 }, (_, index) => planFrame(prepared, index * 310, FRAME));
};

describe('what is handed out of a show', () => {
  it('draws every frame as it was', () => {
    const out = handedOut(show, facts);
    expect(frames(out.show, out.facts)).toEqual(frames(show, facts));
    const said = { ...show, captionLook: { place: 'bottom' as const, box: 0.6 } };
    const spoken = handedOut(said, facts);
    expect(frames(spoken.show, spoken.facts)).toEqual(frames(said, facts));
  });
  it('says nothing of what was spoken, marked, licensed or remembered, nor of what files say about when and with what', () => {
    const out = handedOut(show, facts);
    const text = JSON.stringify([out.show, [...out.facts]]);
    for (const own of [
      ...['the-very-one', 'confidence', 'Guten Abend', 'Mine alone', 'bought', 'He likes', 'chosen'],
      ...['eyes', '2026-06', 'Pinhole', 'boathouse', 'f0f0', SONG, LEFT_OUT],
    ])
      expect(text).not.toContain(own);
  });
});
