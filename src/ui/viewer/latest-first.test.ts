import { describe, expect, it } from '@jest/globals';
import { latestFirst } from './latest-first';

describe('latestFirst', () => {
  it('starts what was asked for last as soon as there is room, and gives everyone their own', async () => {
    const started: number[] = [];
    const ends = new Map<number, (value: string) => void>();
    const run = latestFirst(2);
    const ask = (id: number) =>
      run(() => {
        started.push(id);
        return new Promise<string>((resolve) => ends.set(id, resolve));
      });
    const asked = [1, 2, 3, 4, 5].map(ask);
    await Promise.resolve();
    expect(started).toEqual([5, 4]);
    asked.push(ask(6));
    ends.get(4)!('four');
    expect(await asked[3]).toBe('four');
    await new Promise((resolve) => setTimeout(resolve));
    expect(started).toEqual([5, 4, 6]);
    for (const id of [5, 6, 3, 2, 1]) {
      ends.get(id)!(String(id));
      await new Promise((resolve) => setTimeout(resolve));
    }
    expect(await Promise.all(asked)).toEqual(['1', '2', '3', 'four', '5', '6']);
  });
  it('goes on after one that failed', async () => {
    const run = latestFirst(1);
    const failed = run(() => Promise.reject(new Error('gone')));
    await expect(failed).rejects.toThrow('gone');
    expect(await run(() => Promise.resolve('next'))).toBe('next');
  });
});
