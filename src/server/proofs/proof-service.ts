import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import { proofTally, type ClientMark, type NewProof, type ProofChange, type ProofTally } from '../../core/proof/proof';
import { isOpenAt } from '../../core/screening/screening-settings';
import { assetId, showId, type AssetId, type ShowId } from '../../core/show/ids';
import type { OpenDatabase, Writing } from '../database/open-database';
import { proofMarks, proofs, sheetEntries, shows } from '../database/schema';
import type { Events } from '../events';

/** A proof as the studio sees it. */
export interface ProofRow {
  readonly id: string;
  readonly token: string;
  readonly label: string;
  readonly pictureCount: number;
  readonly longestPx: number;
  readonly watermark: string | null;
  readonly endsAt: number | null;
  readonly shut: boolean;
  readonly sentAt: number | null;
  readonly sentBy: string | null;
  readonly createdAt: number;
  readonly tally: ProofTally;
  readonly marks: readonly ClientMark[];
}

/** A proof as who has the link sees it. */
export interface OpenProof {
  readonly id: string;
  readonly studioId: string;
  readonly showId: ShowId;
  readonly label: string;
  readonly title: string;
  readonly longestPx: number;
  readonly watermark: string | null;
  readonly endsAt: number | null;
  readonly sentAt: number | null;
  readonly pictures: readonly AssetId[];
  readonly marks: readonly ClientMark[];
}

export interface ProofService {
  list(show: ShowId): Promise<ProofRow[]>;
  /** @returns null when one of the pictures is not on the show’s sheet */
  open(studioId: string, show: ShowId, wanted: NewProof): Promise<string | null>;
  change(show: ShowId, id: string, change: ProofChange): Promise<boolean>;
  remove(show: ShowId, id: string): Promise<boolean>;
  /** What is behind a link; null when nothing is, or no longer. */
  find(token: string): Promise<OpenProof | null>;
  /** @returns `sent` once the choice is sent: it stands then */
  mark(token: string, mark: ClientMark): Promise<'done' | 'sent' | 'not-there'>;
  send(token: string, name: string): Promise<'done' | 'sent' | 'not-there'>;
}

export function createProofService(
  { db, write }: OpenDatabase,
  events: Events,
  now: () => number = Date.now,
): ProofService {
  const behind = async (one: Writing, token: string) => {
    const [row] = await one.select().from(proofs).where(eq(proofs.token, token));
    return row && isOpenAt(row, now()) ? row : null;
  };
  const tell = (show: string) => events.tell(showId(show), { kind: 'proofs' });

  return {
    async list(show) {
      const rows = await db.select().from(proofs).where(eq(proofs.showId, show)).orderBy(desc(proofs.createdAt));
      const ids = rows.map(({ id }) => id);
      const marks = await db.select().from(proofMarks).where(inArray(proofMarks.proofId, ids));
      return rows.map(({ studioId: _studio, showId: _show, pictures, ...row }) => {
        const own = marks.filter(({ proofId }) => proofId === row.id).map(asMark);
        return { ...row, pictureCount: pictures.length, tally: proofTally(own, pictures.length), marks: own };
      });
    },
    async open(studioId, show, { pictures, ...wanted }) {
      const there = await db
        .select({ id: sheetEntries.assetId })
        .from(sheetEntries)
        .where(and(eq(sheetEntries.showId, show), eq(sheetEntries.state, 'ready')));
      const known = new Set(there.map(({ id }) => id));
      const unique = [...new Set(pictures)];
      if (unique.some((id) => !known.has(id))) return null;
      const id = nanoid(12);
      const row = { ...wanted, id, studioId, showId: show, token: nanoid(24), pictures: unique, createdAt: now() };
      await write((one) => one.insert(proofs).values({ ...row, label: wanted.label.trim() }));
      tell(show);
      return id;
    },
    async change(show, id, { sent, ...change }) {
      const values = { ...change, ...(sent === false && { sentAt: null, sentBy: null }) };
      const own = and(eq(proofs.id, id), eq(proofs.showId, show));
      if (Object.keys(values).length === 0) return (await db.select().from(proofs).where(own)).length > 0;
      const done = await write((one) => one.update(proofs).set(values).where(own));
      tell(show);
      return done.rowsAffected > 0;
    },
    async remove(show, id) {
      const done = await write(async (one) => {
        const own = and(eq(proofs.id, id), eq(proofs.showId, show));
        if ((await one.select().from(proofs).where(own)).length === 0) return false;
        await one.delete(proofMarks).where(eq(proofMarks.proofId, id));
        await one.delete(proofs).where(own);
        return true;
      });
      tell(show);
      return done;
    },
    async find(token) {
      const row = await behind(db, token);
      if (!row) return null;
      const [show] = await db.select({ title: shows.title }).from(shows).where(eq(shows.id, row.showId));
      const marks = await db
        .select()
        .from(proofMarks)
        .where(eq(proofMarks.proofId, row.id))
        .orderBy(asc(proofMarks.at));
      const { id, studioId, label, longestPx, watermark, endsAt, sentAt } = row;
      return {
        id,
        studioId,
        showId: showId(row.showId),
        label,
        title: show?.title ?? '',
        longestPx,
        watermark,
        endsAt,
        sentAt,
        pictures: row.pictures.map(assetId),
        marks: marks.map(asMark),
      };
    },
    async mark(token, { assetId: picture, mark, note }) {
      const done = await write(async (one) => {
        const row = await behind(one, token);
        if (!row?.pictures.includes(picture)) return null;
        if (row.sentAt !== null) return 'sent' as const;
        const of = and(eq(proofMarks.proofId, row.id), eq(proofMarks.assetId, picture));
        await one.delete(proofMarks).where(of);
        if (mark !== null || note !== '')
          await one.insert(proofMarks).values({ proofId: row.id, assetId: picture, mark, note, at: now() });
        return row.showId;
      });
      if (done === null) return 'not-there';
      if (done === 'sent') return 'sent';
      tell(done);
      return 'done';
    },
    async send(token, name) {
      const done = await write(async (one) => {
        const row = await behind(one, token);
        if (!row) return null;
        if (row.sentAt !== null) return 'sent' as const;
        await one.update(proofs).set({ sentAt: now(), sentBy: name.trim() }).where(eq(proofs.id, row.id));
        return row.showId;
      });
      if (done === null) return 'not-there';
      if (done === 'sent') return 'sent';
      tell(done);
      return 'done';
    },
  };
}

function asMark({ assetId: id, mark, note }: typeof proofMarks.$inferSelect): ClientMark {
  return { assetId: assetId(id), mark, note };
}
