import type { Readable } from 'node:stream';

/** Hands out a stream in pieces of the size asked for. */
export interface ExactReader {
  /** The next bytes; fewer than asked for (or none) only at the end of the stream. */
  read(byteCount: number): Promise<Buffer>;
}

export function exactReader(stream: Readable): ExactReader {
  const iterator = stream[Symbol.asyncIterator]() as AsyncIterator<Buffer>;
  let waiting: Buffer[] = [];
  let waitingBytes = 0;
  let ended = false;
  return {
    async read(byteCount) {
      while (waitingBytes < byteCount && !ended) {
        const next = await iterator.next();
        if (next.done) ended = true;
        else {
          waiting.push(next.value);
          waitingBytes += next.value.length;
        }
      }
      const all = waiting.length === 1 ? waiting[0]! : Buffer.concat(waiting);
      const piece = all.subarray(0, byteCount);
      const rest = all.subarray(piece.length);
      waiting = rest.length > 0 ? [rest] : [];
      waitingBytes = rest.length;
      return piece;
    },
  };
}
