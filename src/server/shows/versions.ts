import { and, desc, eq, gt, isNull } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import type { ShowId } from '../../core/show/ids';
import { contentOf, type Show, type ShowContent } from '../../core/show/show';
import { showLengthMs } from '../../core/timing/slide-span';
import type { Database, OpenDatabase } from '../database/open-database';
import { versions } from '../database/schema';
import { FORMAT_VERSION } from '../../core/show/format/version';
import { Refusal } from '../http/refusal';
import { parseStoredContent } from '../schema/show-schema';

/** A version in the list of a show's versions. */
export interface VersionEntry {
  readonly id: string;
  readonly name: string;
  readonly why: 'kept' | 'safety';
  readonly slideCount: number;
  readonly lengthMs: number;
  readonly createdAt: number;
}

export interface VersionService {
  /** Newest first. */
  list(show: ShowId): Promise<VersionEntry[]>;
  keep(show: Show, name: string, why: VersionEntry['why']): Promise<VersionEntry>;
  load(show: ShowId, id: string): Promise<(VersionEntry & { readonly content: ShowContent }) | null>;
  rename(show: ShowId, id: string, name: string): Promise<boolean>;
  setRemoved(show: ShowId, id: string, removed: boolean): Promise<boolean>;
}

/** What is stored of a version cannot be read any more. */
class DamagedVersionError extends Refusal {
  constructor(message: string) {
    super(409, message);
  }
}

/** Two collisions closer together than this are one quarrel; its beginning is kept. */
const QUARREL_MS = 10_000;

export function createVersionService({ db, write }: OpenDatabase, now: () => number = Date.now): VersionService {
  const entry = {
    id: versions.id,
    name: versions.name,
    why: versions.why,
    slideCount: versions.slideCount,
    lengthMs: versions.lengthMs,
    createdAt: versions.createdAt,
  };
  const one = (show: ShowId, id: string) => and(eq(versions.showId, show), eq(versions.id, id));
  return {
    list: (show) =>
      db
        .select(entry)
        .from(versions)
        .where(and(eq(versions.showId, show), isNull(versions.removedAt)))
        .orderBy(desc(versions.createdAt)),
    keep: (show, name, why) => write((database) => keepVersion(database, show, name, why, now())),
    async load(show, id) {
      const [row] = await db
        .select({ ...entry, content: versions.content, formatVersion: versions.formatVersion })
        .from(versions)
        .where(one(show, id));
      if (!row) return null;
      return {
        id: row.id,
        name: row.name,
        why: row.why,
        slideCount: row.slideCount,
        lengthMs: row.lengthMs,
        createdAt: row.createdAt,
        content: contentIn(row),
      };
    },
    async rename(show, id, name) {
      return (
        (await write((database) => database.update(versions).set({ name, why: 'kept' }).where(one(show, id))))
          .rowsAffected > 0
      );
    },
    async setRemoved(show, id, removed) {
      return (
        (
          await write((database) =>
            database
              .update(versions)
              .set({ removedAt: removed ? now() : null })
              .where(one(show, id)),
          )
        ).rowsAffected > 0
      );
    },
  };
}

/** @throws {DamagedVersionError} */
function contentIn(row: {
  readonly id: string;
  readonly content: unknown;
  readonly formatVersion: number;
}): ShowContent {
  const parsed = parseStoredContent(row.content, row.formatVersion);
  if (!parsed.ok) throw new DamagedVersionError(`The version ${row.id} is damaged: ${parsed.problem}`);
  return parsed.value;
}

/** The latest version of a show that can still be read; null when there is none. */
export async function lastKept(
  database: Database,
  show: ShowId,
): Promise<{ readonly name: string; readonly content: ShowContent } | null> {
  const rows = await database
    .select()
    .from(versions)
    .where(eq(versions.showId, show))
    .orderBy(desc(versions.createdAt));
  for (const row of rows) {
    try {
      return { name: row.name, content: contentIn(row) };
    } catch (error) {
      if (!(error instanceof DamagedVersionError)) throw error;
    }
  }
  return null;
}

/** Within a write that is under way. */
export async function keepVersion(
  database: Pick<Database, 'insert'>,
  show: Show,
  name: string,
  why: VersionEntry['why'],
  at: number,
): Promise<VersionEntry> {
  const entry = {
    id: nanoid(12),
    name,
    why,
    slideCount: show.slides.length,
    lengthMs: showLengthMs(show),
    createdAt: at,
  };
  await database
    .insert(versions)
    .values({ ...entry, showId: show.id, content: contentOf(show), formatVersion: FORMAT_VERSION });
  return entry;
}

/** Keeps the show as another window left it before edits that overwrite its work. @returns the version's name, or null when one was kept a moment ago */
export async function keepBeforeCollision(database: Database, show: Show, at: number): Promise<string | null> {
  const recent = await database
    .select({ id: versions.id })
    .from(versions)
    .where(and(eq(versions.showId, show.id), eq(versions.why, 'safety'), gt(versions.createdAt, at - QUARREL_MS)))
    .limit(1);
  if (recent.length > 0) return null;
  return (await keepVersion(database, show, 'As the other window left it', 'safety', at)).name;
}
