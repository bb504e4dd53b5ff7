import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { arbitraryOf } from '../schema/arbitrary.testing';
import { assetId, layerId } from '../show/ids';
import type { Layer, PictureLayer } from '../show/layer';
import { LAYER } from '../show/schemas/layer-schema';
import { yupOf } from '../../server/schema/yup-of';
import { channelAt, channelsOf, withChannelAt } from './channel-paths';
import {
  columnKeys,
  columnState,
  columnValues,
  withColumnKey,
  withColumnParked,
  withKeyGone,
  withKeyShifted,
  withKeyTie,
  withValues,
} from './column-keys';
import { columnsOf, type Column } from './columns';

const SEEN_MS = 8000;
const picture: PictureLayer = {
  kind: 'picture',
  id: layerId('p'),
  assetId: assetId('a'.repeat(64)),
  move: { kind: 'still' },
};
const column = (layer: Layer, id: string): Column => columnsOf(layer).find((one) => one.id === id)!;
const ANY_LAYER = arbitraryOf(LAYER) as fc.Arbitrary<Layer>;

describe('the columns of a layer', () => {
  it('name every channel it has a place for once, whatever the layer', () => {
    fc.assert(
      fc.property(ANY_LAYER, (layer) => {
        const paths = columnsOf(layer).flatMap((one) => one.channels.map(({ path }) => path));
        expect(new Set(paths).size).toBe(paths.length);
        const sides = new Set(['channels/width', 'channels/height']);
        const wanted = channelsOf(layer).map(({ path }) => path);
        expect(paths.filter((path) => !sides.has(path)).sort()).toEqual(
          wanted.filter((path) => !sides.has(path)).sort(),
        );
      }),
      { numRuns: 150 },
    );
  });
  it('can be keyed each, and what comes out is a layer that can be stored', () => {
    fc.assert(
      fc.property(ANY_LAYER, fc.integer({ min: 0, max: SEEN_MS }), (layer, ms) => {
        const keyed = columnsOf(layer).reduce((before, one) => withColumnKey(before, one, ms, SEEN_MS), layer);
        for (const one of columnsOf(keyed)) expect(columnState(keyed, one)).toBe('moving');
        expect(() => yupOf(LAYER).validateSync(keyed, { strict: true })).not.toThrow();
      }),
      { numRuns: 60 },
    );
  });
});

describe('a channel of a layer', () => {
  it('is found again where it was put, and what held it alone goes with it', () => {
    fc.assert(
      fc.property(ANY_LAYER, (layer) => {
        for (const { path, usual } of channelsOf(layer)) {
          const value = typeof usual === 'string' ? '#123456' : 0.25;
          expect(channelAt(withChannelAt(layer, path, value), path)).toBe(value);
        }
      }),
      { numRuns: 80 },
    );
    expect(withChannelAt(withChannelAt(picture, 'channels/x', 0.2), 'channels/x', undefined)).toEqual(picture);
    expect(withChannelAt(withChannelAt(picture, 'light/sepia', 1), 'light/sepia', undefined)).toEqual(picture);
  });
});

describe('a key of a column', () => {
  const first = withColumnKey(picture, column(picture, 'place'), 1000, SEEN_MS);
  const second = withValues(first, { 'channels/x': 0.8, 'channels/y': 0.3 }, 5000, SEEN_MS);
  it('stands in all of its channels; from the first on a change elsewhere makes another', () => {
    expect(columnKeys(first, column(first, 'place'), SEEN_MS)).toMatchObject([
      { ms: 1000, tied: 'start', keys: [{}, {}] },
    ]);
    expect(columnKeys(second, column(second, 'place'), SEEN_MS).map(({ ms }) => ms)).toEqual([1000, 5000]);
    expect(columnValues(second, column(second, 'place'), 5000, SEEN_MS)).toEqual({
      'channels/x': 0.8,
      'channels/y': 0.3,
    });
    expect(columnState(second, column(second, 'size'))).toBe('still');
  });
  it('is moved, tied and taken away in all of its channels', () => {
    const [, late] = columnKeys(second, column(second, 'place'), SEEN_MS);
    const moved = withKeyShifted(second, late!, 6000, SEEN_MS);
    expect(columnKeys(moved, column(moved, 'place'), SEEN_MS).map(({ ms }) => ms)).toEqual([1000, 6000]);
    const tied = withKeyTie(moved, columnKeys(moved, column(moved, 'place'), SEEN_MS)[1]!, 'end', SEEN_MS);
    expect(columnKeys(tied, column(tied, 'place'), 20_000).map(({ ms }) => ms)).toEqual([1000, 18_000]);
    const gone = withKeyGone(second, columnKeys(second, column(second, 'place'), SEEN_MS)[0]!);
    expect(columnKeys(gone, column(gone, 'place'), SEEN_MS)).toHaveLength(1);
  });
  it('is kept while its column stands still, and the layout that was there stays', () => {
    const parked = withColumnParked(second, column(second, 'place'), true, 5000, SEEN_MS);
    expect(columnState(parked, column(parked, 'place'))).toBe('parked');
    expect(columnValues(parked, column(parked, 'place'), 0, SEEN_MS)).toEqual({ 'channels/x': 0.8, 'channels/y': 0.3 });
    const changed = withValues(parked, { 'channels/x': 0.1 }, 2000, SEEN_MS);
    expect(columnKeys(changed, column(changed, 'place'), SEEN_MS)).toHaveLength(2);
    expect(withColumnParked(parked, column(parked, 'place'), false, 0, SEEN_MS)).toEqual(second);
  });
  it('of a picture that keeps its own shape is one of its width alone', () => {
    const keyed = withColumnKey(
      { ...picture, channels: { width: 0.4 } },
      column({ ...picture, channels: { width: 0.4 } }, 'size'),
      0,
      SEEN_MS,
    );
    expect(keyed.channels).toEqual({ width: { keys: [{ at: { tied: 'start', ms: 0 }, value: 0.4 }] } });
  });
});
