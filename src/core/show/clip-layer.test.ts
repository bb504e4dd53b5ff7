import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { yupOf } from '../../server/schema/yup-of';
import { arbitraryOf } from '../schema/arbitrary.testing';
import { applyEdit } from './edit';
import { assetId, layerId, showId } from './ids';
import { clipTimes, withoutClip, type ClipLayer } from './layer';
import { blankSlide } from './new-slide';
import { emptyShow, type Show } from './show';
import { LAYER } from './schemas/layer-schema';

const reading = yupOf(LAYER);
const opens = (layer: unknown) => reading.isValidSync(layer, { strict: true });
const CLIPS = LAYER.is === 'kinds' ? arbitraryOf({ ...LAYER, kinds: { clip: LAYER.kinds.clip! } }) : fc.constant(null);

describe('a clip, whatever it says', () => {
  it('leaves a picture that opens, once what only clips say is taken off', () => {
    fc.assert(
      fc.property(CLIPS as fc.Arbitrary<ClipLayer>, (clip) => {
        expect(opens(clip)).toBe(true);
        expect(opens({ ...withoutClip(clip), kind: 'picture', move: { kind: 'still' } })).toBe(true);
      }),
      { numRuns: 200 },
    );
  });
  it('hands on when its frames are seen, all of it, to a clip that then opens', () => {
    fc.assert(
      fc.property(CLIPS as fc.Arbitrary<ClipLayer>, (clip) => {
        const other = { kind: 'clip', id: 'x', assetId: assetId('2'.repeat(64)), soundGainDb: -60, ...clipTimes(clip) };
        expect(opens(other)).toBe(true);
        expect(clipTimes(other as ClipLayer)).toEqual(clipTimes(clip));
      }),
      { numRuns: 100 },
    );
  });
  it('is not told that a move will be found for it, since none is', () => {
    const show: Show = {
      ...emptyShow(showId('s'), 'S'),
      slides: [
        {
          ...blankSlide(5000, '#000000', () => 'clip-slide'),
          layers: [
            { kind: 'clip', id: layerId('c'), assetId: assetId('2'.repeat(64)), trimStartMs: 0, soundGainDb: 0 },
          ],
        },
      ],
    };
    const edit = { kind: 'set-move' as const, slideId: show.slides[0]!.id, layerId: layerId('c') };
    expect(applyEdit(show, { ...edit, move: { kind: 'automatic' } })).toMatchObject({
      ok: false,
      sentence: 'No move is found for a clip by itself: frame it by hand, or let it stand still.',
    });
    expect(applyEdit(show, { ...edit, move: { kind: 'still' } })).toMatchObject({ ok: true });
  });
});
