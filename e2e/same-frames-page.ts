// Runs in Chromium: draws given moments with the drawing code, from pixels handed to it, so that only the drawing itself is compared.
import type { AssetFacts } from '../src/core/show/asset-facts';
import { planFrame, prepareShow } from '../src/core/frame/plan-frame';
import type { AssetId } from '../src/core/show/ids';
import type { Show } from '../src/core/show/show';
import { loadKernels } from '../src/drawing/kernel-module';
import { createPainter } from '../src/drawing/paint/paint-frame';
import type { PictureReader } from '../src/drawing/picture-reader';
import { makePlate } from '../src/drawing/plates/make-plate';
import { createPlateStore } from '../src/drawing/plates/plate-store';
import { i420Of } from '../src/drawing/planes/surface';
import { createFontShelf } from '../src/drawing/words/fonts';
import { drawing2d } from '../src/ui/viewer/browser-reader';

const bytes = async (url: string) => new Uint8Array(await (await fetch(url)).arrayBuffer());
const { show, facts, moments, frame } = (await (await fetch('/given.json')).json()) as {
  show: Show;
  facts: [AssetId, AssetFacts][];
  moments: number[];
  frame: { widthPx: number; heightPx: number };
};
const [kernels, fontFiles] = await Promise.all([
  bytes('/kernels.wasm').then(loadKernels),
  fetch('/fonts/index.json').then((answer) => answer.json()),
]);
const fonts = createFontShelf(fontFiles, (name) => bytes(`/fonts/${name}.ttf`));
const pixels = async (url: string, widthPx: number, heightPx: number) => {
  const rgba = await bytes(url);
  return { widthPx, heightPx, rgba, hasTransparency: url.includes('see-through') };
};
const known = new Map(facts);
const reader: PictureReader = {
  readPicture: (id, widthPx, heightPx, part) => {
    const of = known.get(id);
    return pixels(
      `/pixels/${id}/0/${widthPx}/${heightPx}/${of?.kind === 'picture' && of.hasTransparency ? 'see-through' : 'opaque'}/${part ? encodeURIComponent(JSON.stringify(part)) : ''}`,
      widthPx,
      heightPx,
    );
  },
  readClipFrame: async (id, clipFrame, widthPx, heightPx) => ({
    widthPx,
    heightPx,
    i420: await bytes(`/pixels/${id}/${clipFrame}/${widthPx}/${heightPx}/clip`),
  }),
};
const store = createPlateStore({
  kernels,
  make: (print) => makePlate({ kernels, reader, fonts, drawing2d }, print),
  roomBytes: 1 << 28,
});
const prepared = prepareShow(show, known);
const painter = createPainter(kernels, frame.widthPx, frame.heightPx);
for (const [index, momentMs] of moments.entries()) {
  const plan = planFrame(prepared, momentMs, frame)!;
  await store.prepare(plan);
  await fetch(`/drawn/${index}`, {
    method: 'POST',
    body: i420Of(kernels, painter.paint(plan, store)) as Uint8Array<ArrayBuffer>,
  });
}
document.title = 'done';
