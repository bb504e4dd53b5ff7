import { describe, expect, it } from '@jest/globals';
import { croppedSize, placeOnPicture, quarterTurned, WHOLE_CROP, type Crop } from '../../core/motion/crop';
import { assetId } from '../../core/show/ids';
import type { PicturePart, PictureReader } from '../picture-reader';
import { readCropped } from './read-cropped';

const ID = assetId('1'.repeat(64));
const PICTURE = { widthPx: 600, heightPx: 400 };
/** A picture whose red tells the column and whose green tells the row, of any size and part. */
const reader = (see = 255): PictureReader => ({
  readPicture(
    _,
    widthPx,
    heightPx,
    part: PicturePart = { left: 0, top: 0, ...PICTURE, ofWidthPx: PICTURE.widthPx, ofHeightPx: PICTURE.heightPx },
  ) {
    const rgba = new Uint8Array(widthPx * heightPx * 4);
    for (let y = 0; y < heightPx; y += 1)
      for (let x = 0; x < widthPx; x += 1) {
        const [px, py] = [
          part.left + ((x + 0.5) * part.widthPx) / widthPx,
          part.top + ((y + 0.5) * part.heightPx) / heightPx,
        ];
        rgba.set(
          [(255 * px) / PICTURE.widthPx + 0.5, (255 * py) / PICTURE.heightPx + 0.5, 40, see],
          4 * (y * widthPx + x),
        );
      }
    return Promise.resolve({ widthPx, heightPx, rgba, hasTransparency: see < 255 });
  },
  readClipFrame: () => Promise.reject(new Error('there is no clip here')),
});
const crops: [string, Crop][] = [
  ['upright', { x: 0.4, y: 0.55, width: 0.5, height: 0.4, turnDegrees: 0 }],
  ['a quarter turned', quarterTurned({ x: 0.4, y: 0.5, width: 0.6, height: 0.8, turnDegrees: 0 }, PICTURE, true)],
  ['a quarter turned the other way', quarterTurned(WHOLE_CROP, PICTURE, false)],
  ['upside down', { ...WHOLE_CROP, turnDegrees: 180 }],
  ['straightened', { x: 0.5, y: 0.5, width: 0.7, height: 0.7, turnDegrees: 8 }],
  ['turned and straightened', { x: 0.45, y: 0.5, width: 0.4, height: 0.5, turnDegrees: -97 }],
];

describe('a cropped picture', () => {
  it.each(crops)('%s: every pixel comes from its place on the picture', async (_, framing) => {
    const left = croppedSize(PICTURE, framing);
    const size = { widthPx: Math.round(left.widthPx / 2), heightPx: Math.round(left.heightPx / 2) };
    const { rgba, widthPx, heightPx } = await readCropped(
      reader(),
      ID,
      { framing, ofWidthPx: PICTURE.widthPx, ofHeightPx: PICTURE.heightPx },
      size,
    );
    expect({ widthPx, heightPx }).toEqual(size);
    let worst = 0;
    for (let y = 0; y < heightPx; y += 1)
      for (let x = 0; x < widthPx; x += 1) {
        const place = placeOnPicture(framing, { x: (x + 0.5) / widthPx, y: (y + 0.5) / heightPx }, PICTURE);
        worst = Math.max(
          worst,
          Math.abs(rgba[4 * (y * widthPx + x)]! - 255 * place.x),
          Math.abs(rgba[4 * (y * widthPx + x) + 1]! - 255 * place.y),
        );
      }
    // Half a level of rounding in what is read, half in what is written; half a pixel where the crop's sides are rounded.
    expect(worst).toBeLessThan(1.3);
  });
  it('keeps colours of half-seen pictures as they are when it is straightened', async () => {
    const { rgba } = await readCropped(
      reader(100),
      ID,
      {
        framing: { x: 0.5, y: 0.5, width: 0.5, height: 0.5, turnDegrees: 5 },
        ofWidthPx: PICTURE.widthPx,
        ofHeightPx: PICTURE.heightPx,
      },
      { widthPx: 60, heightPx: 40 },
    );
    for (let at = 0; at < rgba.length; at += 4) expect([rgba[at + 2], rgba[at + 3]]).toEqual([40, 100]);
  });
  it('without a crop is the picture', async () => {
    const { widthPx, heightPx } = await readCropped(reader(), ID, null, { widthPx: 30, heightPx: 20 });
    expect([widthPx, heightPx]).toEqual([30, 20]);
  });
});
