import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import { shows } from '../database/schema';
import { createJobRunner, PassingError, type JobKindOfWork } from './job-runner';
import { createJobStore, LEASE_MS } from './job-store';
import type { JobStore, NewJob, TakenJob } from './job';

let folder: string;
let database: OpenDatabase;
let store: JobStore;
let nowMs: number;
beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-jobs-'));
  database = await openDatabase(`file:${path.join(folder, 'jobs.db')}`);
  nowMs = 1_000_000;
  store = createJobStore(database, () => nowMs);
});
afterEach(async () => {
  database.close();
  await rm(folder, { recursive: true, force: true });
});

const job = (key: string, more: Partial<NewJob> = {}): NewJob => ({
  kind: 'film',
  studioId: 's',
  key,
  data: { of: key },
  ...more,
});
const take = async (): Promise<TakenJob> => (await store.take(['film'], 'me'))!;
/** Something that can be seen to have been committed. */
const commit = (id: string) => async (database_: Pick<OpenDatabase['db'], 'insert'>) => {
  await database_
    .insert(shows)
    .values({ id, revision: 0, title: id, slideCount: 0, lengthMs: 0, createdAt: 0, changedAt: 0 });
};
const committed = async () => (await database.db.select({ id: shows.id }).from(shows)).map((row) => row.id);

describe('work that waits', () => {
  it('is there once for each kind and key until it has ended', async () => {
    expect([await store.add(job('a')), await store.add(job('a')), await store.add(job('a', { kind: 'look' }))]).toEqual(
      [true, false, true],
    );
    await store.finish(await take(), async () => {});
    expect(await store.add(job('a'))).toBe(true);
  });
  it('is taken by its priority, then in the order it came, with everything it needs', async () => {
    for (const [key, priority] of [
      ['low', -1],
      ['first', 0],
      ['second', 0],
      ['high', 5],
    ] as const)
      await store.add(job(key, { priority }));
    const keys = [await take(), await take(), await take(), await take()].map((taken) => [taken.key, taken.data]);
    expect(keys).toEqual([
      ['high', { of: 'high' }],
      ['first', { of: 'first' }],
      ['second', { of: 'second' }],
      ['low', { of: 'low' }],
    ]);
    expect(await store.take(['film'], 'me')).toBeNull();
  });
  it('can be taken over once its lease has run out, and not before', async () => {
    await store.add(job('a'));
    const first = await take();
    nowMs += LEASE_MS - 1;
    expect(await store.renew(first)).toBe(true);
    nowMs += LEASE_MS - 1;
    expect(await store.take(['film'], 'other')).toBeNull();
    nowMs += 2;
    expect((await store.take(['film'], 'other'))!.fence).toBe(first.fence + 1);
  });
  it('lets nobody who has lost it write anything more', async () => {
    await store.add(job('a'));
    const lost = await take();
    nowMs += LEASE_MS + 1;
    const holder = await take();
    expect([
      await store.renew(lost),
      await store.progress(lost, 1, true),
      await store.finish(lost, commit('lost')),
      await store.fail(lost, 'no', commit('failed')),
    ]).toEqual([false, false, false, false]);
    expect(await store.finish(holder, commit('held'))).toBe(true);
    expect(await committed()).toEqual(['held']);
  });
  it('commits what came of it and its end together, or neither', async () => {
    await store.add(job('a'));
    const taken = await take();
    await expect(
      store.finish(taken, async () => {
        throw new Error('half way');
      }),
    ).rejects.toThrow('half way');
    expect([await store.isUnended('film', 'a'), await store.finish(taken, commit('whole')), await committed()]).toEqual(
      [true, true, ['whole']],
    );
  });
  it('counts tries only as long as nothing of it was finished', async () => {
    await store.add(job('a'));
    const tries: number[] = [];
    for (let step = 0; step < 6; step += 1) {
      const taken = await take();
      tries.push(taken.tries);
      await store.progress(taken, { step }, step === 2 || step === 3);
      nowMs += LEASE_MS + 1;
    }
    expect(tries).toEqual([1, 2, 3, 1, 1, 2]);
    expect((await store.progressOf('film', ['a'])).get('a')).toEqual({ step: 5 });
  });
  it('pauses longer after each failure, and a try that could not begin does not count', async () => {
    await store.add(job('a'));
    const pauses: number[] = [];
    for (let step = 0; step < 3; step += 1) {
      await store.postpone(await take(), 'busy', true);
      const from = nowMs;
      while (!(await store.take(['film'], 'me').then((taken) => taken && store.giveBack(taken).then(() => true))))
        nowMs += 1000;
      pauses.push(nowMs - from);
    }
    expect(pauses).toEqual([2000, 4000, 8000]);
    const taken = await take();
    await store.postpone(taken, 'not yet', false);
    nowMs += 1000;
    expect((await take()).tries).toBe(taken.tries);
  });
  it('is forgotten some days after it ended', async () => {
    await store.add(job('a'));
    await store.finish(await take(), async () => {});
    await store.cleanUp();
    nowMs += 4 * 24 * 3600 * 1000;
    await store.add(job('b'));
    await store.cleanUp();
    expect(await store.tally()).toEqual({ waiting: 1, running: 0 });
  });
});

describe('the runner', () => {
  const sleep = (ms: number) =>
    new Promise((resolve) => {
      setTimeout(resolve, ms);
    });
  const until = async (what: () => boolean | Promise<boolean>) => {
    for (let tries = 0; tries < 200 && !(await what()); tries += 1) await sleep(20);
  };
  const kind = (work: JobKindOfWork['work'], more: Partial<JobKindOfWork> = {}): JobKindOfWork => ({
    kind: 'film',
    atOnce: 1,
    mostTries: 4,
    work,
    failed: (_job, error) => ({
      problem: error === null ? 'again and again' : String(error),
      commit: commit('given up'),
    }),
    ...more,
  });

  it('does what waits and what comes, so many at a time', async () => {
    let [now, most] = [0, 0];
    const runner = createJobRunner(store, [
      kind(
        async ({ job: { key } }) => {
          now += 1;
          most = Math.max(most, now);
          await sleep(30);
          now -= 1;
          return commit(key);
        },
        { atOnce: 2 },
      ),
    ]);
    for (const key of ['a', 'b', 'c', 'd', 'e']) await store.add(job(key));
    runner.start();
    await until(async () => (await committed()).length === 5);
    expect([most, (await committed()).sort()]).toEqual([2, ['a', 'b', 'c', 'd', 'e']]);
    await runner.drain();
  });
  it('tells others how far work is when that was written, not at every step of it', async () => {
    await store.add(job('a'));
    let told = 0;
    const work: JobKindOfWork['work'] = async ({ progress }) => {
      for (let step = 0; step < 200; step += 1) progress({ step });
      progress({ step: 200 }, true);
      return commit('a');
    };
    const runner = createJobRunner(store, [kind(work, { progressed: () => void (told += 1) })]);
    runner.start();
    await until(async () => (await committed()).length > 0);
    expect(told).toBe(2);
    await runner.drain();
  });
  it('gives back what is at work when the server ends, and a clean end does not count as a try', async () => {
    await store.add(job('a'));
    let aborted = false;
    const runner = createJobRunner(store, [
      kind(
        ({ signal }) =>
          new Promise((_resolve, reject) => {
            signal.addEventListener('abort', () => {
              aborted = true;
              reject(signal.reason as Error);
            });
          }),
      ),
    ]);
    runner.start();
    await until(async () => (await store.tally()).running === 1);
    await runner.drain();
    expect([aborted, (await take()).tries]).toEqual([true, 1]);
  });
  it('finishes work whose making is killed again and again with something finished in between', async () => {
    await store.add(job('a'));
    for (let kill = 0; kill < 5; kill += 1) {
      // A server that is killed says nothing more: its lease just runs out.
      const taken = await take();
      expect(taken.tries).toBe(1);
      await store.progress(taken, { segments: kill + 1 }, true);
      nowMs += LEASE_MS + 1;
    }
    const runner = createJobRunner(store, [kind(async () => commit('film'))]);
    runner.start();
    await until(async () => (await committed()).length > 0);
    expect(await committed()).toEqual(['film']);
    await runner.drain();
  });
  it('gives up what ended the server too often with nothing finished, and says so', async () => {
    await store.add(job('a'));
    for (let kill = 0; kill < 4; kill += 1) {
      await take();
      nowMs += LEASE_MS + 1;
    }
    let worked = false;
    const runner = createJobRunner(store, [
      kind(async () => {
        worked = true;
        return async () => {};
      }),
    ]);
    runner.start();
    await until(async () => (await committed()).length > 0);
    expect([worked, await committed(), await store.isUnended('film', 'a')]).toEqual([false, ['given up'], false]);
    await runner.drain();
  });
  it('tries again what may pass, gives up at once what will not, and goes on with the rest', async () => {
    for (const key of ['passes', 'fails', 'fine']) await store.add(job(key));
    const seen: string[] = [];
    const runner = createJobRunner(store, [
      kind(async ({ job: { key } }) => {
        seen.push(key);
        if (key === 'passes' && seen.filter((one) => one === key).length === 1) throw new PassingError('busy');
        if (key === 'fails') throw new Error('broken');
        return commit(key);
      }),
    ]);
    runner.start();
    await until(async () => (await committed()).includes('fine'));
    nowMs += 3000;
    runner.look();
    await until(async () => (await committed()).includes('passes'));
    expect(seen).toEqual(['passes', 'fails', 'fine', 'passes']);
    expect((await committed()).sort()).toEqual(['fine', 'given up', 'passes']);
    await runner.drain();
  });
  it('stops what is cancelled and commits nothing of it', async () => {
    await store.add(job('a'));
    const runner = createJobRunner(store, [
      kind(async ({ signal }) => {
        await until(() => signal.aborted);
        return commit('cancelled');
      }),
    ]);
    runner.start();
    await until(async () => (await store.tally()).running === 1);
    expect(await store.cancel('film', 'a')).toBe(true);
    await runner.stop('film', 'a');
    expect([await committed(), await store.tally()]).toEqual([[], { waiting: 0, running: 0 }]);
    await runner.drain();
  });
});
