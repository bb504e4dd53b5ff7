import { describe, expect, it } from '@jest/globals';
import { prepareShow } from '../frame/plan-frame';
import type { AssetFacts } from '../show/asset-facts';
import { assetId, showId, type AssetId } from '../show/ids';
import type { ClipLayer } from '../show/layer';
import { slideFromAsset } from '../show/new-slide';
import { emptyShow, type Show } from '../show/show';
import { clipFrameAt, momentOfClip, type ClipTimes } from '../timing/clip-time';
import { planFilm } from './plan-film';
import { posterMoment } from './poster-moment';

const CLIP = assetId('c'.repeat(64));
const PICTURE = assetId('a'.repeat(64));
const LENGTH = 9000;
const facts = new Map<AssetId, AssetFacts>([
  [CLIP, { kind: 'clip', widthPx: 1920, heightPx: 1080, lengthMs: LENGTH, hasSound: false, takenAt: null }],
  [
    PICTURE,
    {
      kind: 'picture',
      widthPx: 3000,
      heightPx: 2000,
      hasTransparency: false,
      takenAt: null,
      camera: null,
      brightness: 0.5,
    },
  ],
]);
let counted = 0;
const nextId = () => `n${(counted += 1)}`;
const showOf = (files: readonly AssetId[], times: Partial<ClipLayer>, poster?: number): Show => ({
  ...emptyShow(showId('s'), ''),
  slides: files.map((file) => {
    const slide = slideFromAsset(file, facts.get(file)!, 4000, nextId);
    const [layer] = slide.layers;
    return {
      ...slide,
      lengthMs: 4000,
      layers: layer?.kind === 'clip' ? [{ ...layer, ...times } as ClipLayer] : slide.layers,
    };
  }),
  ...(poster !== undefined && { posters: { [CLIP]: poster } }),
});
const posterOf = (show: Show) => {
  const prepared = prepareShow(show, facts);
  return posterMoment(prepared, planFilm(prepared));
};

describe('when a moment of a clip is seen on its slide', () => {
  it.each<[string, ClipTimes]>([
    ['as filmed', { trimStartMs: 1000 }],
    ['at another speed', { trimStartMs: 1000, speed: 2 }],
    ['backwards', { trimStartMs: 1000, trimEndMs: 4000, backwards: true }],
    ['again and again', { trimStartMs: 1000, trimEndMs: 3000, after: 'again' }],
    ['with a frame that stands', { trimStartMs: 1000, freezes: [{ atMs: 1500, lengthMs: 700 }] }],
  ])('%s: the frame that is seen then is the one that was meant', (_name, times) => {
    for (let frame = 30; frame < 84; frame += 6) {
      const middleMs = ((frame + 0.5) * 1000) / 30;
      const offsetMs = momentOfClip(times, LENGTH, 4000, middleMs)!;
      expect(clipFrameAt(times, LENGTH, 4000, offsetMs)).toBe(frame);
    }
  });
  it('is never, outside the part that is used or behind the end of the slide', () => {
    expect(momentOfClip({ trimStartMs: 1000, trimEndMs: 2000 }, LENGTH, 4000, 900)).toBeNull();
    expect(momentOfClip({ trimStartMs: 1000, trimEndMs: 2000 }, LENGTH, 4000, 2000)).toBeNull();
    expect(momentOfClip({ trimStartMs: 0 }, LENGTH, 4000, 5000)).toBeNull();
  });
});

describe('the frame that stands for a film', () => {
  it('is the one that was chosen for the clip it begins with, where that is seen', () => {
    const usual = posterOf(showOf([CLIP, PICTURE], { trimStartMs: 1000 }));
    expect(usual).toBeGreaterThan(1000);
    const chosen = posterOf(showOf([CLIP, PICTURE], { trimStartMs: 1000 }, 1500));
    expect(clipFrameAt({ trimStartMs: 1000 }, LENGTH, 4000, chosen)).toBe(45);
    // Cut away by the trim.
    expect(posterOf(showOf([CLIP, PICTURE], { trimStartMs: 1000 }, 500))).toBe(usual);
    // The film begins with a picture.
    expect(posterOf(showOf([PICTURE, CLIP], {}, 1500))).toBe(posterOf(showOf([PICTURE, CLIP], {})));
  });
});
