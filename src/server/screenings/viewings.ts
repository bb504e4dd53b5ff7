import { and, count, eq, gte, inArray } from 'drizzle-orm';
import { mergedStretches, watchedOf, type Stretch, type Watched } from '../../core/screening/watched';
import type { OpenDatabase } from '../database/open-database';
import { viewings } from '../database/schema';

/** What a page tells while it plays a film. */
export interface ToldViewing {
  /** Made up by the page when it began to play; nobody is known again by it. */
  readonly id: string;
  readonly stretches: readonly Stretch[];
}

export interface Viewings {
  /** Adds to what is known of a viewing. @returns false for one that belongs to another screening */
  tell(screeningId: string, told: ToldViewing, lengthMs: number): Promise<boolean>;
  isKnown(id: string): Promise<boolean>;
  watched(screeningId: string, lengthMs: number, partCount: number): Promise<Watched>;
  /** By screening. */
  counts(screeningIds: readonly string[]): Promise<ReadonlyMap<string, number>>;
  forget(screeningId: string): Promise<void>;
}

/** What played for less is not counted: a finger slipped. */
const SHORTEST_MS = 1000;

export function createViewings({ db, write }: OpenDatabase, now: () => number): Viewings {
  return {
    async tell(screeningId, { id, stretches }, lengthMs) {
      return write((one) =>
        one.transaction(async (transaction) => {
          const [known] = await transaction.select().from(viewings).where(eq(viewings.id, id));
          if (known && known.screeningId !== screeningId) return false;
          const watched = mergedStretches([...(known?.watched ?? []), ...stretches], lengthMs);
          const seenMs = Math.round(watched.reduce((sum, [from, to]) => sum + to - from, 0));
          await transaction
            .insert(viewings)
            .values({ id, screeningId, watched, seenMs, startedAt: now(), changedAt: now() })
            .onConflictDoUpdate({ target: viewings.id, set: { watched, seenMs, changedAt: now() } });
          return true;
        }),
      );
    },
    isKnown: async (id) => (await db.select({ id: viewings.id }).from(viewings).where(eq(viewings.id, id))).length > 0,
    async watched(screeningId, lengthMs, partCount) {
      const rows = await db
        .select({ watched: viewings.watched })
        .from(viewings)
        .where(and(eq(viewings.screeningId, screeningId), gte(viewings.seenMs, SHORTEST_MS)));
      return watchedOf(
        rows.map(({ watched }) => watched),
        lengthMs,
        partCount,
      );
    },
    async counts(screeningIds) {
      const rows = await db
        .select({ of: viewings.screeningId, times: count() })
        .from(viewings)
        .where(and(inArray(viewings.screeningId, [...screeningIds]), gte(viewings.seenMs, SHORTEST_MS)))
        .groupBy(viewings.screeningId);
      return new Map(rows.map(({ of, times }) => [of, times]));
    },
    forget: async (screeningId) =>
      void (await write((one) => one.delete(viewings).where(eq(viewings.screeningId, screeningId)))),
  };
}
