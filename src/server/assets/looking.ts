import { and, eq } from 'drizzle-orm';
import { FACT_KINDS } from '../../core/facts/fact-kinds';
import { showId, type AssetId } from '../../core/show/ids';
import type { Writing } from '../database/open-database';
import { assets, sheetEntries } from '../database/schema';
import { DECODERS } from '../decoding/decoders';
import type { JobKindOfWork } from '../jobs/job-runner';
import type { TakenJob } from '../jobs/job';
import { knownFacts } from '../facts/known-facts';
import { laterJobs, type ContactSheet, type HearData, type LookData, type SheetParts } from './contact-sheet';
import { seeksFaces } from '../focus/faces-wanted';
import type { AssetFacts } from '../../core/show/asset-facts';
import { withoutFaces } from '../../core/focus/focus-facts';
import { proxyOf } from './derive';
import { UnusableFileError } from './unusable-file-error';

/** What a picture may take to be read; media say more once it is known what they are. */
const LOOK_LIMITS = { timeMs: 30_000, memoryBytes: 2 * 1024 ** 3 };
/** The print a viewer and a bench ask for first; what is asked for earlier than it comes up here is made at once. */
const LARGER_WIDTH_PX = 960;
/** Between two uploads nothing waits for a moment; larger prints are not begun before it has been quiet for so long, since they would hold up what still arrives. */
const QUIET_MS = 1500;

/** Looking at files that came in: what they are, what is known about them, what browsers need of them. */
export function looking(parts: SheetParts): JobKindOfWork {
  const { blobs, facts, decoders, jobs } = parts;
  const dataOf = (job: TakenJob) => job.data as LookData;
  return {
    kind: 'look',
    atOnce: DECODERS,
    mostTries: 3,
    async work({ job }) {
      const { assetId: id, byteCount } = dataOf(job);
      const file = await blobs.localFile(id);
      const looked = await blobs.deriveInto(id, (derivedFolder) =>
        decoders.run({ kind: 'look', file, derivedFolder }, LOOK_LIMITS),
      );
      return async (transaction) => {
        await transaction.insert(assets).values({ id, mime: looked.mime, byteCount }).onConflictDoNothing();
        await facts.put(transaction, id, 'basics', FACT_KINDS.basics.version, looked.facts);
        await settle(transaction, id, { state: 'ready', problem: null });
        for (const later of laterJobs(id, looked.facts)) await jobs.addWithin(transaction, later);
        if (looked.facts.kind !== 'picture') return;
        await jobs.addWithin(transaction, {
          kind: 'proxy',
          studioId: job.studioId,
          key: `${id} ${LARGER_WIDTH_PX}`,
          data: { assetId: id },
          priority: -10,
        });
      };
    },
    failed(job, error) {
      const problem =
        error instanceof UnusableFileError
          ? error.message
          : error === null
            ? 'Looking at this file ended the server, so it was set aside. Save it anew and bring that.'
            : `The file could not be taken in: ${error instanceof Error ? error.message : String(error)}`;
      // The file stays and can be given again; the reason is said and the rest goes on.
      return {
        problem,
        commit: (transaction) => settle(transaction, dataOf(job).assetId, { state: 'refused', problem }),
      };
    },
    ended: (job) => void tellKnown(parts, dataOf(job).assetId).catch(() => {}),
  };

  /** Wherever the file waits to be looked at. */
  async function settle(
    transaction: Writing,
    id: AssetId,
    change: { state: 'ready' | 'refused'; problem: string | null },
  ): Promise<void> {
    await transaction
      .update(sheetEntries)
      .set(change)
      .where(and(eq(sheetEntries.assetId, id), eq(sheetEntries.state, 'arrived')));
  }
}

/** Tells every show that has a file what is known about it now. */
async function tellKnown({ database: { db }, facts, events }: SheetParts, id: AssetId): Promise<void> {
  const known = (await knownFacts(facts, [id])).get(id) ?? null;
  for (const { showId: show, rating, ...row } of await db
    .select()
    .from(sheetEntries)
    .where(eq(sheetEntries.assetId, id)))
    events.tell(showId(show), {
      kind: 'entry',
      entry: { ...row, ...(rating !== null && { rating }), assetId: id, facts: row.state === 'ready' ? known : null },
    });
}

/** What finding out what a picture is about may take: the networks are loaded with the first. */
const FOCUS_LIMITS = { timeMs: 60_000, memoryBytes: 2 * 1024 ** 3 };

/** Finding out what pictures are about, when nothing waits that a person would rather see. */
export function finding(parts: SheetParts, sheet: Pick<ContactSheet, 'lastArrivedMs'>): JobKindOfWork {
  const { database, blobs, facts, jobs, finders } = parts;
  const idOf = (job: TakenJob) => (job.data as { assetId: AssetId }).assetId;
  return {
    kind: 'focus',
    atOnce: 1,
    mostTries: 2,
    ready: async () =>
      performance.now() - sheet.lastArrivedMs() > QUIET_MS &&
      !(await jobs.hasWaiting('look')) &&
      !(await jobs.hasWaiting('proxy')),
    async work({ job }) {
      const id = idOf(job);
      const faces = await seeksFaces(database.db, id);
      const known = (await facts.of<AssetFacts>('basics', [id], null, null)).get(id);
      const clip = known?.kind === 'clip' ? known : null;
      const found = await finders.run({ kind: 'focus', file: await blobs.localFile(id), faces, clip }, FOCUS_LIMITS);
      // What a studio no longer wants to be known while it was being found is not kept.
      const kept = faces && !(await seeksFaces(database.db, id)) ? withoutFaces(found) : found;
      return (transaction) => facts.put(transaction, id, 'focus', FACT_KINDS.focus.version, kept);
    },
    ended: (job) => void tellKnown(parts, idOf(job)).catch(() => {}),
    // A picture of which nothing was found out is framed as any was before.
    failed: (_job, error) => ({
      problem: error instanceof Error ? error.message : String(error),
      commit: async () => {},
    }),
  };
}

/** Listening goes several times faster than playing. */
const HEAR_LIMITS = { leastMs: 60_000, timesLength: 1, memoryBytes: 2 * 1024 ** 3 };

/** Listening to sounds: their beats, bars, sections and loudness. */
export function hearing(parts: SheetParts, sheet: Pick<ContactSheet, 'lastArrivedMs'>): JobKindOfWork {
  const { blobs, facts, jobs, finders } = parts;
  const dataOf = (job: TakenJob) => job.data as HearData;
  return {
    kind: 'hear',
    atOnce: 1,
    mostTries: 2,
    ready: async () => performance.now() - sheet.lastArrivedMs() > QUIET_MS && !(await jobs.hasWaiting('look')),
    async work({ job }) {
      const { assetId: id, wantsBeats, lengthMs } = dataOf(job);
      const heard = await finders.run(
        { kind: 'hear', file: await blobs.localFile(id), wantsBeats },
        {
          timeMs: HEAR_LIMITS.leastMs + HEAR_LIMITS.timesLength * lengthMs,
          memoryBytes: HEAR_LIMITS.memoryBytes,
        },
      );
      return (transaction) => facts.put(transaction, id, 'listening', FACT_KINDS.listening.version, heard);
    },
    ended: (job) => void tellKnown(parts, dataOf(job).assetId).catch(() => {}),
    // A song in which nothing could be heard plays as any did before, without beats.
    failed: (_job, error) => ({
      problem: error instanceof Error ? error.message : String(error),
      commit: async () => {},
    }),
  };
}

/** Larger prints of pictures, made when nothing else waits. */
export function proxying(parts: SheetParts, sheet: Pick<ContactSheet, 'lastArrivedMs'>): JobKindOfWork {
  const { facts, jobs } = parts;
  return {
    kind: 'proxy',
    atOnce: 1,
    mostTries: 2,
    ready: async () => performance.now() - sheet.lastArrivedMs() > QUIET_MS && !(await jobs.hasWaiting('look')),
    async work({ job }) {
      const { assetId: id } = job.data as { assetId: AssetId };
      const known = (await facts.of<{ kind: string }>('basics', [id], null, null)).get(id);
      if (known?.kind === 'picture') await proxyOf(id, known as never, LARGER_WIDTH_PX, parts, false);
      return async () => {};
    },
    // A print that fails here is asked for again by whoever needs it, and fails in their sight.
    failed: (_job, error) => ({
      problem: error instanceof Error ? error.message : String(error),
      commit: async () => {},
    }),
  };
}
