import { beforeAll, describe, expect, it } from '@jest/globals';
import { planFrame, prepareShow } from '../../core/frame/plan-frame';
import { faultOfShow } from '../../core/show/faults';
import { layerId, showId, slideId } from '../../core/show/ids';
import type { Layer } from '../../core/show/layer';
import { emptyShow, type Show, type Slide } from '../../core/show/show';
import type { BuiltTransition } from '../../core/show/transition';
import { COMING, LEAVING } from '../../core/show/window-id';
import { storeFor } from '../../server/films/draw-segment';
import { openNodeDrawing, type NodeDrawing } from '../../server/films/node-drawing';
import { pixelsOf } from '../planes/surface';
import { createPainter } from './paint-frame';

const FRAME = { widthPx: 160, heightPx: 90 };
let drawing: NodeDrawing;
beforeAll(async () => {
  drawing = await openNodeDrawing();
});

const picture = (id: string, of: typeof LEAVING, more: Partial<Layer> = {}): Layer =>
  ({ kind: 'picture', id: layerId(id), assetId: of, move: { kind: 'still' }, ...more }) as Layer;
const built = (layers: readonly Layer[], lengthMs = 1000): BuiltTransition => ({
  kind: 'built',
  name: 'Own',
  lengthMs,
  ofMs: 2000,
  layers,
});
/** Red, then blue. */
function showWith(transition: BuiltTransition): Show {
  const slide = (id: string, colour: string, into: Slide['transition']): Slide => ({
    id: slideId(id),
    lengthMs: 4000,
    transition: into,
    backing: { kind: 'colour', colour },
    layers: [],
    sounds: [],
  });
  return {
    ...emptyShow(showId('show'), ''),
    slides: [slide('a', '#d01010', { kind: 'cut' }), slide('b', '#1020d0', transition)],
  };
}
/** What stands at some places of the frame: `red`, `blue`, `black`, or a mixture. */
async function seen(show: Show, share: number, ...places: readonly (readonly [x: number, y: number])[]) {
  const { transition } = show.slides[1]!;
  const lengthMs = transition.kind === 'cut' ? 0 : transition.lengthMs;
  const plan = planFrame(prepareShow(show, new Map()), 4000 + share * lengthMs, FRAME)!;
  const store = storeFor(
    drawing,
    { readPicture: () => Promise.reject(new Error('none')), readClipFrame: () => Promise.reject(new Error('none')) },
    1 << 24,
  );
  await store.prepare(plan);
  const painter = createPainter(drawing.kernels, FRAME.widthPx, FRAME.heightPx);
  const { rgba } = pixelsOf(drawing.kernels, painter.paint(plan, store));
  const said = places.map(([x, y]) => {
    const at = 4 * (Math.round(y * 89) * FRAME.widthPx + Math.round(x * 159));
    const [r, , b] = [rgba[at]!, rgba[at + 1]!, rgba[at + 2]!];
    return r > 150 && b < 60 ? 'red' : b > 150 && r < 60 ? 'blue' : r < 30 && b < 30 ? 'black' : 'between';
  });
  painter.close();
  return said;
}

describe('a transition built of layers', () => {
  it('shows the slide that leaves and the one that comes as two pictures, where its keys put them', async () => {
    const show = showWith(
      built([
        picture('old', LEAVING),
        picture('new', COMING, {
          channels: {
            x: {
              keys: [
                { at: { tied: 'start', ms: 0 }, value: 1.5, easing: 'linear' },
                { at: { tied: 'start', ms: 2000 }, value: 0.5 },
              ],
            },
          },
        }),
      ]),
    );
    expect(faultOfShow(show)).toBeNull();
    expect(await seen(show, 0.5, [0.2, 0.5], [0.8, 0.5])).toEqual(['red', 'blue']);
    expect(await seen(show, 0.25, [0.6, 0.5], [0.9, 0.5])).toEqual(['red', 'blue']);
  });
  it('takes all of the time it was made in, whatever its length, and is over at its end', async () => {
    const halves = built([
      picture('old', LEAVING, {
        channels: {
          opacity: {
            keys: [
              { at: { tied: 'start', ms: 0 }, value: 1, easing: 'linear' },
              { at: { tied: 'end', ms: 0 }, value: 0 },
            ],
          },
        },
      }),
      picture('new', COMING, { channels: { width: 0.5, height: 0.5 } }),
    ]);
    for (const lengthMs of [400, 1900]) {
      const show = showWith({ ...halves, lengthMs });
      expect(await seen(show, 0.02, [0.05, 0.05], [0.5, 0.5])).toEqual(['red', 'blue']);
      expect(await seen(show, 0.97, [0.05, 0.05], [0.5, 0.5])).toEqual(['black', 'blue']);
    }
  });
  it('cuts by masks as slides do', async () => {
    const show = showWith(
      built([
        picture('old', LEAVING),
        picture('new', COMING),
        {
          kind: 'shape',
          id: layerId('hole'),
          shape: { kind: 'ellipse' },
          fill: { kind: 'colour', colour: '#ffffff' },
          channels: { width: 0.3, height: 0.5 },
          mask: { by: 'transparency', cuts: 'below' },
        },
      ]),
    );
    expect(await seen(show, 0.5, [0.5, 0.5], [0.1, 0.1], [0.9, 0.9])).toEqual(['blue', 'red', 'red']);
  });
});
