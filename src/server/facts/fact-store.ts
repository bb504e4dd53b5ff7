import { and, desc, eq, inArray } from 'drizzle-orm';
import { usedVersion, type FactKind } from '../../core/facts/fact-kinds';
import { assetId, type AssetId } from '../../core/show/ids';
import type { OpenDatabase, Writing } from '../database/open-database';
import { corrections, facts } from '../database/schema';

/** What is known about files, by content, kind and version of the method, and what people say about them, which wins. */
export interface FactStore {
  /**
   * @param pinned the version of the method a show or a film goes by; null for the latest
   * @param studioId whose corrections count; null for none
   */
  of<Value>(
    kind: FactKind,
    ids: readonly AssetId[],
    pinned: number | null,
    studioId: string | null,
  ): Promise<Map<AssetId, Value>>;
  /** Those of the files that nothing was found out about by this version of the method. */
  missing(kind: FactKind, ids: readonly AssetId[], version: number): Promise<AssetId[]>;
  /** Within a write that is under way. */
  put(database: Writing, id: AssetId, kind: FactKind, version: number, value: unknown): Promise<void>;
  /**
   * What a person says about a file; null takes it back.
   *
   * @returns what was said before, to go back to
   */
  correct(studioId: string, id: AssetId, kind: FactKind, value: unknown): Promise<unknown>;
}

/** SQLite takes at most 32,766 variables in a statement; this is comfortably below. */
const IDS_A_QUESTION = 1000;

export function createFactStore({ db, write }: OpenDatabase, now: () => number = Date.now): FactStore {
  return {
    async of<Value>(kind: FactKind, ids: readonly AssetId[], pinned: number | null, studioId: string | null) {
      const known = new Map<AssetId, Map<number, unknown>>();
      for (const some of pieces(ids)) {
        const rows = await db
          .select()
          .from(facts)
          .where(and(eq(facts.kind, kind), inArray(facts.assetId, some)));
        for (const row of rows) {
          const id = assetId(row.assetId);
          if (!known.has(id)) known.set(id, new Map());
          known.get(id)!.set(row.methodVersion, row.value);
        }
      }
      const used = new Map<AssetId, Value>();
      for (const [id, versions] of known) {
        const version = usedVersion([...versions.keys()], pinned ?? undefined);
        if (version !== null) used.set(id, versions.get(version) as Value);
      }
      if (studioId !== null)
        for (const [id, value] of await correctionsOf(studioId, kind, ids)) used.set(id, value as Value);
      return used;
    },
    async missing(kind, ids, version) {
      const there = new Set<string>();
      for (const some of pieces(ids)) {
        const rows = await db
          .select({ id: facts.assetId })
          .from(facts)
          .where(and(eq(facts.kind, kind), eq(facts.methodVersion, version), inArray(facts.assetId, some)));
        for (const row of rows) there.add(row.id);
      }
      return ids.filter((id) => !there.has(id));
    },
    async put(database, id, kind, version, value) {
      await database
        .insert(facts)
        .values({ assetId: id, kind, methodVersion: version, value, madeAt: now() })
        .onConflictDoNothing();
    },
    correct: (studioId, id, kind, value) =>
      write(async (database) => {
        const [last] = await database
          .select()
          .from(corrections)
          .where(and(eq(corrections.studioId, studioId), eq(corrections.assetId, id), eq(corrections.kind, kind)))
          .orderBy(desc(corrections.revision))
          .limit(1);
        await database
          .insert(corrections)
          .values({ studioId, assetId: id, kind, revision: (last?.revision ?? 0) + 1, value, at: now() });
        return last?.value ?? null;
      }),
  };

  async function correctionsOf(
    studioId: string,
    kind: FactKind,
    ids: readonly AssetId[],
  ): Promise<Map<AssetId, unknown>> {
    const said = new Map<AssetId, { revision: number; value: unknown }>();
    for (const some of pieces(ids)) {
      const rows = await db
        .select()
        .from(corrections)
        .where(and(eq(corrections.studioId, studioId), eq(corrections.kind, kind), inArray(corrections.assetId, some)));
      for (const row of rows) {
        const id = assetId(row.assetId);
        if (row.revision > (said.get(id)?.revision ?? 0)) said.set(id, { revision: row.revision, value: row.value });
      }
    }
    return new Map([...said].flatMap(([id, { value }]) => (value === null ? [] : [[id, value] as const])));
  }
}

function* pieces(ids: readonly AssetId[]): Generator<AssetId[]> {
  for (let from = 0; from < ids.length; from += IDS_A_QUESTION) yield ids.slice(from, from + IDS_A_QUESTION);
}
