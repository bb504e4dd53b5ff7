// Runs in a thread: reads large bodies, so that whoever sends them holds nobody else up.
import { parentPort } from 'node:worker_threads';
import { readBody } from './read-body';
import type { RouteName } from './routes';

parentPort!.on('message', ({ id, name, text }: { id: number; name: RouteName; text: string }) => {
  parentPort!.postMessage({ id, read: readBody(name, text) });
});
