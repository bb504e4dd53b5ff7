import { describe, expect, it } from '@jest/globals';
import { applyEdit } from '../show/edit';
import { levelBy, levelEdit } from '../motion/level';
import type { AssetFacts, PictureFacts } from '../show/asset-facts';
import { assetId, showId } from '../show/ids';
import { slideFromAsset } from '../show/new-slide';
import { emptyShow } from '../show/show';
import type { PictureLayer } from '../show/layer';
import { tiltOf } from './horizon';

const [WIDTH, HEIGHT] = [480, 320];
let dice = 5;
const noise = () => ((dice = (dice * 16_807) % 2_147_483_647) / 2_147_483_647 - 0.5) * 10;

/** A scene drawn by its brightness at a place, counted from its middle, hanging askew by so much; with the grain of a camera. */
function hung(degrees: number, scene: (x: number, y: number) => number): Uint8Array {
  const [sin, cos] = [Math.sin((degrees * Math.PI) / 180), Math.cos((degrees * Math.PI) / 180)];
  return Uint8Array.from({ length: WIDTH * HEIGHT }, (_, at) => {
    let sum = 0;
    // Four looks a pixel, so that its edges are as soft as a lens makes them.
    for (const [dx, dy] of [
      [0.25, 0.25],
      [0.75, 0.25],
      [0.25, 0.75],
      [0.75, 0.75],
    ] as const) {
      const [x, y] = [(at % WIDTH) + dx - WIDTH / 2, Math.floor(at / WIDTH) + dy - HEIGHT / 2];
      sum += scene(x * cos + y * sin, y * cos - x * sin);
    }
    return Math.min(255, Math.max(0, sum / 4 + noise()));
  });
}
const sea = (_x: number, y: number) => (y < 20 ? 170 : 90 + 6 * Math.sin(y / 3));
const checks = (x: number, y: number) =>
  Math.abs(x) < 130 && Math.abs(y) < 90 ? ((Math.round(x / 26) + Math.round(y / 30)) % 2 ? 60 : 150) : 210;
const hills = (x: number, y: number) => (y < 30 * Math.sin(x / 60) ? 190 : 80);
const threads = (x: number) => (Math.abs(x - 60) < 2 || Math.abs(x + 90) < 2 ? 30 : 160);

describe('how a picture hangs', () => {
  it.each([-4.2, -2.3, -0.8, 0.7, 1.5, 4.4])(
    'is told to a fifth of a degree by the sea, and by a house where it leans less (to a third beyond), %p askew',
    (degrees) => {
      expect(Math.abs(tiltOf(hung(degrees, sea), WIDTH, HEIGHT)! - degrees)).toBeLessThan(0.2);
      const house = tiltOf(hung(degrees, checks), WIDTH, HEIGHT);
      if (Math.abs(degrees) < 3) expect(Math.abs(house! - degrees)).toBeLessThan(0.2);
      // Better nothing than something wrong.
      else expect(house === null || Math.abs(house - degrees) < 0.3).toBe(true);
    },
  );
  it('is not told where it is straight', () => {
    expect([tiltOf(hung(0, sea), WIDTH, HEIGHT), tiltOf(hung(0.1, checks), WIDTH, HEIGHT)]).toEqual([null, null]);
  });
  it('is not told by hills, by threads that hang, by grain, by nothing at all, nor by what leans on purpose', () => {
    expect(tiltOf(hung(3, hills), WIDTH, HEIGHT)).toBeNull();
    expect(tiltOf(hung(3, threads), WIDTH, HEIGHT)).toBeNull();
    expect(
      tiltOf(
        hung(0, () => 128),
        WIDTH,
        HEIGHT,
      ),
    ).toBeNull();
    expect(tiltOf(new Uint8Array(WIDTH * HEIGHT), WIDTH, HEIGHT)).toBeNull();
    expect(tiltOf(hung(24, sea), WIDTH, HEIGHT)).toBeNull();
    expect(tiltOf(hung(6, sea), WIDTH, HEIGHT)).toBeNull();
    expect(tiltOf(new Uint8Array(4), 2, 2)).toBeNull();
  });
  it('is not told by what is seen from aside: planks, nor ledges on a house whose corners stand upright', () => {
    const planks = (x: number, y: number) => (Math.abs((y - 0.05 * x) % 30) < 3 ? 40 : 180);
    expect(tiltOf(hung(0, planks), WIDTH, HEIGHT)).toBeNull();
    const house = (x: number, y: number) =>
      Math.abs(x) % 80 < 4 ? 50 : Math.abs(y - 0.06 * x) < 3 || Math.abs(y - 60 - 0.06 * x) < 3 ? 30 : 190;
    expect(tiltOf(hung(0, house), WIDTH, HEIGHT)).toBeNull();
  });
});

describe('hanging level', () => {
  const asset = assetId('a'.repeat(64));
  const facts = (tilt?: number): PictureFacts => ({
    kind: 'picture',
    widthPx: 3000,
    heightPx: 2000,
    hasTransparency: false,
    takenAt: null,
    camera: null,
    brightness: 0.5,
    focus: { faces: [], subjects: [], salient: null, sharpness: 0.5, ...(tilt !== undefined && { tilt }) },
  });
  const known = (tilt?: number) => new Map<typeof asset, AssetFacts>([[asset, facts(tilt)]]);
  let counted = 0;
  const slide = slideFromAsset(asset, facts(), 5000, () => `n${(counted += 1)}`);
  const layer = slide.layers[0] as PictureLayer;
  const on = [{ slideId: slide.id, layer }];
  it('turns the picture back by what it leans, and has nothing more to do then', () => {
    const edit = levelEdit(on, known(1.6))!;
    const result = applyEdit({ ...emptyShow(showId('s'), 'S'), slides: [slide] }, edit);
    if (!result.ok) throw new Error('refused');
    const level = result.show.slides[0]!.layers[0] as PictureLayer;
    // A crop turned one way shows the picture turned the other.
    expect(level.crop!.turnDegrees).toBeCloseTo(1.6, 2);
    expect(levelBy(level, facts(1.6))).toBeNull();
    expect(levelEdit([{ slideId: slide.id, layer: level }], known(1.6))).toBeNull();
  });
  it('is offered only where something is known', () => {
    expect([levelBy(layer, facts()), levelBy(layer, undefined), levelBy(layer, facts(-2))]).toEqual([null, null, 2]);
    expect(levelEdit(on, known())).toBeNull();
  });
});
