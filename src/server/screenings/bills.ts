import { and, desc, eq, inArray, isNull } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import type { BillChange, BillChoice, BilledFilm, BillRow, NewBill } from '../../core/screening/bill';
import { isOpenAt } from '../../core/screening/screening-settings';
import type { OpenDatabase } from '../database/open-database';
import { bills, screenings, shows } from '../database/schema';
import type { ScreeningService } from './screening-service';

/** A bill as its page shows it. */
export interface ShownBill {
  readonly studioId: string;
  readonly title: string;
  readonly words: string;
  /** Those that can be watched now. */
  readonly films: readonly BilledFilm[];
}

/** Pages of several screenings. What is on one is watched by its own link, with its own password and end. */
export interface Bills {
  list(studioId: string): Promise<BillRow[]>;
  choices(studioId: string): Promise<BillChoice[]>;
  /** @returns its id; null when one of the screenings is not the studio’s */
  open(studioId: string, wanted: NewBill): Promise<string | null>;
  /** @returns false when it is not there; `screenings` when one of those is not the studio’s */
  change(studioId: string, id: string, change: BillChange): Promise<boolean | 'screenings'>;
  remove(studioId: string, id: string): Promise<boolean>;
  /** What is behind a link; null when nothing is, or it is shut. */
  find(token: string): Promise<ShownBill | null>;
}

export function createBills(
  { db, write }: OpenDatabase,
  shown: Pick<ScreeningService, 'find'>,
  now: () => number = Date.now,
): Bills {
  const own = (studioId: string, id: string) => and(eq(bills.id, id), eq(bills.studioId, studioId));

  return {
    async list(studioId) {
      const rows = await db.select().from(bills).where(eq(bills.studioId, studioId)).orderBy(desc(bills.createdAt));
      return rows.map(({ studioId: _studio, ...row }) => row);
    },
    async choices(studioId) {
      const rows = await db
        .select({ screening: screenings, show: shows.title })
        .from(screenings)
        .innerJoin(shows, eq(shows.id, screenings.showId))
        .where(and(eq(screenings.studioId, studioId), isNull(shows.removedAt)))
        .orderBy(desc(screenings.createdAt));
      return Promise.all(
        rows.map(async ({ screening, show }) => {
          const found = await shown.find(screening.token);
          const open = found !== null && isOpenAt(screening, now());
          return { id: screening.id, title: found?.title ?? screening.title ?? show, show, open };
        }),
      );
    },
    async open(studioId, { title, words, screenings: ids }) {
      if (!(await areOf(studioId, ids))) return null;
      const id = nanoid(12);
      const row = { id, studioId, token: nanoid(24), title: title.trim(), words, screenings: [...new Set(ids)] };
      await write((one) => one.insert(bills).values({ ...row, shut: false, createdAt: now() }));
      return id;
    },
    async change(studioId, id, { screenings: ids, ...change }) {
      if ((await db.select().from(bills).where(own(studioId, id))).length === 0) return false;
      if (ids && !(await areOf(studioId, ids))) return 'screenings';
      const set = { ...change, ...(ids && { screenings: [...new Set(ids)] }) };
      if (Object.keys(set).length > 0) await write((one) => one.update(bills).set(set).where(own(studioId, id)));
      return true;
    },
    async remove(studioId, id) {
      const done = await write((one) => one.delete(bills).where(own(studioId, id)));
      return done.rowsAffected > 0;
    },
    async find(token) {
      const [bill] = await db.select().from(bills).where(eq(bills.token, token));
      if (!bill || bill.shut) return null;
      const rows = await db
        .select()
        .from(screenings)
        .where(and(inArray(screenings.id, [...bill.screenings]), eq(screenings.studioId, bill.studioId)));
      const films: BilledFilm[] = [];
      for (const id of bill.screenings) {
        const row = rows.find((one) => one.id === id);
        const found = row && isOpenAt(row, now()) ? await shown.find(row.token) : null;
        if (!row || !found) continue;
        const asks = row.passwordHash !== null;
        films.push({
          token: row.token,
          title: asks ? null : found.title,
          lengthMs: asks ? null : found.films[0]!.lengthMs,
          endsAt: row.endsAt,
        });
      }
      return { studioId: bill.studioId, title: bill.title, words: bill.words, films };
    },
  };

  async function areOf(studioId: string, ids: readonly string[]): Promise<boolean> {
    const unique = [...new Set(ids)];
    const rows = await db
      .select({ id: screenings.id })
      .from(screenings)
      .where(and(inArray(screenings.id, unique), eq(screenings.studioId, studioId)));
    return rows.length === unique.length;
  }
}
