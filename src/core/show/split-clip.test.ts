import { describe, expect, it } from '@jest/globals';
import { applyEdit } from './edit';
import type { AssetFacts } from './asset-facts';
import { assetId, cueId, layerId, showId, slideId } from './ids';
import type { Layer } from './layer';
import { voiceHere } from './placed-sound';
import { emptyShow, type Show } from './show';
import { lengthsForVoices } from '../timing/wait-for-voices';
import { clipSplit } from './split-clip';

const VOICE = assetId('d'.repeat(64));
const FACTS = new Map<typeof VOICE, AssetFacts>([
  [VOICE, { kind: 'sound', lengthMs: 4000, title: null, artist: null }],
]);
const asset = assetId('c'.repeat(64));
const withLayers = (...layers: readonly Layer[]): Show => ({
  ...emptyShow(showId('split'), 'Split'),
  slides: [
    {
      id: slideId('s'),
      lengthMs: 6000,
      transition: { kind: 'dissolve', lengthMs: 800 },
      backing: { kind: 'automatic' },
      sounds: [],
      layers,
    },
  ],
});
const clip = (more: object = {}): Layer =>
  ({ kind: 'clip', id: layerId('c'), assetId: asset, trimStartMs: 1000, soundGainDb: 0, ...more }) as Layer;
const words: Layer = { kind: 'words', id: layerId('w'), title: 'Boats', subtitle: '', place: 'top' };
const split = (show: Show, atMs: number) => {
  let counted = 0;
  const edit = clipSplit(show, show.slides[0]!, atMs, FACTS, () => `new${(counted += 1)}`);
  const result = edit && applyEdit(show, edit);
  return result?.ok ? result : null;
};

describe('splitting a clip', () => {
  it('goes on with the very next frame, by a cut, and leaves the words with the first', () => {
    const show = withLayers(clip(), words);
    const result = split(show, 2500)!;
    const [first, second] = result.show.slides;
    expect([first!.lengthMs, second!.lengthMs, second!.transition.kind]).toEqual([2500, 3500, 'cut']);
    expect(second!.layers).toMatchObject([{ kind: 'clip', trimStartMs: 3500 }]);
    expect(first!.layers).toHaveLength(2);
    expect(applyEdit(result.show, result.inverse)).toMatchObject({ ok: true, show });
  });
  it('keeps what is said where it was said: a voice is cut there and goes on without a gap, captions go with their half', () => {
    const before = withLayers(clip());
    const show: Show = {
      ...before,
      slides: [
        {
          ...before.slides[0]!,
          sounds: [voiceHere(cueId('v'), VOICE, 700)],
          script: 'One. Two.',
          captions: {
            en: [
              { fromMs: 700, toMs: 2000, text: 'One.' },
              { fromMs: 3000, toMs: 4000, text: 'Two.' },
            ],
          },
        },
      ],
    };
    const result = split(show, 2500)!;
    const [first, second] = result.show.slides;
    expect([first!.sounds[0]!.trimEndMs, second!.sounds[0]!.trimStartMs]).toEqual([1800, 1800]);
    expect(second!.sounds[0]!.starts).toEqual({ at: 'here', offsetMs: 0 });
    expect([first!.script, second!.script, second!.captions!.en]).toEqual([
      'One. Two.',
      undefined,
      [{ fromMs: 500, toMs: 1500, text: 'Two.' }],
    ]);
    // Nothing is waited for that was not waited for before.
    expect(lengthsForVoices(show, result.show, FACTS)).toEqual([]);
    expect(applyEdit(result.show, result.inverse)).toMatchObject({ ok: true, show });
  });
  it('counts a faster clip by its own time', () => {
    expect(split(withLayers(clip({ speed: 2 })), 2500)!.show.slides[1]!.layers[0]).toMatchObject({ trimStartMs: 6000 });
  });
  it('is not done to pictures, nor so near an end that nothing would be seen', () => {
    const picture: Layer = { kind: 'picture', id: layerId('p'), assetId: asset, move: { kind: 'automatic' } };
    expect([split(withLayers(picture), 2500), split(withLayers(clip()), 50), split(withLayers(clip()), 5950)]).toEqual([
      null,
      null,
      null,
    ]);
  });
});
