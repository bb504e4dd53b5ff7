import { parentPort, workerData } from 'node:worker_threads';
import decode from 'heic-decode';
import type { HeicPixels } from './decode-heic';

const answer = (message: HeicPixels) => parentPort!.postMessage(message);
try {
  const { width, height, data } = await decode({ buffer: workerData as Uint8Array });
  answer({ width, height, data: new Uint8Array(data.buffer, data.byteOffset, data.byteLength) });
} catch (error) {
  answer({ problem: error instanceof Error ? error.message : String(error) });
}
