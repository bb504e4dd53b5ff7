import { beforeAll, describe, expect, it } from '@jest/globals';
import type { Plate } from './plate';
import { openNodeDrawing, type NodeDrawing } from '../../server/films/node-drawing';
import { bytesOf } from '../kernel-module';
import { blocksOf, packPlate, unpackPlate } from './carried-plate';
import { makePlate, type Made } from './make-plate';
import type { PicturePlanes } from '../planes/picture-planes';
import { assetId } from '../../core/show/ids';

let drawing: NodeDrawing;
beforeAll(async () => {
  drawing = await openNodeDrawing();
});

const reader = {
  readPicture: (_: unknown, widthPx: number, heightPx: number) =>
    Promise.resolve({
      widthPx,
      heightPx,
      rgba: Uint8Array.from({ length: widthPx * heightPx * 4 }, (_unused, at) => (at * 7) % 256),
      hasTransparency: true,
    }),
  readClipFrame: () => Promise.reject(new Error('there is no clip here')),
};
const frame = { widthPx: 320, heightPx: 180 };
const plates: Record<string, Plate> = {
  'a picture with transparency': {
    kind: 'picture',
    assetId: assetId('1'.repeat(64)),
    crop: null,
    size: { widthPx: 40, heightPx: 30 },
    light: null,
  },
  words: {
    kind: 'words',
    look: {
      title: 'Two words',
      subtitle: 'and more',
      place: 'centre',
      style: {},
      unit: 'word',
      crawls: false,
      rolls: false,
    },
    frame,
  },
  'a wipe’s map': { kind: 'wipe-map', look: { kind: 'iris', shape: 'circle', direction: 'open' }, frame },
  'a gradient': {
    kind: 'gradient',
    gradient: {
      kind: 'linear',
      stops: [
        { at: 0, colour: '#000000' },
        { at: 1, colour: '#ffffff' },
      ],
    },
    frame,
  },
};

const planesOf = (made: Made): readonly PicturePlanes[] =>
  made.kind === 'words'
    ? made.pieces.map(({ planes }) => planes)
    : made.kind === 'planes' || made.kind === 'outline'
      ? [made.planes]
      : [];
const contents = (made: Made) =>
  blocksOf(made).map(({ at, byteCount }) => bytesOf(drawing.kernels).slice(at, at + byteCount));

describe('a plate on its way from one thread to another', () => {
  it.each(Object.entries(plates))('%s arrives as it was made, wherever it is put', async (_, plate) => {
    const made = await makePlate({ ...drawing, reader }, plate);
    const before = contents(made);
    expect(before.length).toBeGreaterThan(0);
    const samples = planesOf(made).map((planes) =>
      [planes.y, planes.u, planes.v, planes.alpha, planes.halfAlpha].map((pointer) =>
        pointer === 0 ? 0 : pointer - planes.block,
      ),
    );
    const carried = structuredClone(packPlate(drawing.kernels, made));
    // Something else has taken the place meanwhile.
    drawing.kernels.allocate(5000);
    const arrived = unpackPlate(drawing.kernels, carried);
    expect(contents(arrived)).toEqual(before);
    expect(
      planesOf(arrived).map((planes) =>
        [planes.y, planes.u, planes.v, planes.alpha, planes.halfAlpha].map((pointer) =>
          pointer === 0 ? 0 : pointer - planes.block,
        ),
      ),
    ).toEqual(samples);
    expect(blocksOf(arrived).map(({ at }) => at)).not.toEqual(blocksOf(made).map(({ at }) => at));
    if (made.kind === 'wipe-map' && arrived.kind === 'wipe-map')
      expect(arrived.half - arrived.map).toBe(made.half - made.map);
  });
  it('an opaque picture stays opaque', async () => {
    const opaque = {
      ...reader,
      readPicture: async (_: unknown, w: number, h: number) => ({
        ...(await reader.readPicture(_, w, h)),
        hasTransparency: false,
      }),
    };
    const arrived = unpackPlate(
      drawing.kernels,
      packPlate(
        drawing.kernels,
        await makePlate({ ...drawing, reader: opaque }, plates['a picture with transparency']!),
      ),
    );
    expect(planesOf(arrived)[0]).toMatchObject({ alpha: 0, halfAlpha: 0 });
  });
});
