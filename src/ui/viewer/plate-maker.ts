import type { Kernels } from '../../drawing/kernel-module';
import { unpackPlate } from '../../drawing/plates/carried-plate';
import type { Made } from '../../drawing/plates/make-plate';
import type { Plate } from '../../drawing/plates/plate';
import { latestFirst } from './latest-first';
import type { PlateMade, PlateOrder } from './worker-messages';

/** Enough to fetch one while another is made; more would make what is wanted now wait for what was. */
const MOST_AT_ONCE = 3;

/** Has plates made by a worker of their own, which is told by its address whose they are, and puts them into these kernels' memory; there once that worker hears. */
export async function openPlateMaker(kernels: Kernels): Promise<(plate: Plate) => Promise<Made>> {
  const worker = new Worker(`/drawing/plate-worker.js${self.location.search}`, { type: 'module' });
  const waiting = new Map<
    number,
    { readonly resolve: (made: Made) => void; readonly reject: (error: Error) => void }
  >();
  let counted = 0;
  // The page starts a viewer anew whose workers could not be fetched.
  worker.onerror = (event) => {
    throw new Error(`The worker that makes plates failed: ${event.message || 'it could not be fetched'}`);
  };
  // A worker loses what is sent before its modules are loaded.
  let toldReady = () => {};
  const ready = new Promise<void>((resolve) => {
    toldReady = resolve;
  });
  worker.onmessage = ({ data }: MessageEvent<PlateMade>) => {
    if (data.id === null) return toldReady();
    const asked = waiting.get(data.id);
    waiting.delete(data.id);
    if ('problem' in data) asked?.reject(new Error(data.problem));
    else asked?.resolve(unpackPlate(kernels, data.carried));
  };
  await ready;
  const whenItsTurn = latestFirst(MOST_AT_ONCE);
  return (plate) =>
    whenItsTurn(
      () =>
        new Promise((resolve, reject) => {
          counted += 1;
          waiting.set(counted, { resolve, reject });
          worker.postMessage({ id: counted, plate } satisfies PlateOrder);
        }),
    );
}
