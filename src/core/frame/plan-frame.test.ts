import { describe, expect, it } from '@jest/globals';
import type { AssetFacts } from '../show/asset-facts';
import { assetId, layerId, showId, slideId } from '../show/ids';
import { emptyShow, type Show, type Slide } from '../show/show';
import type { Layer } from '../show/layer';
import { pictureSizeFor } from './picture-size';
import { planFrame, prepareShow } from './plan-frame';

const WIDE = assetId('1'.repeat(64));
const TALL = assetId('2'.repeat(64));
const LOGO = assetId('3'.repeat(64));
const CLIP = assetId('4'.repeat(64));
const picture = (
  widthPx: number,
  heightPx: number,
  more: Partial<Extract<AssetFacts, { kind: 'picture' }>> = {},
): AssetFacts => ({
  kind: 'picture',
  widthPx,
  heightPx,
  hasTransparency: false,
  takenAt: null,
  camera: null,
  brightness: 0.5,
  ...more,
});
const facts = new Map<typeof WIDE, AssetFacts>([
  [WIDE, picture(6000, 4000)],
  [TALL, picture(4000, 6000)],
  [LOGO, picture(900, 900, { hasTransparency: true, brightness: 0.8 })],
  [CLIP, { kind: 'clip', widthPx: 1920, heightPx: 1080, lengthMs: 4000, hasSound: true, takenAt: null }],
]);
const HD = { widthPx: 1280, heightPx: 720 };

function slide(name: string, asset: typeof WIDE, more: Layer[] = [], lengthMs = 5000): Slide {
  const layer: Layer =
    asset === CLIP
      ? { kind: 'clip', id: layerId(`l${name}`), assetId: asset, trimStartMs: 1000, soundGainDb: 0 }
      : { kind: 'picture', id: layerId(`l${name}`), assetId: asset, move: { kind: 'automatic' } };
  return {
    id: slideId(name),
    lengthMs,
    transition: { kind: 'dissolve', lengthMs: 1000 },
    backing: { kind: 'automatic' },
    sounds: [],
    layers: [layer, ...more],
  };
}

const words: Layer = { kind: 'words', id: layerId('w'), title: 'Regatta', subtitle: '', place: 'bottom' };
const show: Show = {
  ...emptyShow(showId('x'), ''),
  slides: [slide('a', WIDE, [words]), slide('b', TALL), slide('c', LOGO), slide('d', CLIP)],
};
const prepared = prepareShow(show, facts);
const at = (ms: number) => planFrame(prepared, ms, HD)!;

describe('planFrame', () => {
  it('shows one slide by itself from the very first frame', () => {
    expect(at(0)).toMatchObject({ slide: { slideId: 'a' }, incoming: null });
  });
  it('lets the next slide come in over the one before for the length of its transition', () => {
    expect(at(4999).incoming).toBeNull();
    expect(at(5250)).toMatchObject({
      slide: { slideId: 'a' },
      incoming: { slide: { slideId: 'b' }, transition: { kind: 'dissolve' }, progress: 0.25 },
    });
    expect(at(6000)).toMatchObject({ slide: { slideId: 'b' }, incoming: null });
  });
  it('ends with the last slide alone, held past the end', () => {
    expect(at(19_999)).toMatchObject({ slide: { slideId: 'd' }, incoming: null });
    expect(at(99_999)).toMatchObject({ slide: { slideId: 'd' }, incoming: null });
  });
  it('keeps a picture moving under its words and under the next transition', () => {
    const framings = [1000, 2000, 3000, 4000, 5000, 5900].map((ms) => JSON.stringify(at(ms).slide.layers[0]));
    expect(new Set(framings).size).toBe(6);
  });
  it('draws nothing behind a picture that covers the frame, a blur behind an upright one, a colour behind a see-through one', () => {
    expect(at(1000).slide.backing).toEqual({ kind: 'hidden' });
    expect(at(7000).slide.backing).toMatchObject({ kind: 'blurred', assetId: TALL, clipFrame: null });
    expect(at(12_000).slide.backing).toEqual({ kind: 'colour', colour: '#211d19' });
  });
  it('brings words in softly and leaves out empty ones', () => {
    const share = (ms: number) => {
      const found = at(ms)
        .slide.layers.map((layer) => layer.content)
        .find((content) => content.kind === 'words');
      return found?.kind === 'words' ? found.passage.entrance.share : undefined;
    };
    expect(share(0)).toBeUndefined();
    expect(share(600)).toBeCloseTo(0.5, 6);
    expect(share(4000)).toBe(1);
    const empty = prepareShow({ ...show, slides: [slide('a', WIDE, [{ ...words, title: ' ' }])] }, facts);
    expect(planFrame(empty, 3000, HD)!.slide.layers).toHaveLength(1);
  });
  it('counts a clip’s frames from its trim and holds the last', () => {
    const clipFrame = (ms: number) => {
      const content = at(ms).slide.layers[0]?.content;
      return content?.kind === 'clip' ? content.clipFrame : null;
    };
    expect(clipFrame(16_000)).toBe(60);
    expect(clipFrame(19_900)).toBe(119);
  });
  it('asks for one size for a whole move, so that a picture is read once', () => {
    const sizes = new Set(
      [0, 1000, 3000, 4900].map((ms) => {
        const content = at(ms).slide.layers[0]?.content;
        return content?.kind === 'picture' ? content.sizes.map(({ size }) => size.widthPx).join() : '';
      }),
    );
    expect(sizes.size).toBe(1);
  });
  it('has no frame for a show without slides and passes over files it knows nothing of', () => {
    expect(planFrame(prepareShow({ ...show, slides: [] }, facts), 0, HD)).toBeNull();
    expect(planFrame(prepareShow(show, new Map()), 0, HD)!.slide).toMatchObject({
      layers: [],
      backing: { kind: 'colour' },
    });
  });
});

describe('pictureSizeFor', () => {
  it('keeps source pixels per frame pixel within 1.1…1.5 over an automatic move', () => {
    for (const [id, move] of [...prepared.moves.values()].flatMap((of) => [...of])) {
      const layer = show.slides.flatMap((entry) => entry.layers).find((entry) => entry.id === id)!;
      if (layer.kind !== 'picture' && layer.kind !== 'clip') continue;
      const known = facts.get(layer.assetId)! as { widthPx: number; heightPx: number };
      const size = pictureSizeFor(known, move, HD);
      for (const framing of [move.first, move.last]) {
        const ratio = (framing.width * size.widthPx) / HD.widthPx;
        expect(ratio).toBeGreaterThanOrEqual(1.09);
        expect(ratio).toBeLessThanOrEqual(1.5);
      }
    }
  });
  it('stays within bounds for a framing on a speck', () => {
    const speck = { x: 0.5, y: 0.5, width: 0.01, height: 0.01, turnDegrees: 0 };
    expect(
      pictureSizeFor({ widthPx: 6000, heightPx: 4000 }, { first: speck, last: speck }, HD).widthPx,
    ).toBeLessThanOrEqual(8192);
  });
});
