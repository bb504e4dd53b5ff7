import { and, asc, desc, eq, gt, inArray, isNull, ne, or, sql } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import { applyEdit, type EditResult } from '../../core/show/edit';
import { raiseEdit } from '../../core/show/format/raise';
import { FORMAT_VERSION } from '../../core/show/format/version';
import { LONGEST_SHOW_TITLE } from '../../core/show/limits';
import { collide } from '../../core/show/touched';
import { logger } from '../logger';
import { shelfOf } from '../reuse/shelf-of';
import { THE_STUDIO } from '../studio/may-do';
import type { Person } from '../studio/sessions';
import {
  MOST_WRONG_EDITS,
  sortedEdits,
  type RefusedEdit,
  type SentEdit,
  type SortedEdits,
  type UncheckedEdit,
} from './sorted-edits';
import { keepBeforeCollision, lastKept } from './versions';
import { showId, type ShowId } from '../../core/show/ids';
import { emptyShow, mainLayerOf, type Show } from '../../core/show/show';
import { showLengthMs } from '../../core/timing/slide-span';
import type { Database, OpenDatabase } from '../database/open-database';
import { documents, edits, films, seriesRows, sheetEntries, showGuests, shows } from '../database/schema';
import { parseStoredShow } from '../schema/show-schema';
import type { Events } from '../events';

export interface ShelfEntry {
  readonly id: ShowId;
  readonly title: string;
  readonly slideCount: number;
  readonly lengthMs: number;
  readonly posterAssetId: string | null;
  readonly posterAtMs: number | null;
  readonly changedAt: number;
  readonly createdAt: number;
  readonly place: 'shelf' | 'archive' | 'removed';
  /** Its latest film. */
  readonly film: 'none' | 'making' | 'ready';
  /** What the files on its sheet and its films take on the disk. */
  readonly byteCount: number;
  /** Whoever asks is a guest of it: what becomes of it is not theirs to say. */
  readonly visiting: boolean;
  /** The series it was made for; null for one of its own. */
  readonly series: string | null;
}

export type { SentEdit } from './sorted-edits';

export interface OpenedShow {
  readonly show: Show;
  readonly revision: number;
  /** What is wrong with what is stored, for the person: the show is then as it last was sound, and cannot be changed. Null when nothing is. */
  readonly damage: string | null;
}

export interface AppliedEdits {
  /** The show's revision after these edits. */
  readonly revision: number;
  /** Every edit since the revision the browser knew, in order; its own are among them. */
  readonly since: readonly SentEdit[];
  readonly refused: readonly RefusedEdit[];
  /** These edits wrote where another window had written meanwhile; what that window had made is kept. */
  readonly collided: boolean;
}

export interface ShowService {
  create(title: string, studioId?: string): Promise<Show>;
  /** Puts a whole show on the shelf, as the demo does. */
  put(show: Show, studioId?: string): Promise<void>;
  /** Every show, archived and removed ones too, last changed first. */
  shelf(of?: Pick<Person, 'accountId' | 'studioId' | 'role'>): Promise<ShelfEntry[]>;
  /** The same show again; its contact sheet is another's business. Null when there is no such show. */
  duplicate(id: ShowId): Promise<Show | null>;
  setArchived(id: ShowId, archived: boolean): Promise<boolean>;
  rename(id: ShowId, title: string): Promise<'done' | 'not-there' | { readonly refused: string }>;
  load(id: ShowId): Promise<OpenedShow | null>;
  /** What is stored of a show as it lies there, whatever is wrong with it. Null when there is no such show. */
  stored(id: ShowId): Promise<object | null>;
  /**
   * Applies edits in order and keeps each. An edit whose id is known was applied before and is passed over; one that is wrong or cannot be done is refused by
   * itself. Null when there is no such show; a problem when nothing can be applied to it, or when too many are wrong to be a slip.
   *
   * @param basedOn the revision they were made on, when that is older than the one the window knows by now: a closed page's unsent work
   */
  applyEdits(
    id: ShowId,
    sent: readonly UncheckedEdit[] | SortedEdits,
    knownRevision: number,
    basedOn?: number,
  ): Promise<AppliedEdits | { readonly problem: string } | null>;
  setRemoved(id: ShowId, removed: boolean): Promise<boolean>;
}

/** The document is written whole only this often; what came since is in `edits` and is replayed when the show is loaded. */
const EDITS_BETWEEN_DOCUMENTS = 50;

interface Loaded extends OpenedShow {
  readonly documentRevision: number;
}

/** For what sees all of the first studio without being anybody in it. */
const WHOLE_STUDIO = { accountId: '', studioId: THE_STUDIO, role: 'member' } as const;

export function createShowService(
  { db, write }: OpenDatabase,
  events: Events,
  now: () => number = Date.now,
): ShowService {
  const loaded = new Map<ShowId, Loaded>();

  const service: ShowService = {
    async create(title, studioId = THE_STUDIO) {
      const show = emptyShow(showId(nanoid(12)), title);
      await insert(show, studioId);
      return show;
    },
    put: (show, studioId = THE_STUDIO) => insert(show, studioId),
    async shelf(of = WHOLE_STUDIO) {
      const { accountId, studioId, role } = of;
      const visited = db.select({ id: showGuests.showId }).from(showGuests).where(eq(showGuests.accountId, accountId));
      const visits = and(inArray(shows.id, visited), isNull(shows.removedAt));
      const own = and(eq(shows.studioId, studioId), ne(shows.id, shelfOf(studioId)));
      const rows = await db
        .select({
          id: shows.id,
          studioId: shows.studioId,
          title: shows.title,
          slideCount: shows.slideCount,
          lengthMs: shows.lengthMs,
          posterAssetId: shows.posterAssetId,
          posterAtMs: shows.posterAtMs,
          changedAt: shows.changedAt,
          createdAt: shows.createdAt,
          removedAt: shows.removedAt,
          archivedAt: shows.archivedAt,
          series: seriesRows.seriesId,
        })
        .from(shows)
        .leftJoin(seriesRows, eq(seriesRows.showId, shows.id))
        .where(role === 'guest' ? visits : or(own, visits))
        .orderBy(desc(shows.changedAt));
      const made = await db
        .select({ showId: films.showId, state: films.state })
        .from(films)
        .where(inArray(films.state, ['waiting', 'making', 'ready']))
        .orderBy(asc(films.orderedAt));
      const used = new Map<string, number>();
      for (const { show, bytes } of await bytesUsed(db)) used.set(show, (used.get(show) ?? 0) + bytes);
      const latest = new Map(
        made.map((film) => [film.showId, film.state === 'ready' ? ('ready' as const) : ('making' as const)]),
      );
      return rows.map(({ id, studioId: whose, removedAt, archivedAt, ...row }) => ({
        ...row,
        id: showId(id),
        place:
          removedAt !== null ? ('removed' as const) : archivedAt !== null ? ('archive' as const) : ('shelf' as const),
        film: latest.get(id) ?? ('none' as const),
        byteCount: used.get(id) ?? 0,
        visiting: role === 'guest' || whose !== studioId,
      }));
    },
    async load(id) {
      const found = await fetch(db, id);
      return found && { show: found.show, revision: found.revision, damage: found.damage };
    },
    async duplicate(id) {
      const found = await fetch(db, id);
      if (!found) return null;
      const copy: Show = { ...found.show, id: showId(nanoid(12)), title: titleOfCopy(found.show.title) };
      const [of] = await db.select({ studioId: shows.studioId }).from(shows).where(eq(shows.id, id));
      await insert(copy, of!.studioId);
      return copy;
    },
    async applyEdits(id, sent, knownRevision, basedOn = knownRevision) {
      const { right, refused } = 'right' in sent ? sent : sortedEdits(sent);
      if (refused.length > MOST_WRONG_EDITS) return { problem: refused[0]!.sentence };
      return write((database) => applyRight(database, id, right, refused, knownRevision, basedOn));
    },
    async stored(id) {
      const [row] = await db.select().from(shows).where(eq(shows.id, id));
      if (!row) return null;
      const [whole] = await db.select().from(documents).where(eq(documents.showId, id));
      const later = await db
        .select()
        .from(edits)
        .where(and(eq(edits.showId, id), gt(edits.revision, whole?.revision ?? 0)))
        .orderBy(asc(edits.revision));
      return { show: row, document: whole ?? null, edits: later };
    },
    async rename(id, title) {
      const found = await fetch(db, id);
      if (!found) return 'not-there';
      const edit = { editId: nanoid(16), edit: { kind: 'rename-show', title } };
      const applied = await service.applyEdits(id, [edit], found.revision);
      if (applied === null) return 'not-there';
      if ('problem' in applied) return { refused: applied.problem };
      return applied.refused[0] ? { refused: applied.refused[0].sentence } : 'done';
    },
    async setArchived(id, archived) {
      const result = await write((database) =>
        database
          .update(shows)
          .set({ archivedAt: archived ? now() : null })
          .where(eq(shows.id, id)),
      );
      return result.rowsAffected > 0;
    },
    async setRemoved(id, removed) {
      const result = await write((database) =>
        database
          .update(shows)
          .set({ removedAt: removed ? now() : null })
          .where(eq(shows.id, id)),
      );
      return result.rowsAffected > 0;
    },
  };
  return service;

  async function insert(show: Show, studioId: string): Promise<void> {
    await write((database) =>
      database.batch([
        database
          .insert(shows)
          .values({ id: show.id, studioId, revision: 0, ...shelfFacts(show), createdAt: now(), changedAt: now() }),
        database.insert(documents).values({ showId: show.id, revision: 0, document: show }),
      ]),
    );
  }

  async function applyRight(
    database: Database,
    id: ShowId,
    sent: readonly SentEdit[],
    wrong: AppliedEdits['refused'],
    knownRevision: number,
    basedOn: number,
  ): Promise<AppliedEdits | { readonly problem: string } | null> {
    const before = await fetch(database, id);
    if (!before) return null;
    if (before.damage !== null) return { problem: before.damage };
    const unseen = await editsSince(database, id, Math.min(basedOn, knownRevision), before);
    const known = await knownAmong(database, id, sent);
    const ids = new Set(sent.map((entry) => entry.editId));
    const theirs = unseen.filter((row) => !ids.has(row.editId)).map((row) => row.edit);
    const fresh = sent.filter((entry) => !known.has(entry.editId));
    const ours = fresh.map((entry) => entry.edit);
    const collided = theirs.length > 0 && ours.length > 0 && collide(ours, theirs);
    if (collided) await keepBeforeCollision(database, before.show, now());
    let { show, revision } = before;
    const refused = [...wrong];
    const accepted: (SentEdit & { readonly revision: number })[] = [];
    for (const { editId, edit } of fresh) {
      if (known.has(editId)) continue;
      const result = applyEdit(show, edit);
      if (!result.ok) {
        refused.push({ editId, reason: result.reason, sentence: result.sentence });
        continue;
      }
      known.add(editId);
      show = result.show;
      revision += 1;
      accepted.push({ revision, editId, edit });
    }
    if (accepted.length > 0) {
      const documentDue = revision - before.documentRevision >= EDITS_BETWEEN_DOCUMENTS;
      await database.transaction(async (transaction) => {
        for (const row of accepted)
          await transaction.insert(edits).values({ ...row, showId: id, formatVersion: FORMAT_VERSION, at: now() });
        await transaction
          .update(shows)
          .set({ revision, ...shelfFacts(show), changedAt: now() })
          .where(eq(shows.id, id));
        if (documentDue)
          await transaction.update(documents).set({ revision, document: show }).where(eq(documents.showId, id));
      });
      remember(id, {
        show,
        revision,
        documentRevision: documentDue ? revision : before.documentRevision,
        damage: null,
      });
      events.tell(id, { kind: 'edits', revision });
    }
    const since = [...unseen.filter((row) => row.revision > knownRevision), ...accepted].map(({ editId, edit }) => ({
      editId,
      edit,
    }));
    return { revision, since, refused, collided };
  }

  async function editsSince(
    database: Database,
    id: ShowId,
    revision: number,
    now: Loaded,
  ): Promise<(SentEdit & { readonly revision: number })[]> {
    if (revision >= now.revision) return [];
    const rows = await database
      .select()
      .from(edits)
      .where(and(eq(edits.showId, id), gt(edits.revision, revision)))
      .orderBy(asc(edits.revision));
    return rows.map((row) => ({
      revision: row.revision,
      editId: row.editId,
      edit: raiseEdit(row.edit, row.formatVersion, now.show),
    }));
  }

  async function knownAmong(database: Database, id: ShowId, sent: readonly SentEdit[]): Promise<Set<string>> {
    if (sent.length === 0) return new Set();
    const ids = sent.map((entry) => entry.editId);
    const rows = await database
      .select({ editId: edits.editId })
      .from(edits)
      .where(and(eq(edits.showId, id), inArray(edits.editId, ids)));
    return new Set(rows.map((row) => row.editId));
  }

  function remember(id: ShowId, show: Loaded): void {
    loaded.delete(id);
    loaded.set(id, show);
    if (loaded.size > MOST_LOADED) loaded.delete(loaded.keys().next().value!);
  }

  async function fetch(database: Database, id: ShowId): Promise<Loaded | null> {
    const [row] = await database
      .select({ revision: shows.revision, title: shows.title })
      .from(shows)
      .where(and(eq(shows.id, id), isNull(shows.removedAt)));
    if (!row) return null;
    const kept = loaded.get(id);
    if (kept?.revision === row.revision) return kept;
    const fresh = await open(database, id, row);
    remember(id, fresh);
    return fresh;
  }

  async function open(
    database: Database,
    id: ShowId,
    row: { readonly revision: number; readonly title: string },
  ): Promise<Loaded> {
    const [whole] = await database.select().from(documents).where(eq(documents.showId, id));
    const documentRevision = whole?.revision ?? 0;
    const opened = parseStoredShow(whole?.document);
    if (!opened.ok) {
      logger().error({ show: id, problem: opened.problem }, 'a stored show is damaged');
      const kept = await lastKept(database, id);
      const show = kept ? { ...emptyShow(id, row.title), ...kept.content } : emptyShow(id, row.title);
      const how = kept ? `It is shown as the version “${kept.name}” kept it` : 'Nothing of it could be read';
      return { show, revision: row.revision, documentRevision, damage: damageSentence(opened.problem, how) };
    }
    let show = opened.value;
    const later = await database
      .select()
      .from(edits)
      .where(and(eq(edits.showId, id), gt(edits.revision, documentRevision), sql`${edits.revision} <= ${row.revision}`))
      .orderBy(asc(edits.revision));
    for (const { edit, revision, formatVersion } of later) {
      const result = appliedAgain(show, edit, formatVersion);
      if (!result.ok) {
        logger().error({ show: id, edit: revision, problem: result.sentence }, 'a stored edit no longer applies');
        const how = `It is shown as it was before its change number ${revision} of ${row.revision}`;
        return { show, revision: row.revision, documentRevision, damage: damageSentence(result.sentence, how) };
      }
      show = result.show;
    }
    return { show, revision: row.revision, documentRevision, damage: null };
  }
}

/** Shows kept open in memory; one takes up to some ten megabytes. */
const MOST_LOADED = 40;

/** What was accepted once and cannot be done any more, or cannot even be read, is damage, not a fault of the server. */
function appliedAgain(show: Show, edit: unknown, formatVersion: number): EditResult {
  try {
    return applyEdit(show, raiseEdit(edit, formatVersion, show));
  } catch (error) {
    return { ok: false, reason: 'unsound', sentence: error instanceof Error ? error.message : String(error) };
  }
}

/** What the files on each show’s sheet, and its films, take. A file that two shows have is counted for both: it takes that much as long as either has it. */
async function bytesUsed(db: Database): Promise<{ show: string; bytes: number }[]> {
  const files = await db
    .select({ show: sheetEntries.showId, bytes: sql<number>`coalesce(sum(${sheetEntries.byteCount}), 0)` })
    .from(sheetEntries)
    .groupBy(sheetEntries.showId);
  const made = await db
    .select({ show: films.showId, bytes: sql<number>`coalesce(sum(${films.byteCount}), 0)` })
    .from(films)
    .groupBy(films.showId);
  return [...files, ...made];
}

/** One too long for the word is ended with an ellipsis, so that it is seen to go on. */
function titleOfCopy(title: string): string {
  const added = ', copy';
  const room = LONGEST_SHOW_TITLE - added.length;
  return `${title.length > room ? `${title.slice(0, room - 1)}…` : title}${added}`;
}

function damageSentence(problem: string, how: string): string {
  return `What is stored of this show is damaged (${problem.replace(/\.$/, '')}). ${how}, and cannot be changed; a copy of it can.`;
}

function shelfFacts(
  show: Show,
): Pick<ShelfEntry, 'title' | 'slideCount' | 'lengthMs' | 'posterAssetId' | 'posterAtMs'> {
  const poster = show.slides.map(mainLayerOf).find((layer) => layer !== null);
  return {
    title: show.title,
    slideCount: show.slides.length,
    lengthMs: showLengthMs(show),
    posterAssetId: poster?.assetId ?? null,
    posterAtMs: (poster && show.posters?.[poster.assetId]) ?? null,
  };
}
