import { and, eq, isNull } from 'drizzle-orm';
import { isOpenAt } from '../../core/screening/screening-settings';
import type { AssetId, ShowId } from '../../core/show/ids';
import type { Database } from '../database/open-database';
import { films, proofs, sheetEntries, showGuests, shows } from '../database/schema';
import { doorOf } from '../screenings/passes';
import type { Scope } from '../../core/studio/api-token';
import type { Actor } from './actor';
import type { Person } from './sessions';

/** The studio that is there from the first start on. */
export const THE_STUDIO = 'studio';

/** What can be done, as routes, event streams and jobs name it. */
export type Deed =
  /** Say who one is, or follow an invitation. */
  | 'sign-in'
  | 'own-account'
  /** Tokens and addresses for programs: nothing for guests. */
  | 'own-tokens'
  | 'see-people'
  | 'change-people'
  | 'see-audit'
  | 'see-shelf'
  | 'make-show'
  | 'clear-away'
  | 'see-studio'
  | 'change-studio'
  | 'see-show'
  | 'change-show'
  /** Make films and screenings of it, read its guest book, take it off the shelf, make another one of it: nothing for guests. */
  | 'send-show'
  /** Also one that was taken off the shelf. */
  | 'bring-back-show'
  | 'see-file'
  /** The server’s own folders, which whoever set it up opened: to the first studio. */
  | 'see-folders'
  /** Take one of them into a show. */
  | 'bring-folder'
  | 'bring-files'
  | 'see-film'
  | 'change-film'
  /** Knock: whoever has a link sees whether anything is behind it, and may say the password. */
  | 'knock'
  | 'watch-screening'
  /** Look at a proof and mark it. */
  | 'mark-proof'
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

const FOR_ANYBODY = ['sign-in', 'knock', 'watch-screening', 'mark-proof', 'look-up-screening', 'see-health'] as const;
type PersonalDeed = Exclude<Deed, (typeof FOR_ANYBODY)[number]>;

/** Whether signing in changes nothing about a deed. */
export const isForAnybody = (deed: Deed): boolean => !isPersonal(deed);
const isPersonal = (deed: Deed): deed is PersonalDeed => !(FOR_ANYBODY as readonly Deed[]).includes(deed);

/**
 * Whether somebody may do something: the one place that decides it. What is not theirs looks to them as if it were not there.
 *
 * @param db to look up whose a thing is
 */
export async function mayDo(db: Database, actor: Actor, deed: Deed, on: Subject): Promise<boolean> {
  if (isPersonal(deed)) return actor.kind === 'person' && personMayDo(db, actor, deed, on);
  switch (deed) {
    case 'see-health':
    case 'sign-in':
    case 'look-up-screening':
      return true;
    case 'knock':
      return on.token !== undefined;
    case 'mark-proof':
      return on.token !== undefined && isProofOpen(db, on.token);
    case 'watch-screening':
      return on.token !== undefined && (await doorOf(db, on.token, on.pass ?? null, Date.now())) === 'open';
  }
}

/** What a token must be for; null: no token lets anybody do it. */
const SCOPE_FOR: Readonly<Record<PersonalDeed, Scope | null>> = {
  ...{
    'see-shelf': 'look',
    'see-studio': 'look',
    'see-show': 'look',
    'see-file': 'look',
    'see-film': 'look',
    'see-folders': 'look',
  },
  ...{
    'make-show': 'shows',
    'change-show': 'shows',
    'bring-back-show': 'shows',
    'bring-folder': 'shows',
    'bring-files': 'shows',
  },
  ...{ 'send-show': 'films', 'change-film': 'films' },
  ...{ 'change-studio': 'studio', 'clear-away': 'studio' },
  // Who somebody is, and who is in a studio, is for people to say.
  ...{ 'own-account': null, 'see-people': null, 'change-people': null, 'see-audit': null, 'own-tokens': null },
};

/** Which scope a token must have for something; null: no token is enough. */
export const scopeFor = (deed: Deed): Scope | null => (isPersonal(deed) ? SCOPE_FOR[deed] : null);

function isWithin(scopes: readonly Scope[], deed: PersonalDeed): boolean {
  const wanted = SCOPE_FOR[deed];
  return wanted === 'look' || (wanted !== null && scopes.includes(wanted));
}

async function personMayDo(db: Database, person: Person, deed: PersonalDeed, on: Subject): Promise<boolean> {
  if (person.scopes && !isWithin(person.scopes, deed)) return false;
  const isOfStudio = person.role !== 'guest';
  switch (deed) {
    case 'own-account':
    // A guest’s shelf holds what they are let into.
    case 'see-shelf':
    // Which show it is for is asked with each file.
    case 'bring-files':
      return true;
    case 'see-studio':
    case 'make-show':
    case 'clear-away':
    case 'change-studio':
    case 'see-people':
    case 'own-tokens':
      return isOfStudio;
    case 'see-folders':
      return isOfStudio && person.studioId === THE_STUDIO;
    case 'bring-folder':
      return (await personMayDo(db, person, 'see-folders', on)) && personMayDo(db, person, 'send-show', on);
    case 'change-people':
    case 'see-audit':
      return person.role === 'owner';
    case 'see-show':
    case 'change-show':
      return on.show !== undefined && isTheirs(db, person, on.show, false);
    case 'send-show':
      return isOfStudio && on.show !== undefined && (await isShowOf(db, person.studioId, on.show, false));
    case 'bring-back-show':
      return isOfStudio && on.show !== undefined && (await isShowOf(db, person.studioId, on.show, true));
    case 'see-file':
      if (on.show === undefined || on.asset === undefined) return false;
      // Shows that were taken off the shelf are still told by their picture there.
      return (await isOnSheetOf(db, on.show, on.asset)) && (await isTheirs(db, person, on.show, true));
    case 'see-film':
    case 'change-film': {
      if (!isOfStudio || on.film === undefined) return false;
      // A film is its show’s, and so its show’s studio’s.
      const [show] = await db
        .select({ studioId: shows.studioId })
        .from(films)
        .innerJoin(shows, eq(shows.id, films.showId))
        .where(eq(films.id, on.film));
      return show?.studioId === person.studioId;
    }
  }
}

/** Whether a show is one of somebody’s studio, or one they are a guest of. */
async function isTheirs(db: Database, person: Person, show: ShowId, removedToo: boolean): Promise<boolean> {
  if (person.role !== 'guest' && (await isShowOf(db, person.studioId, show, removedToo))) return true;
  const [found] = await db
    .select({ id: shows.id })
    .from(showGuests)
    .innerJoin(shows, eq(shows.id, showGuests.showId))
    .where(and(eq(showGuests.accountId, person.accountId), eq(showGuests.showId, show), isNull(shows.removedAt)));
  return found !== undefined;
}

/** Whether anybody may look at what is behind a proof’s link. */
async function isProofOpen(db: Database, token: string): Promise<boolean> {
  const [proof] = await db
    .select({ shut: proofs.shut, endsAt: proofs.endsAt })
    .from(proofs)
    .where(eq(proofs.token, token));
  return proof !== undefined && isOpenAt(proof, Date.now());
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
async function isOnSheetOf(db: Database, show: ShowId, asset: AssetId): Promise<boolean> {
  const [found] = await db
    .select({ id: sheetEntries.id })
    .from(sheetEntries)
    .where(and(eq(sheetEntries.showId, show), eq(sheetEntries.assetId, asset)))
    .limit(1);
  return found !== undefined;
}
