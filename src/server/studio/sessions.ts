import { and, desc, eq, gt, lt, ne } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import type { Role } from '../../core/studio/account';
import type { Scope } from '../../core/studio/api-token';
import type { Database, OpenDatabase } from '../database/open-database';
import { accounts, sessions } from '../database/schema';
import { logger } from '../logger';
import { hashOfWord, newWord } from './secret-word';

/** How long a browser stays signed in that does not come back. */
export const SESSION_MS = 30 * 24 * 3_600_000;
const SEEN_EVERY_MS = 3_600_000;

/** The cookie that holds a session’s word. */
export const SESSION_COOKIE = 'tanager-session';

/** Somebody who is signed in. */
export interface Person {
  readonly kind: 'person';
  readonly accountId: string;
  readonly sessionId: string;
  readonly name: string;
  readonly studioId: string;
  readonly role: Role;
  /** Asked for by a token, which may be used for these alone; a browser’s session for all. */
  readonly scopes?: readonly Scope[];
}

export interface SessionRow {
  readonly id: string;
  readonly browser: string;
  readonly createdAt: number;
  readonly seenAt: number;
  /** The one that asks. */
  readonly here: boolean;
}

export interface Sessions {
  /** Signs a browser in. @returns the word for it to keep */
  open(accountId: string, userAgent: string): Promise<string>;
  /** Who holds a word; null when it is none, or no longer. */
  of(word: string): Promise<Person | null>;
  list(person: Person): Promise<SessionRow[]>;
  end(accountId: string, id: string): Promise<boolean>;
  /** Ends all of somebody’s sessions. @param but stays; null: none does */
  endAll(accountId: string, but: string | null): Promise<void>;
}

export function createSessions({ db, write }: OpenDatabase, now: () => number = Date.now): Sessions {
  return {
    async open(accountId, userAgent) {
      const word = newWord();
      const row = { hash: hashOfWord(word), id: nanoid(12), accountId, browser: browserOf(userAgent) };
      await write(async (one) => {
        await one.delete(sessions).where(lt(sessions.until, now()));
        await one.insert(sessions).values({ ...row, createdAt: now(), seenAt: now(), until: now() + SESSION_MS });
      });
      return word;
    },
    async of(word) {
      const found = await held(db, word, now());
      if (!found) return null;
      const { seenAt, ...person } = found;
      // Written now and then only: every picture of a show asks who asks.
      if (now() - seenAt > SEEN_EVERY_MS)
        await write(
          (one) =>
            one
              .update(sessions)
              .set({ seenAt: now(), until: now() + SESSION_MS })
              .where(eq(sessions.id, person.sessionId)),
          // On a full disk people go on being who they are.
        ).catch((error: unknown) => logger().warn({ err: error }, 'it could not be written when a session was seen'));
      return person;
    },
    async list({ accountId, sessionId }) {
      const rows = await db
        .select()
        .from(sessions)
        .where(and(eq(sessions.accountId, accountId), gt(sessions.until, now())))
        .orderBy(desc(sessions.seenAt));
      return rows.map(({ id, browser, createdAt, seenAt }) => ({
        id,
        browser,
        createdAt,
        seenAt,
        here: id === sessionId,
      }));
    },
    async end(accountId, id) {
      const done = await write((one) =>
        one.delete(sessions).where(and(eq(sessions.accountId, accountId), eq(sessions.id, id))),
      );
      return done.rowsAffected > 0;
    },
    async endAll(accountId, but) {
      const all = eq(sessions.accountId, accountId);
      await write((one) => one.delete(sessions).where(but === null ? all : and(all, ne(sessions.id, but))));
    },
  };
}

async function held(db: Database, word: string, now: number): Promise<(Person & { seenAt: number }) | null> {
  const [found] = await db
    .select({
      accountId: accounts.id,
      sessionId: sessions.id,
      name: accounts.name,
      studioId: accounts.studioId,
      role: accounts.role,
      seenAt: sessions.seenAt,
    })
    .from(sessions)
    .innerJoin(accounts, eq(accounts.id, sessions.accountId))
    .where(and(eq(sessions.hash, hashOfWord(word)), gt(sessions.until, now)));
  return found ? { kind: 'person', ...found } : null;
}

const BROWSERS = [
  ['Edg/', 'Edge'],
  ['Firefox/', 'Firefox'],
  ['Chrome/', 'Chrome'],
  ['Safari/', 'Safari'],
] as const;
const SYSTEMS = [
  ['Android', 'Android'],
  ['iPhone', 'iPhone'],
  ['iPad', 'iPad'],
  ['Windows', 'Windows'],
  ['Mac OS X', 'macOS'],
  ['Linux', 'Linux'],
] as const;

/** “Firefox on Linux”: enough to know one’s own again, and no more is kept. */
export function browserOf(userAgent: string): string {
  const known = (names: readonly (readonly [string, string])[]) =>
    names.find(([mark]) => userAgent.includes(mark))?.[1];
  const [browser, system] = [known(BROWSERS), known(SYSTEMS)];
  return [browser ?? 'A program', system].filter(Boolean).join(' on ');
}
