import { hash, verify } from '@node-rs/argon2';
import { and, asc, eq, gt, inArray, lt, ne, or } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import PQueue from 'p-queue';
import { plainEmail, type AccountChange, type NewAccount, type Role, type SignIn } from '../../core/studio/account';
import type { ShowId } from '../../core/show/ids';
import type { OpenDatabase } from '../database/open-database';
import { accounts, channelAsks, entries, passkeys, sessions, showGuests, shows, tokens } from '../database/schema';
import { Refusal } from '../http/refusal';
import { hashOfWord, newWord } from './secret-word';

/** How long a one-time link waits. */
export const ENTRY_MS = 24 * 3_600_000;

/** Checking a password is meant to be slow: one at a time, so that guessers wait for each other and nobody else does. */
const checking = new PQueue({ concurrency: 1 });

/** Somebody of a studio, as the others see them. */
export interface PersonRow {
  readonly id: string;
  readonly name: string;
  readonly email: string | null;
  readonly role: Role;
  readonly createdAt: number;
  /** When any of their browsers was last seen (to the hour); null: they are signed in nowhere. */
  readonly seenAt: number | null;
  /** Shows they are let into as guests. */
  readonly shows: readonly { readonly id: string; readonly title: string }[];
}

/** Somebody, as they see themselves. */
export interface OwnAccount {
  readonly id: string;
  readonly name: string;
  readonly email: string | null;
  readonly role: Role;
  readonly hasPassword: boolean;
  readonly passkeys: readonly { readonly id: string; readonly name: string; readonly createdAt: number }[];
}

export interface Accounts {
  /** A studio’s first owner, who is made when nobody is there yet. */
  owner(studioId: string): Promise<string>;
  /** Whether somebody has any lasting way to sign in. */
  canComeBack(accountId: string): Promise<boolean>;
  /** @returns null when address or password are others */
  signIn(said: SignIn): Promise<{ readonly accountId: string } | null>;
  /** Whose address it is; null: nobody’s. */
  byEmail(email: string): Promise<{ readonly id: string; readonly studioId: string; readonly name: string } | null>;
  /** Makes a link’s word that signs somebody in once, within a day. @param word to be used for it; made when none is given */
  entryFor(accountId: string, word?: string): Promise<string>;
  /** @returns null when there is no such word, or it was used, or it is over */
  enter(word: string): Promise<{ readonly accountId: string } | null>;
  own(accountId: string): Promise<OwnAccount>;
  /** Null: they sign in by links only. */
  emailOf(accountId: string): Promise<string | null>;
  /** @throws {Refusal} 403 when the password before is another one, 409 when the address is somebody else’s */
  change(accountId: string, change: AccountChange): Promise<void>;
  /** @throws {Refusal} 409 when the address is somebody’s already */
  create(of: { readonly studioId: string; readonly role: Role }, said: NewAccount): Promise<string>;
  letInto(accountId: string, show: ShowId): Promise<void>;
  isOf(studioId: string, accountId: string): Promise<boolean>;
  people(studioId: string): Promise<PersonRow[]>;
  /** @throws {Refusal} 409 when nobody would be left who owns the studio */
  setRole(studioId: string, accountId: string, role: 'owner' | 'member'): Promise<boolean>;
  /** Takes somebody out of a studio, with all that signs them in. @throws {Refusal} 409 as above */
  remove(studioId: string, accountId: string): Promise<string | null>;
}

const TAKEN = 'This address belongs to somebody already. Sign in with it, or use another one.';
const LAST_OWNER = 'A studio needs an owner. Make somebody else one first.';

export function createAccounts(database: OpenDatabase, now: () => number = Date.now): Accounts {
  const { db, write } = database;
  // Looked up in vain takes as long as in earnest, so that nobody learns who has an account.
  const nobodys = hash(newWord());

  const service: Accounts = {
    async owner(studioId) {
      const owners = and(eq(accounts.studioId, studioId), eq(accounts.role, 'owner'));
      return write(async (one) => {
        const [first] = await one.select({ id: accounts.id }).from(accounts).where(owners).orderBy(accounts.createdAt);
        if (first) return first.id;
        const id = nanoid(12);
        await one.insert(accounts).values({ id, studioId, role: 'owner', name: 'Owner', createdAt: now() });
        return id;
      });
    },
    async canComeBack(accountId) {
      const own = await service.own(accountId);
      const [session] = await db
        .select({ id: sessions.id })
        .from(sessions)
        .where(and(eq(sessions.accountId, accountId), gt(sessions.until, now())))
        .limit(1);
      return own.hasPassword || own.passkeys.length > 0 || session !== undefined;
    },
    async signIn({ email, password }) {
      const [account] = await db
        .select({ id: accounts.id, passwordHash: accounts.passwordHash })
        .from(accounts)
        .where(eq(accounts.email, plainEmail(email)));
      const kept = account?.passwordHash ?? (await nobodys);
      const right = await checking.add(() => verify(kept, password));
      return right && account?.passwordHash ? { accountId: account.id } : null;
    },
    async byEmail(email) {
      const [found] = await db
        .select({ id: accounts.id, studioId: accounts.studioId, name: accounts.name })
        .from(accounts)
        .where(eq(accounts.email, plainEmail(email)));
      return found ?? null;
    },
    async entryFor(accountId, word = newWord()) {
      await write(async (one) => {
        await one.delete(entries).where(lt(entries.until, now()));
        await one
          .insert(entries)
          .values({ hash: hashOfWord(word), accountId, until: now() + ENTRY_MS })
          .onConflictDoNothing();
      });
      return word;
    },
    async enter(word) {
      const mine = and(eq(entries.hash, hashOfWord(word)), gt(entries.until, now()));
      const [taken] = await write((one) => one.delete(entries).where(mine).returning());
      return taken ? { accountId: taken.accountId } : null;
    },
    async emailOf(accountId) {
      const [account] = await db.select({ email: accounts.email }).from(accounts).where(eq(accounts.id, accountId));
      return account?.email ?? null;
    },
    async own(accountId) {
      const [account] = await db.select().from(accounts).where(eq(accounts.id, accountId));
      if (!account) throw new Refusal(401, 'Sign in first.');
      const { id, name, email, role, passwordHash } = account;
      const keys = await db
        .select({ id: passkeys.id, name: passkeys.name, createdAt: passkeys.createdAt })
        .from(passkeys)
        .where(eq(passkeys.accountId, accountId))
        .orderBy(asc(passkeys.createdAt));
      return { id, name, email, role, hasPassword: passwordHash !== null, passkeys: keys };
    },
    async change(accountId, { name, email, password, oldPassword }) {
      const [account] = await db.select().from(accounts).where(eq(accounts.id, accountId));
      if (!account) throw new Refusal(401, 'Sign in first.');
      const { passwordHash } = account;
      // Who sits down at an open browser shall not be able to take the account over.
      const guarded = password !== undefined || (email !== undefined && plainEmail(email) !== account.email);
      if (guarded && passwordHash !== null) {
        const right = oldPassword ? await checking.add(() => verify(passwordHash, oldPassword)) : false;
        if (!right) throw new Refusal(403, 'That is not the password you have now.');
      }
      if (password !== undefined && email === undefined && account.email === null)
        throw new Refusal(422, 'A password needs an e-mail address to sign in with.');
      const values = {
        ...(name !== undefined && { name: name.trim() }),
        ...(email !== undefined && { email: plainEmail(email) }),
        ...(password !== undefined && { passwordHash: await hash(password) }),
      };
      if (Object.keys(values).length === 0) return;
      await write(async (one) => {
        if (email !== undefined) await assertFree(one, email, accountId);
        await one.update(accounts).set(values).where(eq(accounts.id, accountId));
      });
    },
    async create({ studioId, role }, { name, email, password }) {
      const passwordHash = await hash(password);
      const id = nanoid(12);
      await write(async (one) => {
        await assertFree(one, email, id);
        const row = { id, studioId, role, name: name.trim(), email: plainEmail(email), passwordHash };
        await one.insert(accounts).values({ ...row, createdAt: now() });
      });
      return id;
    },
    async letInto(accountId, showId) {
      await write((one) => one.insert(showGuests).values({ accountId, showId }).onConflictDoNothing());
    },
    async isOf(studioId, accountId) {
      const who = and(eq(accounts.id, accountId), eq(accounts.studioId, studioId));
      return (await db.select({ id: accounts.id }).from(accounts).where(who)).length > 0;
    },
    async people(studioId) {
      // Guests may belong to another studio; they are told by whose show they are let into.
      const visits = await db
        .select({ accountId: showGuests.accountId, id: shows.id, title: shows.title })
        .from(showGuests)
        .innerJoin(shows, eq(shows.id, showGuests.showId))
        .where(eq(shows.studioId, studioId));
      const guests = visits.map(({ accountId }) => accountId);
      const theirs = or(eq(accounts.studioId, studioId), inArray(accounts.id, guests));
      const rows = await db.select().from(accounts).where(theirs).orderBy(asc(accounts.createdAt));
      const seen = await db
        .select({ accountId: sessions.accountId, seenAt: sessions.seenAt })
        .from(sessions)
        .innerJoin(accounts, eq(accounts.id, sessions.accountId))
        .where(and(theirs, gt(sessions.until, now())));
      return rows.map(({ id, name, email, createdAt, ...row }) => {
        const times = seen.filter(({ accountId }) => accountId === id).map(({ seenAt }) => seenAt);
        return {
          id,
          name,
          email,
          role: row.studioId === studioId ? row.role : 'guest',
          createdAt,
          seenAt: times.length > 0 ? Math.max(...times) : null,
          shows: visits.filter(({ accountId }) => accountId === id).map((show) => ({ id: show.id, title: show.title })),
        };
      });
    },
    setRole: (studioId, accountId, role) =>
      write(async (one) => {
        const who = and(eq(accounts.id, accountId), eq(accounts.studioId, studioId));
        if (role !== 'owner') await assertOwnerLeft(one, studioId, accountId);
        return (await one.update(accounts).set({ role }).where(who)).rowsAffected > 0;
      }),
    remove: (studioId, accountId) =>
      write(async (one) => {
        const [account] = await one.select().from(accounts).where(eq(accounts.id, accountId));
        if (account?.studioId !== studioId) {
          const left = await one.delete(showGuests).where(visitOf(one, studioId, accountId));
          return account && left.rowsAffected > 0 ? account.name : null;
        }
        await assertOwnerLeft(one, studioId, accountId);
        for (const table of [sessions, entries, passkeys, showGuests, channelAsks, tokens])
          await one.delete(table).where(eq(table.accountId, accountId));
        await one.delete(accounts).where(eq(accounts.id, accountId));
        return account.name;
      }),
  };
  return service;
}

/** Of somebody of another studio: what they are let into of this one. */
function visitOf(one: Writer, studioId: string, accountId: string) {
  const own = one.select({ id: shows.id }).from(shows).where(eq(shows.studioId, studioId));
  return and(eq(showGuests.accountId, accountId), inArray(showGuests.showId, own));
}

type Writer = Parameters<Parameters<OpenDatabase['write']>[0]>[0];

async function assertFree(one: Writer, email: string, but: string): Promise<void> {
  const [other] = await one
    .select({ id: accounts.id })
    .from(accounts)
    .where(and(eq(accounts.email, plainEmail(email)), ne(accounts.id, but)));
  if (other) throw new Refusal(409, TAKEN);
}

async function assertOwnerLeft(one: Writer, studioId: string, without: string): Promise<void> {
  const [other] = await one
    .select({ id: accounts.id })
    .from(accounts)
    .where(and(eq(accounts.studioId, studioId), eq(accounts.role, 'owner'), ne(accounts.id, without)));
  if (!other) throw new Refusal(409, LAST_OWNER);
}
