import { and, asc, count, eq, inArray, sql } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import { FACT_KINDS, type MethodPins } from '../../core/facts/fact-kinds';
import type { AssetFacts } from '../../core/show/asset-facts';
import { ratingBeside } from '../../core/interchange/xmp';
import { assetId, type AssetId, type ShowId } from '../../core/show/ids';
import type { BlobStore } from '../blobs/blob-store';
import type { OpenDatabase, Writing } from '../database/open-database';
import { assets, sheetEntries } from '../database/schema';
import type { Decoders } from '../decoding/decoders';
import type { Events } from '../events';
import type { FactStore } from '../facts/fact-store';
import { knownFacts } from '../facts/known-facts';
import type { JobStore } from '../jobs/job';
import { THE_STUDIO } from '../studio/may-do';

export interface SheetEntry {
  readonly id: string;
  readonly assetId: AssetId;
  readonly fileName: string;
  readonly byteCount: number;
  readonly addedAt: number;
  readonly state: 'arrived' | 'ready' | 'refused';
  readonly problem: string | null;
  readonly facts: AssetFacts | null;
  /** Made here, not brought: a recording, or one that was cleaned; or lent by the studio's own shelf. */
  readonly made: 'take' | 'cleaned' | 'studio' | 'band' | null;
  /** How a file beside it rates it (XMP); it counts more than what the file itself says. */
  readonly rating?: number;
}

export interface ContactSheet {
  /** @param methods the versions of the methods the show goes by */
  entries(show: ShowId, methods?: MethodPins): Promise<SheetEntry[]>;
  /** How many entries there are, and how many of them wait to be looked at. */
  tally(show: ShowId): Promise<{ entryCount: number; waitingCount: number }>;
  factsOf(ids: readonly AssetId[], methods?: MethodPins): Promise<Map<AssetId, AssetFacts>>;
  /**
   * Takes a file that has arrived whole. It is on the sheet when this resolves and is looked at later, in turn.
   *
   * @param hash of the file when it is known already; worked out otherwise
   */
  takeIn(
    show: ShowId,
    file: string,
    fileName: string,
    how: 'move' | 'copy',
    hash?: AssetId,
    made?: SheetEntry['made'],
  ): Promise<'added' | 'already-there'>;
  /** Puts files that are ready on one show's sheet onto another's, as pasting slides and copying shows need; null stands for all. @returns how many came new */
  borrow(show: ShowId, from: ShowId, ids: readonly AssetId[] | null, made?: SheetEntry['made']): Promise<number>;
  /** Notes ratings of files beside pictures, by the names of those files. @returns how many pictures have one of them */
  rate(show: ShowId, beside: ReadonlyMap<string, number>): Promise<number>;
  /** Takes a refused file’s line off the sheet. */
  takeOff(show: ShowId, entryId: string): Promise<boolean>;
  /** Goes on with what had arrived but was not looked at when the server ended. */
  resume(): Promise<void>;
  /** Has files looked at by today’s methods that were looked at by earlier ones only. @returns how many will be */
  lookAgain(ids: readonly AssetId[]): Promise<number>;
  /** When a file last came in. */
  lastArrivedMs(): number;
}

export interface SheetParts {
  readonly database: OpenDatabase;
  readonly blobs: BlobStore;
  readonly facts: FactStore;
  readonly decoders: Decoders;
  /** Another set of processes, for finding out what pictures are about: their networks take memory and time that prints must not wait for. */
  readonly finders: Decoders;
  readonly jobs: JobStore;
  readonly events: Events;
  /** Something was added to the jobs. */
  readonly wake: () => void;
  readonly now?: () => number;
}

export function createContactSheet({
  database: { db, write },
  blobs,
  facts,
  jobs,
  events,
  wake,
  now = Date.now,
}: SheetParts): ContactSheet {
  let lastArrivedMs = -Infinity;

  return {
    async entries(show, methods = {}) {
      const rows = await db
        .select()
        .from(sheetEntries)
        .where(eq(sheetEntries.showId, show))
        .orderBy(asc(sheetEntries.addedAt), asc(sheetEntries.fileName));
      const known = await factsOf(
        rows.filter((row) => row.state === 'ready').map((row) => assetId(row.assetId)),
        methods,
      );
      return rows.map((row) => ({
        id: row.id,
        assetId: assetId(row.assetId),
        fileName: row.fileName,
        byteCount: row.byteCount,
        addedAt: row.addedAt,
        state: row.state,
        problem: row.problem,
        made: row.made,
        ...(row.rating !== null && { rating: row.rating }),
        facts: row.state === 'ready' ? (known.get(assetId(row.assetId)) ?? null) : null,
      }));
    },
    async tally(show) {
      const waiting = sql<number>`sum(${sheetEntries.state} = 'arrived')`;
      const [counts] = await db
        .select({ entryCount: count(), waitingCount: waiting })
        .from(sheetEntries)
        .where(eq(sheetEntries.showId, show));
      return { entryCount: counts!.entryCount, waitingCount: counts!.waitingCount ?? 0 };
    },
    factsOf,
    async takeIn(show, file, fileName, how, hash, made = null) {
      lastArrivedMs = performance.now();
      const { id, byteCount } = await blobs.take(file, how, hash);
      const known = (await factsOf([id], {})).get(id) ?? null;
      const entry: SheetEntry = {
        id: nanoid(12),
        assetId: id,
        fileName: fileName.slice(0, 255),
        byteCount,
        state: known ? 'ready' : 'arrived',
        problem: null,
        addedAt: now(),
        made,
        facts: known,
      };
      const { facts: _facts, ...row } = entry;
      const added = await write((database) =>
        database.transaction(async (transaction) => {
          const inserted = await transaction
            .insert(sheetEntries)
            .values({ ...row, showId: show })
            .onConflictDoNothing();
          if (inserted.rowsAffected === 0 && !(await takesPlace(transaction, show, row))) return false;
          if (!known) await jobs.addWithin(transaction, lookJob(id, byteCount));
          return true;
        }),
      );
      if (!added) return 'already-there';
      events.tell(show, { kind: 'entry', entry });
      wake();
      return 'added';
    },
    async borrow(show, from, ids, made) {
      const there = (
        await db
          .select()
          .from(sheetEntries)
          .where(and(eq(sheetEntries.showId, from), eq(sheetEntries.state, 'ready')))
      ).filter((row) => ids === null || ids.includes(assetId(row.assetId)));
      const added = await write(async (database) => {
        let fresh = 0;
        for (const row of there)
          fresh += (
            await database
              .insert(sheetEntries)
              .values({ ...row, id: nanoid(12), showId: show, ...(made !== undefined && { made }) })
              .onConflictDoNothing()
          ).rowsAffected;
        return fresh;
      });
      if (added > 0) events.tell(show, { kind: 'sheet' });
      return added;
    },
    async rate(show, beside) {
      const rows = await db.select().from(sheetEntries).where(eq(sheetEntries.showId, show));
      const rated = rows.flatMap((row) => {
        const rating = ratingBeside(row.fileName, beside);
        return rating === null ? [] : [{ id: row.id, rating }];
      });
      if (rated.length === 0) return 0;
      await write((database) =>
        database.transaction(async (transaction) => {
          for (const { id, rating } of rated)
            await transaction.update(sheetEntries).set({ rating }).where(eq(sheetEntries.id, id));
        }),
      );
      events.tell(show, { kind: 'sheet' });
      return rated.length;
    },
    async takeOff(show, entryId) {
      const result = await write((database) =>
        database
          .delete(sheetEntries)
          .where(and(eq(sheetEntries.id, entryId), eq(sheetEntries.showId, show), eq(sheetEntries.state, 'refused'))),
      );
      if (result.rowsAffected > 0) events.tell(show, { kind: 'sheet' });
      return result.rowsAffected > 0;
    },
    async lookAgain(ids) {
      const missing = await facts.missing('basics', ids, FACT_KINDS.basics.version);
      const rows =
        missing.length === 0
          ? []
          : await db
              .select()
              .from(assets)
              .where(inArray(assets.id, missing.slice(0, 1000)));
      for (const row of rows) await jobs.add({ ...lookJob(assetId(row.id), row.byteCount), priority: AFTERWARDS });
      await findLater(ids);
      wake();
      return rows.length;
    },
    async resume() {
      const rows = await db.select().from(sheetEntries).where(eq(sheetEntries.state, 'arrived'));
      for (const row of rows) await jobs.add(lookJob(assetId(row.assetId), row.byteCount));
      wake();
    },
    lastArrivedMs: () => lastArrivedMs,
  };

  /** A file that was refused, or was not as it should be, and comes again takes the place it had. */
  async function takesPlace(
    transaction: Writing,
    show: ShowId,
    { id, assetId: of, byteCount, state }: Omit<SheetEntry, 'facts'>,
  ): Promise<boolean> {
    const changed = await transaction
      .update(sheetEntries)
      .set({ id, byteCount, state, problem: null })
      .where(and(eq(sheetEntries.showId, show), eq(sheetEntries.assetId, of), eq(sheetEntries.state, 'refused')));
    return changed.rowsAffected > 0;
  }

  function factsOf(ids: readonly AssetId[], methods: MethodPins = {}): Promise<Map<AssetId, AssetFacts>> {
    return knownFacts(facts, ids, methods);
  }

  /** Files that were looked at before it could be found out what pictures show and what is heard in sounds. */
  async function findLater(ids: readonly AssetId[]): Promise<void> {
    for (const kind of ['focus', 'listening'] as const) {
      const missing = (await facts.missing(kind, ids, FACT_KINDS[kind].version)).slice(0, 1000);
      const known = await facts.of<AssetFacts>('basics', missing, null, null);
      for (const id of missing) {
        for (const job of known.has(id) ? laterJobs(id, known.get(id)!) : [])
          if ((job.kind === 'focus') === (kind === 'focus')) await jobs.add(job);
      }
    }
  }
}

/** Files that show wait for come before those that are only looked at anew. */
const AFTERWARDS = -5;

function lookJob(id: AssetId, byteCount: number) {
  return { kind: 'look', studioId: THE_STUDIO, key: id, data: { assetId: id, byteCount } satisfies LookData } as const;
}

/** Finding out what a picture is about waits until all are to be seen. */
const WHEN_ALL_ARE_SEEN = -20;

/** A song’s beats are waited for sooner than what pictures show. */
const WHEN_ALL_ARE_THERE = -15;

/** What is to be found out about a file once it was looked at. */
export function laterJobs(id: AssetId, known: AssetFacts) {
  const common = { studioId: THE_STUDIO, key: id } as const;
  const seen = { ...common, kind: 'focus', data: { assetId: id }, priority: WHEN_ALL_ARE_SEEN } as const;
  if (known.kind === 'picture') return [seen];
  const data: HearData = { assetId: id, wantsBeats: known.kind === 'sound', lengthMs: known.lengthMs };
  const heard = { ...common, kind: 'hear', data, priority: WHEN_ALL_ARE_THERE } as const;
  if (known.kind === 'sound') return [heard];
  return known.hasSound ? [heard, seen] : [seen];
}

/** What listening to a file needs to know. */
export interface HearData {
  readonly assetId: AssetId;
  readonly wantsBeats: boolean;
  readonly lengthMs: number;
}

/** What looking at a file needs to know. */
export interface LookData {
  readonly assetId: AssetId;
  readonly byteCount: number;
}
