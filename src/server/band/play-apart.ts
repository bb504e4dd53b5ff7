import { Worker } from 'node:worker_threads';
import type { BandWishes } from '../../core/sound/band/band-wishes';
import { bandPlayerFile } from '../paths';

export interface PlayOrder {
  readonly wishes: BandWishes;
  readonly out: string;
}

export type PlayReport = { readonly share: number } | { readonly done: true };

/** Plays a piece into a file, in a thread of its own that is ended when nobody wants it any more. */
export function playApart(order: PlayOrder, onProgress: (share: number) => void, signal: AbortSignal): Promise<void> {
  signal.throwIfAborted();
  const worker = new Worker(bandPlayerFile(), { workerData: order });
  return new Promise<void>((resolve, reject) => {
    const stop = () => reject(signal.reason as Error);
    signal.addEventListener('abort', stop);
    worker.on('message', (report: PlayReport) => {
      if ('share' in report) onProgress(report.share);
      else resolve();
    });
    worker.on('error', reject);
    worker.on('exit', (code) => reject(new Error(`the band’s thread ended with ${code}`)));
  }).finally(() => void worker.terminate());
}
