import { and, asc, desc, eq, gt, inArray, isNull, sql } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import { applyEdit, type EditRefusal, type ShowEdit } from '../../core/show/edit';
import { collide } from '../../core/show/touched';
import { keepBeforeCollision } from './versions';
import { showId, type ShowId } from '../../core/show/ids';
import { emptyShow, mainLayerOf, type Show } from '../../core/show/show';
import { showLengthMs } from '../../core/timing/slide-span';
import type { Database, OpenDatabase } from '../database/open-database';
import { documents, edits, films, shows } from '../database/schema';
import { parse } from '../schema/parse';
import { showSchema } from '../schema/show-schema';
import type { Events } from '../events';

export interface ShelfEntry {
  readonly id: ShowId;
  readonly title: string;
  readonly slideCount: number;
  readonly lengthMs: number;
  readonly posterAssetId: string | null;
  readonly changedAt: number;
  readonly createdAt: number;
  readonly place: 'shelf' | 'archive' | 'removed';
  /** Its latest film. */
  readonly film: 'none' | 'making' | 'ready';
}

export interface SentEdit {
  readonly editId: string;
  readonly edit: ShowEdit;
}

export interface AppliedEdits {
  /** The show's revision after these edits. */
  readonly revision: number;
  /** Every edit since the revision the browser knew, in order; its own are among them. */
  readonly since: readonly SentEdit[];
  readonly refused: readonly { readonly editId: string; readonly reason: EditRefusal }[];
  /** These edits wrote where another window had written meanwhile; what that window had made is kept. */
  readonly collided: boolean;
}

export interface ShowService {
  create(title: string): Promise<Show>;
  /** Puts a whole show on the shelf, as the demo does. */
  put(show: Show): Promise<void>;
  /** Every show, archived and removed ones too, last changed first. */
  shelf(): Promise<ShelfEntry[]>;
  /** The same show again; its contact sheet is another's business. Null when there is no such show. */
  duplicate(id: ShowId): Promise<Show | null>;
  setArchived(id: ShowId, archived: boolean): Promise<boolean>;
  rename(id: ShowId, title: string): Promise<boolean>;
  load(id: ShowId): Promise<{ show: Show; revision: number } | null>;
  /**
   * Applies edits in order and keeps each. An edit whose id is known was applied before and is passed over. Null when there is no such show.
   *
   * @param basedOn the revision they were made on, when that is older than the one the window knows by now: a closed page's unsent work
   */
  applyEdits(
    id: ShowId,
    sent: readonly SentEdit[],
    knownRevision: number,
    basedOn?: number,
  ): Promise<AppliedEdits | null>;
  setRemoved(id: ShowId, removed: boolean): Promise<boolean>;
}

/** The document is written whole only this often; what came since is in `edits` and is replayed when the show is loaded. */
const EDITS_BETWEEN_DOCUMENTS = 50;

/** A show's row holds something that is not a show. */
export class DamagedShowError extends Error {
  override readonly name = 'DamagedShowError';
}

interface Loaded {
  readonly show: Show;
  readonly revision: number;
  readonly documentRevision: number;
}

export function createShowService(
  { db, write }: OpenDatabase,
  events: Events,
  now: () => number = Date.now,
): ShowService {
  const loaded = new Map<ShowId, Loaded>();

  const service: ShowService = {
    async create(title) {
      const show = emptyShow(showId(nanoid(12)), title);
      await insert(show);
      return show;
    },
    put: insert,
    async shelf() {
      const rows = await db
        .select({
          id: shows.id,
          title: shows.title,
          slideCount: shows.slideCount,
          lengthMs: shows.lengthMs,
          posterAssetId: shows.posterAssetId,
          changedAt: shows.changedAt,
          createdAt: shows.createdAt,
          removedAt: shows.removedAt,
          archivedAt: shows.archivedAt,
        })
        .from(shows)
        .orderBy(desc(shows.changedAt));
      const made = await db
        .select({ showId: films.showId, state: films.state })
        .from(films)
        .where(inArray(films.state, ['waiting', 'making', 'ready']))
        .orderBy(asc(films.orderedAt));
      const latest = new Map(
        made.map((film) => [film.showId, film.state === 'ready' ? ('ready' as const) : ('making' as const)]),
      );
      return rows.map(({ id, removedAt, archivedAt, ...row }) => ({
        ...row,
        id: showId(id),
        place:
          removedAt !== null ? ('removed' as const) : archivedAt !== null ? ('archive' as const) : ('shelf' as const),
        film: latest.get(id) ?? ('none' as const),
      }));
    },
    async load(id) {
      const found = await fetch(db, id);
      return found && { show: found.show, revision: found.revision };
    },
    async duplicate(id) {
      const found = await fetch(db, id);
      if (!found) return null;
      const copy: Show = { ...found.show, id: showId(nanoid(12)), title: `${found.show.title.slice(0, 290)}, copy` };
      await insert(copy);
      return copy;
    },
    applyEdits: (id, sent, knownRevision, basedOn = knownRevision) =>
      write(async (database) => {
        const before = await fetch(database, id);
        if (!before) return null;
        const ids = new Set(sent.map((entry) => entry.editId));
        const unseenSince = Math.min(basedOn, knownRevision);
        const unseen =
          unseenSince < before.revision
            ? await database
                .select()
                .from(edits)
                .where(and(eq(edits.showId, id), gt(edits.revision, unseenSince)))
                .orderBy(asc(edits.revision))
            : [];
        const known = new Set(
          sent.length === 0
            ? []
            : (
                await database
                  .select({ editId: edits.editId })
                  .from(edits)
                  .where(and(eq(edits.showId, id), inArray(edits.editId, [...ids])))
              ).map((row) => row.editId),
        );
        const theirs = unseen.filter((row) => !ids.has(row.editId)).map((row) => row.edit);
        const fresh = sent.filter((entry) => !known.has(entry.editId));
        const collided =
          theirs.length > 0 &&
          fresh.length > 0 &&
          collide(
            fresh.map((entry) => entry.edit),
            theirs,
            before.show,
          );
        if (collided) await keepBeforeCollision(database, before.show, now());
        let { show, revision } = before;
        const refused: { editId: string; reason: EditRefusal }[] = [];
        const accepted: (typeof edits.$inferInsert)[] = [];
        for (const { editId, edit } of fresh) {
          if (known.has(editId)) continue;
          const result = applyEdit(show, edit);
          if (!result.ok) {
            refused.push({ editId, reason: result.reason });
            continue;
          }
          known.add(editId);
          show = result.show;
          revision += 1;
          accepted.push({ showId: id, revision, editId, edit, at: now() });
        }
        if (accepted.length > 0) {
          const documentDue = revision - before.documentRevision >= EDITS_BETWEEN_DOCUMENTS;
          await database.transaction(async (transaction) => {
            for (const row of accepted) await transaction.insert(edits).values(row);
            await transaction
              .update(shows)
              .set({ revision, ...shelfFacts(show), changedAt: now() })
              .where(eq(shows.id, id));
            if (documentDue)
              await transaction.update(documents).set({ revision, document: show }).where(eq(documents.showId, id));
          });
          loaded.set(id, { show, revision, documentRevision: documentDue ? revision : before.documentRevision });
          events.tell(id, { kind: 'edits', revision });
        }
        const since = [...unseen.filter((row) => row.revision > knownRevision), ...accepted].map((row) => ({
          editId: row.editId,
          edit: row.edit,
        }));
        return { revision, since, refused, collided };
      }),
    async rename(id, title) {
      const found = await fetch(db, id);
      if (!found) return false;
      await service.applyEdits(id, [{ editId: nanoid(16), edit: { kind: 'rename-show', title } }], found.revision);
      return true;
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

  async function insert(show: Show): Promise<void> {
    await write((database) =>
      database.batch([
        database
          .insert(shows)
          .values({ id: show.id, revision: 0, ...shelfFacts(show), createdAt: now(), changedAt: now() }),
        database.insert(documents).values({ showId: show.id, revision: 0, document: show }),
      ]),
    );
  }

  async function fetch(database: Database, id: ShowId): Promise<Loaded | null> {
    const [row] = await database
      .select({ revision: shows.revision })
      .from(shows)
      .where(and(eq(shows.id, id), isNull(shows.removedAt)));
    if (!row) return null;
    const kept = loaded.get(id);
    if (kept?.revision === row.revision) return kept;
    const [whole] = await database.select().from(documents).where(eq(documents.showId, id));
    const parsed = parse(showSchema(), whole?.document);
    if (!parsed.ok) throw new DamagedShowError(`The show ${id} is damaged: ${parsed.problem}`);
    let show = parsed.value;
    const later = await database
      .select()
      .from(edits)
      .where(and(eq(edits.showId, id), gt(edits.revision, whole!.revision), sql`${edits.revision} <= ${row.revision}`))
      .orderBy(asc(edits.revision));
    for (const { edit, revision } of later) {
      const result = applyEdit(show, edit);
      if (!result.ok)
        throw new DamagedShowError(`Edit ${revision} of the show ${id} no longer applies: ${result.reason}`);
      show = result.show;
    }
    const fresh = { show, revision: row.revision, documentRevision: whole!.revision };
    loaded.set(id, fresh);
    return fresh;
  }
}

function shelfFacts(show: Show): { title: string; slideCount: number; lengthMs: number; posterAssetId: string | null } {
  const poster = show.slides.map(mainLayerOf).find((layer) => layer !== null);
  return {
    title: show.title,
    slideCount: show.slides.length,
    lengthMs: showLengthMs(show),
    posterAssetId: poster?.assetId ?? null,
  };
}
