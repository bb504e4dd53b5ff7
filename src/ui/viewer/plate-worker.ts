/// <reference lib="webworker" />
// Makes what frames are drawn from (pictures read and lit, words, outlines, backings), so that the drawing never waits for it.
import { loadKernels } from '../../drawing/kernel-module';
import { packPlate } from '../../drawing/plates/carried-plate';
import { makePlate } from '../../drawing/plates/make-plate';
import { createFontShelf, type FontFile } from '../../drawing/words/fonts';
import { createBrowserReader, drawing2d } from './browser-reader';
import { keepingFetch } from './keeping-fetch';
import { patientFetch } from './patient-fetch';
import type { PlateMade, PlateOrder } from './worker-messages';

const scope = self as unknown as DedicatedWorkerGlobalScope;
const bytes = async (url: string) => new Uint8Array(await (await patientFetch(url)).arrayBuffer());
const [kernels, fontFiles] = await Promise.all([
  bytes('/drawing/kernels.wasm').then(loadKernels),
  patientFetch('/fonts/index.json').then((answer) => answer.json() as Promise<FontFile[]>),
]);
const asked = new URL(self.location.href).searchParams;
const parts = {
  kernels,
  // A showing goes on when the server is gone.
  reader: createBrowserReader(asked.get('show') ?? '', asked.has('keep') ? keepingFetch() : patientFetch),
  fonts: createFontShelf(fontFiles, (name) => bytes(`/fonts/${name}.ttf`)),
  drawing2d,
};

scope.onmessage = async ({ data: { id, plate } }: MessageEvent<PlateOrder>) => {
  try {
    const carried = packPlate(kernels, await makePlate(parts, plate));
    scope.postMessage(
      { id, carried } satisfies PlateMade,
      carried.blocks.map((block) => block.buffer),
    );
  } catch (error) {
    scope.postMessage({ id, problem: error instanceof Error ? error.message : String(error) } satisfies PlateMade);
  }
};
scope.postMessage({ id: null } satisfies PlateMade);
