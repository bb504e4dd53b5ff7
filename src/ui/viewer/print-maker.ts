import type { Kernels } from '../../drawing/kernel-module';
import { unpackPrint } from '../../drawing/prints/carried-print';
import type { Made } from '../../drawing/prints/make-print';
import type { Print } from '../../drawing/prints/print';
import type { PrintMade, PrintOrder } from './worker-messages';

/** Has prints made by a worker of their own, which is told by its address whose they are, and puts them into these kernels' memory; there once that worker hears. */
export async function openPrintMaker(kernels: Kernels): Promise<(print: Print) => Promise<Made>> {
  const worker = new Worker(`/drawing/print-worker.js${self.location.search}`, { type: 'module' });
  const waiting = new Map<
    number,
    { readonly resolve: (made: Made) => void; readonly reject: (error: Error) => void }
  >();
  let counted = 0;
  // The page starts a viewer anew whose workers could not be fetched.
  worker.onerror = (event) => {
    throw new Error(`The worker that makes prints failed: ${event.message || 'it could not be fetched'}`);
  };
  // A worker loses what is sent before its modules are loaded.
  let toldReady = () => {};
  const ready = new Promise<void>((resolve) => {
    toldReady = resolve;
  });
  worker.onmessage = ({ data }: MessageEvent<PrintMade>) => {
    if (data.id === null) return toldReady();
    const asked = waiting.get(data.id);
    waiting.delete(data.id);
    if ('problem' in data) asked?.reject(new Error(data.problem));
    else asked?.resolve(unpackPrint(kernels, data.carried));
  };
  await ready;
  return (print) =>
    new Promise((resolve, reject) => {
      counted += 1;
      waiting.set(counted, { resolve, reject });
      worker.postMessage({ id: counted, print } satisfies PrintOrder);
    });
}
