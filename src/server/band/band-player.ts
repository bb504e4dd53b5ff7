// Runs in a thread of its own: plays one piece of the house band into a file, telling how far it is.
import { parentPort, workerData } from 'node:worker_threads';
import { playToFile } from './play-to-file';
import type { PlayOrder, PlayReport } from './play-apart';

const { wishes, out } = workerData as PlayOrder;
const tell = (report: PlayReport) => parentPort!.postMessage(report);
let told = 0;
playToFile(wishes, {
  as: 'opus',
  out,
  onProgress: (share) => {
    if (share < told + 0.01) return;
    told = share;
    tell({ share });
  },
}).then(
  () => tell({ done: true }),
  (error: unknown) => {
    throw error;
  },
);
