import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { pictureAlone } from '../core/frame/picture-alone';
import { planFrame, prepareShow } from '../core/frame/plan-frame';
import { evenedLight, measureLight, withEvened, type LightMeasure } from '../core/light/even-out';
import { toneCounts } from '../core/light/tone-counts';
import type { AssetFacts } from '../core/show/asset-facts';
import { assetId, layerId, showId } from '../core/show/ids';
import type { PictureLayer } from '../core/show/layer';
import type { Light } from '../core/show/light';
import { emptyShow } from '../core/show/show';
import { createFileReader } from '../server/assets/file-reader';
import { lookAtFile } from '../server/assets/look-at-file';
import { storeFor } from '../server/films/draw-segment';
import { openNodeDrawing } from '../server/films/node-drawing';
import { createPainter } from './paint/paint-frame';
import { pixelsOf } from './planes/surface';

const ASSET = assetId('a'.repeat(64));
const FILE = path.resolve('demo/files/PE_0423.jpg');
let facts: Exclude<AssetFacts, { kind: 'sound' }>;
let drawn: (light: Light | undefined) => Promise<Uint8ClampedArray>;
let close: () => void;

beforeAll(async () => {
  const found = (await lookAtFile(FILE)).facts;
  if (found.kind === 'sound') throw new Error('a picture was taken for a sound');
  facts = found;
  const known = new Map<typeof ASSET, AssetFacts>([[ASSET, facts]]);
  const drawing = await openNodeDrawing();
  const reader = createFileReader(() => FILE, known);
  const store = storeFor(drawing, reader);
  drawn = async (light) => {
    const layer: PictureLayer = {
      kind: 'picture',
      id: layerId('p'),
      assetId: ASSET,
      move: { kind: 'still' },
      ...(light && { light }),
    };
    const alone = pictureAlone(emptyShow(showId('s'), 'S'), layer, facts, 160);
    const plan = planFrame(prepareShow(alone, known), 0, alone.frame)!;
    await store.prepare(plan);
    const painter = createPainter(drawing.kernels, plan.widthPx, plan.heightPx);
    const rgba = Uint8ClampedArray.from(pixelsOf(drawing.kernels, painter.paint(plan, store)).rgba);
    painter.close();
    return rgba;
  };
  close = () => {
    store.close();
    reader.close();
  };
});
afterAll(() => close());

const measured = async (light: Light | undefined): Promise<LightMeasure> => measureLight(await drawn(light))!;
const cast = ({ light: [red, green, blue] }: LightMeasure) => [red / blue, green / Math.sqrt(red * blue)];

describe('pictures evened out, as they are drawn', () => {
  it.each<Light>([{ exposure: -0.7 }, { exposure: 0.4, temperature: -0.3 }, { temperature: 0.35, tint: -0.3 }])(
    'come to the brightness and the white of the same scene that was taken with %j',
    async (other) => {
      const aim = await measured(other);
      const evened = evenedLight(await measured(undefined), aim);
      const after = await measured(withEvened(undefined, evened) ?? undefined);
      expect(Math.abs(after.level - aim.level)).toBeLessThan(0.015);
      const [is, wanted] = [cast(after), cast(aim)];
      is.forEach((ratio, index) => expect(Math.abs(Math.log(ratio / wanted[index]!))).toBeLessThan(0.03));
    },
  );
  it('show in their histogram what a light has lost', async () => {
    const [plain, bright, dark] = [
      await drawn(undefined),
      await drawn({ exposure: 3 }),
      await drawn({ levels: { black: 0.5, white: 1 } }),
    ].map(toneCounts);
    expect(bright!.blown).toBeGreaterThan(plain!.blown + 0.2 * plain!.pixels);
    expect(dark!.drowned).toBeGreaterThan(plain!.drowned + 0.2 * plain!.pixels);
  });
});
