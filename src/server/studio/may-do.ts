import { and, eq, isNull } from 'drizzle-orm';
import type { AssetId, ShowId } from '../../core/show/ids';
import type { Database } from '../database/open-database';
import { films, sheetEntries, shows } from '../database/schema';
import { doorOf } from '../screenings/passes';

/** Whoever asks. There are no accounts yet: everybody who reaches the server works for its one studio, and whoever has a screening’s link is its guest. */
export type Actor = { readonly kind: 'member'; readonly studioId: string } | { readonly kind: 'guest' };

/** The studio that everything belongs to as long as there is one only. */
export const THE_STUDIO = 'studio';

/** What can be done, as routes, event streams and jobs name it. */
export type Deed =
  | 'see-shelf'
  | 'make-show'
  | 'clear-away'
  | 'see-studio'
  | 'change-studio'
  | 'see-show'
  | 'change-show'
  /** Also one that was taken off the shelf. */
  | 'bring-back-show'
  | 'see-file'
  | 'see-folders'
  | 'bring-files'
  | 'see-film'
  | 'change-film'
  /** Knock: whoever has a link sees whether anything is behind it, and may say the password. */
  | 'knock'
  | 'watch-screening'
  /** Ask what anybody may know of screenings that ask for no password. */
  | 'look-up-screening'
  | 'see-health';

/** What it is done to. Parts that a deed does not need are left out. */
export interface Subject {
  readonly show?: ShowId;
  readonly film?: string;
  readonly asset?: AssetId;
  /** The unguessable part of a screening’s link. */
  readonly token?: string;
  /** What the browser was given for a password. */
  readonly pass?: string | null;
}

/**
 * Whether somebody may do something: the one place that decides it. What is not theirs looks to them as if it were not there.
 *
 * @param db to look up whose a thing is
 */
export async function mayDo(db: Database, actor: Actor, deed: Deed, on: Subject): Promise<boolean> {
  switch (deed) {
    case 'see-health':
    case 'look-up-screening':
      return true;
    case 'knock':
      return on.token !== undefined;
    case 'watch-screening':
      return on.token !== undefined && (await doorOf(db, on.token, on.pass ?? null, Date.now())) === 'open';
    case 'see-shelf':
    case 'make-show':
    case 'clear-away':
    case 'see-studio':
    case 'change-studio':
    case 'see-folders':
    case 'bring-files':
      return actor.kind === 'member';
    case 'see-show':
    case 'change-show':
      return actor.kind === 'member' && on.show !== undefined && (await isShowOf(db, actor.studioId, on.show, false));
    case 'bring-back-show':
      return actor.kind === 'member' && on.show !== undefined && (await isShowOf(db, actor.studioId, on.show, true));
    case 'see-file':
      if (actor.kind !== 'member' || on.show === undefined || on.asset === undefined) return false;
      return isFileOf(db, actor.studioId, on.show, on.asset);
    case 'see-film':
    case 'change-film': {
      if (actor.kind !== 'member' || on.film === undefined) return false;
      const [film] = await db.select({ studioId: films.studioId }).from(films).where(eq(films.id, on.film));
      return film?.studioId === actor.studioId;
    }
  }
}

async function isShowOf(db: Database, studioId: string, show: ShowId, removedToo: boolean): Promise<boolean> {
  const own = and(eq(shows.id, show), eq(shows.studioId, studioId));
  const [found] = await db
    .select({ id: shows.id })
    .from(shows)
    .where(removedToo ? own : and(own, isNull(shows.removedAt)));
  return found !== undefined;
}

/** A file is seen by way of a show that has it on its contact sheet, never by its hash alone. */
async function isFileOf(db: Database, studioId: string, show: ShowId, asset: AssetId): Promise<boolean> {
  const [found] = await db
    .select({ id: sheetEntries.id })
    .from(sheetEntries)
    .innerJoin(shows, eq(shows.id, sheetEntries.showId))
    .where(and(eq(sheetEntries.showId, show), eq(sheetEntries.assetId, asset), eq(shows.studioId, studioId)));
  return found !== undefined;
}
