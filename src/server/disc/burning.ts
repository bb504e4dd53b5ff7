import { setTimeout as sleep } from 'node:timers/promises';
import { and, asc, eq, inArray } from 'drizzle-orm';
import { BURNING } from '../../core/disc/disc-making';
import type { OpenDatabase } from '../database/open-database';
import { burns, discs } from '../database/schema';
import { logger } from '../logger';
import type { JobKindOfWork } from '../jobs/job-runner';
import type { JobStore, TakenJob } from '../jobs/job';
import type { Places } from '../publishing/places';
import { DriveError, type Drive } from './drive';
import { imageFile } from './making-disc';

interface BurningParts {
  readonly database: OpenDatabase;
  readonly jobs: JobStore;
  readonly places: Places;
  readonly folder: string;
  readonly now?: () => number;
}

/** How far a copy is. */
export interface BurnFar {
  readonly burn: string;
  /** 0…1 */
  readonly share: number;
}

const LOOK_EVERY_MS = 700;
const UNKNOWN = 'Something went wrong on the server with this copy. Burn another one.';

/** Burns the copies of an image, one disc after the other: each is written, read back, and compared; the tray opens for the next. What goes wrong with one copy stays with it. */
export function burningDiscs({ database, jobs, places, folder, now = Date.now }: BurningParts): JobKindOfWork {
  const { db, write } = database;

  return {
    kind: 'burn',
    // One that waits for a disc keeps none from burning elsewhere.
    atOnce: 8,
    mostTries: 5,
    async work({ job, signal, progress }) {
      const discId = job.key;
      for (let next = await nextOf(discId); next; next = await nextOf(discId)) {
        signal.throwIfAborted();
        const [disc] = await db.select().from(discs).where(eq(discs.id, discId));
        const drive = disc && places.drive(disc.studioId);
        if (!drive || disc.imageHash === null) {
          await end(next.id, {
            state: 'failed',
            problem: drive ? 'There is no image any more.' : 'There is no drive.',
          });
          continue;
        }
        await burn(drive, discId, disc.imageHash, next, signal, (share) => progress({ burn: next!.id, share }));
      }
      return () => Promise.resolve();
    },
    // Copies that were ordered in the moment the last one was done.
    ended: (job) => {
      void nextOf(job.key).then(async (next) => {
        if (next) await jobs.add({ kind: 'burn', studioId: job.studioId, key: job.key, data: {} });
      });
    },
    failed(job: TakenJob) {
      return {
        problem: UNKNOWN,
        commit: async (transaction) => {
          await transaction
            .update(burns)
            .set({ state: 'failed', problem: UNKNOWN, endedAt: now() })
            .where(and(eq(burns.discId, job.key), inArray(burns.state, [...BURNING])));
        },
      };
    },
  };

  async function nextOf(discId: string) {
    const [row] = await db
      .select()
      .from(burns)
      .where(and(eq(burns.discId, discId), inArray(burns.state, [...BURNING])))
      .orderBy(asc(burns.orderedAt), asc(burns.id))
      .limit(1);
    return row ?? null;
  }

  async function note(id: string, change: Partial<typeof burns.$inferInsert>): Promise<void> {
    await write((one) =>
      one
        .update(burns)
        .set(change)
        .where(and(eq(burns.id, id), inArray(burns.state, [...BURNING]))),
    );
  }

  function end(id: string, change: Partial<typeof burns.$inferInsert>): Promise<void> {
    return note(id, { ...change, endedAt: now() });
  }

  async function burn(
    drive: Drive,
    discId: string,
    imageHash: string,
    { id, state }: typeof burns.$inferSelect,
    signal: AbortSignal,
    onShare: (share: number) => void,
  ): Promise<void> {
    // A disc that was being written when the server ended is spoilt.
    if (state !== 'waits')
      return end(id, { state: 'failed', problem: 'The server ended while it was written. That disc is spoilt.' });
    while (!(await isReady(drive, id))) {
      await sleep(LOOK_EVERY_MS, undefined, { signal });
      if (!(await isWanted(id))) return;
    }
    try {
      await note(id, { state: 'writing', problem: null });
      const serial = await drive.write(imageFile(folder, discId), onShare, signal);
      await note(id, { state: 'checking', serial });
      const read = await drive.read(onShare, signal);
      await drive.openTray();
      await end(
        id,
        read === imageHash
          ? { state: 'done' }
          : { state: 'failed', problem: 'What was read back is not what was written. That disc is spoilt.' },
      );
    } catch (error) {
      if (signal.aborted) throw error;
      if (error instanceof DriveError && error.waits) return note(id, { state: 'waits', problem: error.message });
      await drive.openTray();
      await end(id, { state: 'failed', problem: error instanceof DriveError ? error.message : UNKNOWN });
      if (!(error instanceof DriveError)) logger().error({ err: error, disc: discId }, 'a copy could not be burned');
    }
  }

  /** Notes what it waits for. */
  async function isReady(drive: Drive, id: string): Promise<boolean> {
    const state = await drive.state();
    const waits =
      state === null
        ? 'The drive does not answer.'
        : state.disc === null || state.tray === 'open'
          ? 'Put a blank disc into the drive.'
          : state.disc.isBlank
            ? null
            : 'The disc in the drive is not blank. Put a blank one in.';
    if (waits !== null) await note(id, { problem: waits });
    return waits === null;
  }

  async function isWanted(id: string): Promise<boolean> {
    const [row] = await db.select({ state: burns.state }).from(burns).where(eq(burns.id, id));
    return row?.state === 'waits';
  }
}
