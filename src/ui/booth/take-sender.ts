/** Sends samples to where they are safe, in order, whatever happens on the way. */
export interface TakeSender {
  add(samples: Float32Array): void;
  /** Samples that are not safe yet. */
  waiting(): number;
  /** Once all of it is safe. */
  flush(): Promise<void>;
  close(): void;
}

/** @returns how many samples are safe now @throws when it could not be sent */
type Send = (from: number, samples: Float32Array) => Promise<number>;

/** Half a second at most is not on its way. */
const SEND_EVERY_SAMPLES = 12_000;
const MOST_A_REQUEST = 480_000;
const RETRY_MS = 500;

/** @param isLost whether trying again is of no use: the recording is not there any more */
export function createTakeSender(
  send: Send,
  isLost: (error: unknown) => boolean,
  failed: (error: unknown) => void,
): TakeSender {
  let waiting: Float32Array[] = [];
  let waitingCount = 0;
  let safeCount = 0;
  let sending = false;
  let closed = false;
  let flushing = false;
  let settled: (() => void)[] = [];

  async function go(): Promise<void> {
    if (sending || closed) return;
    sending = true;
    while (waitingCount > 0 && !closed && (flushing || waitingCount >= SEND_EVERY_SAMPLES)) {
      const some = joined(waiting, MOST_A_REQUEST);
      try {
        const safe = await send(safeCount, some);
        if (!(safe >= safeCount && safe <= safeCount + some.length))
          throw new TypeError('it was not said what is safe');
        take(safe - safeCount);
        safeCount = safe;
      } catch (error) {
        if (isLost(error)) {
          closed = true;
          failed(error);
          break;
        }
        failed(error);
        await new Promise((resolve) => {
          setTimeout(resolve, RETRY_MS);
        });
      }
    }
    sending = false;
    if (waitingCount === 0 || closed) for (const settle of settled.splice(0)) settle();
  }

  function take(count: number): void {
    waitingCount -= count;
    let left = count;
    while (left > 0 && waiting.length > 0) {
      const first = waiting[0]!;
      if (first.length > left) {
        waiting = [first.subarray(left), ...waiting.slice(1)];
        return;
      }
      left -= first.length;
      waiting = waiting.slice(1);
    }
  }

  return {
    add(samples) {
      waiting.push(samples);
      waitingCount += samples.length;
      void go();
    },
    waiting: () => waitingCount,
    flush() {
      flushing = true;
      return new Promise((resolve) => {
        settled = [...settled, resolve];
        if (!sending) void go();
      });
    },
    close() {
      closed = true;
    },
  };
}

function joined(parts: readonly Float32Array[], most: number): Float32Array {
  const all = new Float32Array(
    Math.min(
      most,
      parts.reduce((sum, part) => sum + part.length, 0),
    ),
  );
  let at = 0;
  for (const part of parts) {
    if (at >= all.length) break;
    all.set(part.subarray(0, all.length - at), at);
    at += part.length;
  }
  return all;
}
