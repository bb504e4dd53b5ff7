import { describe, expect, it } from '@jest/globals';
import { createTakeSender } from './take-sender';

/** A server that takes what follows on, and may fail. */
function standIn(failures: number) {
  const kept: number[] = [];
  let left = failures;
  return {
    kept,
    async send(from: number, samples: Float32Array): Promise<number> {
      if (from > kept.length) throw new Error('a gap');
      // Some failures come after the server has taken what was sent.
      const fresh = samples.subarray(kept.length - from);
      if (left > 0 && left % 2 === 0) kept.push(...fresh);
      if (left > 0) {
        left -= 1;
        throw new TypeError('cannot be reached');
      }
      kept.push(...fresh);
      return kept.length;
    },
  };
}

const numbers = (from: number, to: number) => Float32Array.from({ length: to - from }, (_, at) => from + at);

describe('sending a recording', () => {
  it('brings every sample once and in order, whatever is lost on the way', async () => {
    const server = standIn(3);
    const told: unknown[] = [];
    const sender = createTakeSender(
      server.send,
      () => false,
      (error) => told.push(error),
    );
    for (let at = 0; at < 40_000; at += 2048) sender.add(numbers(at, Math.min(40_000, at + 2048)));
    await sender.flush();
    expect(server.kept).toEqual([...numbers(0, 40_000)]);
    expect([sender.waiting(), told.length]).toEqual([0, 3]);
  });
  it('takes an answer that says nothing for a failure: nothing counts as safe because of it', async () => {
    const server = standIn(0);
    const told: unknown[] = [];
    let broken = 2;
    const sender = createTakeSender(
      async (from, samples) => {
        const safe = await server.send(from, samples);
        broken -= 1;
        return broken >= 0 ? (undefined as unknown as number) : safe;
      },
      () => false,
      (error) => told.push(error),
    );
    sender.add(numbers(0, 20_000));
    await sender.flush();
    expect([sender.waiting(), told.length, server.kept.length]).toEqual([0, 2, 20_000]);
  });
  it('stops when the recording is not there any more, and says so once', async () => {
    const told: unknown[] = [];
    const sender = createTakeSender(
      () => Promise.reject(new Error('gone')),
      () => true,
      (error) => told.push(error),
    );
    sender.add(numbers(0, 20_000));
    await sender.flush();
    sender.add(numbers(0, 20_000));
    expect(told.length).toBe(1);
  });
});
