import { and, desc, eq, lt } from 'drizzle-orm';
import type { OpenDatabase } from '../database/open-database';
import { audit } from '../database/schema';

export interface AuditRow {
  readonly id: number;
  readonly name: string;
  readonly did: string;
  readonly what: string;
  readonly count: number;
  readonly at: number;
}

export interface Audit {
  /** Notes what somebody did; what is done again at once is counted, not listed anew. */
  note(row: {
    readonly studioId: string;
    readonly accountId: string | null;
    readonly name: string;
    readonly did: string;
    readonly what?: string;
  }): Promise<void>;
  /** The latest first. @param before an `id`; null: from the latest on */
  list(studioId: string, before: number | null): Promise<AuditRow[]>;
}

const SAME_WORK_MS = 30 * 60_000;
const A_PAGE = 100;
const KEPT_MS = 2 * 365 * 24 * 3_600_000;

export function createAudit({ db, write }: OpenDatabase, now: () => number = Date.now): Audit {
  return {
    note: ({ what = '', ...row }) =>
      write(async (one) => {
        const [last] = await one
          .select()
          .from(audit)
          .where(eq(audit.studioId, row.studioId))
          .orderBy(desc(audit.id))
          .limit(1);
        const goesOn =
          last?.accountId === row.accountId &&
          last.name === row.name &&
          last.did === row.did &&
          last.what === what &&
          now() - last.at < SAME_WORK_MS;
        if (goesOn) {
          await one
            .update(audit)
            .set({ count: last.count + 1, at: now() })
            .where(eq(audit.id, last.id));
          return;
        }
        await one.delete(audit).where(lt(audit.at, now() - KEPT_MS));
        await one.insert(audit).values({ ...row, what, count: 1, at: now() });
      }),
    list: (studioId, before) =>
      db
        .select({
          id: audit.id,
          name: audit.name,
          did: audit.did,
          what: audit.what,
          count: audit.count,
          at: audit.at,
        })
        .from(audit)
        .where(before === null ? eq(audit.studioId, studioId) : and(eq(audit.studioId, studioId), lt(audit.id, before)))
        .orderBy(desc(audit.id))
        .limit(A_PAGE),
  };
}
