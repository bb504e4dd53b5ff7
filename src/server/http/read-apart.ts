import { Worker } from 'node:worker_threads';
import { bodyReaderFile } from '../paths';
import type { ReadBody } from './read-body';
import type { RouteName } from './routes';

/** More than this waiting to be read is more than anybody works at. */
const MOST_WAITING = 16;
/** The largest body that is allowed takes about a second. */
const LONGEST_MS = 20_000;

type Answer = { readonly id: number; readonly read: ReadBody };

const BUSY: ReadBody = { ok: false, status: 503, problem: 'Too much was sent at once. Try again in a moment.' };
const TOO_LONG: ReadBody = { ok: false, status: 422, problem: 'It takes too long to read.' };

// Next bundles routes apart from each other; one thread serves them all.
const held = globalThis as typeof globalThis & { tanagerBodyReader?: BodyReader };
type BodyReader = (name: RouteName, text: string) => Promise<ReadBody>;

/** Reads a large body in a thread of its own, one after the other. */
export function readApart(name: RouteName, text: string): Promise<ReadBody> {
  held.tanagerBodyReader ??= createBodyReader();
  return held.tanagerBodyReader(name, text);
}

function createBodyReader(): BodyReader {
  const waiting = new Map<number, (read: ReadBody) => void>();
  let counted = 0;
  let worker: Worker | null = null;

  const open = (): Worker => {
    const opened = new Worker(bodyReaderFile());
    opened.unref();
    opened.on('message', ({ id, read }: Answer) => waiting.get(id)?.(read));
    // A body that ends the thread is no reason for the next ones to wait.
    opened.on('error', () => end(TOO_LONG));
    return opened;
  };
  const end = (read: ReadBody) => {
    void worker?.terminate();
    worker = null;
    for (const settle of [...waiting.values()]) settle(read);
  };
  return (name, text) => {
    if (waiting.size >= MOST_WAITING) return Promise.resolve(BUSY);
    worker ??= open();
    const id = (counted += 1);
    return new Promise((resolve) => {
      const timer = setTimeout(() => end(TOO_LONG), LONGEST_MS);
      timer.unref();
      waiting.set(id, (read) => {
        clearTimeout(timer);
        waiting.delete(id);
        resolve(read);
      });
      worker!.postMessage({ id, name, text });
    });
  };
}
