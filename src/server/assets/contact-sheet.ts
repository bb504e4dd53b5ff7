import { and, asc, count, eq, inArray, sql } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import PQueue from 'p-queue';
import type { AssetFacts } from '../../core/show/asset-facts';
import { assetId, showId, type AssetId, type ShowId } from '../../core/show/ids';
import type { BlobStore } from '../blobs/blob-store';
import type { OpenDatabase } from '../database/open-database';
import { assets, sheetEntries } from '../database/schema';
import type { Events } from '../events';
import { deriveAtIntake, printFile } from './derive';
import { lookAtFile } from './look-at-file';
import { UnusableFileError } from './unusable-file-error';

export interface SheetEntry {
  readonly id: string;
  readonly assetId: AssetId;
  readonly fileName: string;
  readonly byteCount: number;
  readonly addedAt: number;
  readonly state: 'arrived' | 'ready' | 'refused';
  readonly problem: string | null;
  readonly facts: AssetFacts | null;
}

export interface ContactSheet {
  entries(show: ShowId): Promise<SheetEntry[]>;
  /** How many entries there are, and how many of them wait to be looked at. */
  tally(show: ShowId): Promise<{ entryCount: number; waitingCount: number }>;
  factsOf(ids: readonly AssetId[]): Promise<Map<AssetId, AssetFacts>>;
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
  ): Promise<'added' | 'already-there'>;
  /** Puts files that are ready on one show's sheet onto another's, as pasting slides and copying shows need; null stands for all. @returns how many came new */
  borrow(show: ShowId, from: ShowId, ids: readonly AssetId[] | null): Promise<number>;
  /** Takes a refused file's line off the sheet. */
  takeOff(show: ShowId, entryId: string): Promise<boolean>;
  /** Goes on with what had arrived but was not looked at when the server ended. */
  resume(): Promise<void>;
  /** Resolves when nothing waits to be looked at. */
  idle(): Promise<void>;
}

/** On two cores: while one decodes, the others' reading and writing goes on. */
const AT_ONCE = 3;
/** The print a viewer and a bench ask for first; what is asked for earlier than it comes up here is made at once. */
const LARGER_WIDTH_PX = 960;
/** Between two uploads nothing waits for a moment; larger prints are not begun before it has been quiet for so long, since they would hold up what still arrives. */
const QUIET_MS = 1500;
/** SQLite takes at most 32,766 variables in a statement; this is comfortably below. */
const IDS_A_QUESTION = 1000;

export function createContactSheet(
  { db, write }: OpenDatabase,
  blobs: BlobStore,
  events: Events,
  now: () => number = Date.now,
): ContactSheet {
  const intake = new PQueue({ concurrency: AT_ONCE });
  // Larger prints wait until every small one is there.
  const larger = new PQueue({ concurrency: 1 });
  let lastArrivedMs = -Infinity;

  return {
    async entries(show) {
      const rows = await db
        .select()
        .from(sheetEntries)
        .leftJoin(assets, eq(assets.id, sheetEntries.assetId))
        .where(eq(sheetEntries.showId, show))
        .orderBy(asc(sheetEntries.addedAt), asc(sheetEntries.fileName));
      return rows.map(({ sheet_entries: entry, assets: known }) => ({
        id: entry.id,
        assetId: assetId(entry.assetId),
        fileName: entry.fileName,
        byteCount: entry.byteCount,
        addedAt: entry.addedAt,
        state: entry.state,
        problem: entry.problem,
        facts: entry.state === 'ready' ? (known?.facts ?? null) : null,
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
    async factsOf(ids) {
      const facts = new Map<AssetId, AssetFacts>();
      for (let from = 0; from < ids.length; from += IDS_A_QUESTION) {
        const rows = await db
          .select({ id: assets.id, facts: assets.facts })
          .from(assets)
          .where(inArray(assets.id, ids.slice(from, from + IDS_A_QUESTION)));
        for (const row of rows) facts.set(assetId(row.id), row.facts);
      }
      return facts;
    },
    async takeIn(show, file, fileName, how, hash) {
      lastArrivedMs = performance.now();
      const { id, byteCount } = await blobs.take(file, how, hash);
      const arrived = {
        id: nanoid(12),
        assetId: id,
        fileName: fileName.slice(0, 255),
        byteCount,
        state: 'arrived',
        problem: null,
        addedAt: now(),
      } as const;
      const inserted = await write((database) =>
        database
          .insert(sheetEntries)
          .values({ ...arrived, showId: show })
          .onConflictDoNothing(),
      );
      if (inserted.rowsAffected === 0) return 'already-there';
      events.tell(show, { kind: 'entry', entry: { ...arrived, facts: null } });
      void intake.add(() => lookAt({ ...arrived, facts: null }, show));
      return 'added';
    },
    async borrow(show, from, ids) {
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
              .values({ ...row, id: nanoid(12), showId: show })
              .onConflictDoNothing()
          ).rowsAffected;
        return fresh;
      });
      if (added > 0) events.tell(show, { kind: 'sheet' });
      return added;
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
    async resume() {
      const rows = await db.select().from(sheetEntries).where(eq(sheetEntries.state, 'arrived'));
      for (const { showId: show, assetId: id, ...row } of rows)
        void intake.add(() => lookAt({ ...row, assetId: assetId(id), facts: null }, showId(show)));
    },
    idle: () => intake.onIdle(),
  };

  async function quiet(): Promise<void> {
    for (;;) {
      await intake.onIdle();
      const waitMs = QUIET_MS - (performance.now() - lastArrivedMs);
      if (waitMs <= 0) return;
      await new Promise((resolve) => {
        setTimeout(resolve, waitMs);
      });
    }
  }

  async function lookAt(entry: SheetEntry, show: ShowId): Promise<void> {
    const id = entry.assetId;
    const outcome = await facts(id, entry.byteCount);
    const change = outcome.ok
      ? ({ state: 'ready', problem: null } as const)
      : ({ state: 'refused', problem: outcome.problem } as const);
    await write(async (database) => {
      const changed = database.update(sheetEntries).set(change).where(eq(sheetEntries.id, entry.id));
      if (outcome.ok && outcome.fresh)
        await database.batch([
          database
            .insert(assets)
            .values({ id, ...outcome.fresh })
            .onConflictDoNothing(),
          changed,
        ]);
      else await changed;
    });
    events.tell(show, { kind: 'entry', entry: { ...entry, ...change, facts: outcome.ok ? outcome.facts : null } });
    const picture = outcome.ok && outcome.fresh ? outcome.facts : null;
    if (picture?.kind === 'picture')
      void larger.add(async () => {
        await quiet();
        // A print that fails here is asked for again by whoever needs it, and fails in their sight.
        await printFile(id, picture, LARGER_WIDTH_PX, blobs).catch(() => {});
      });
  }

  type Fresh = { mime: string; byteCount: number; facts: AssetFacts };
  async function facts(
    id: AssetId,
    byteCount: number,
  ): Promise<{ ok: true; facts: AssetFacts; fresh: Fresh | null } | { ok: false; problem: string }> {
    const [known] = await db.select({ facts: assets.facts }).from(assets).where(eq(assets.id, id));
    if (known) return { ok: true, facts: known.facts, fresh: null };
    try {
      const looked = await lookAtFile(blobs.fileOf(id));
      await deriveAtIntake(id, looked, blobs);
      return { ok: true, facts: looked.facts, fresh: { mime: looked.mime, byteCount, facts: looked.facts } };
    } catch (error) {
      if (error instanceof UnusableFileError) return { ok: false, problem: error.message };
      // The file stays and can be tried again; the reason is said and the rest goes on.
      return {
        ok: false,
        problem: `The file could not be taken in: ${error instanceof Error ? error.message : String(error)}`,
      };
    }
  }
}
