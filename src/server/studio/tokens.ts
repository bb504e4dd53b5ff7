import { and, desc, eq } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import type { NewToken, TokenRow } from '../../core/studio/api-token';
import type { OpenDatabase } from '../database/open-database';
import { accounts, tokens } from '../database/schema';
import { logger } from '../logger';
import { hashOfWord, newWord } from './secret-word';
import type { Person } from './sessions';

const DAY_MS = 24 * 3_600_000;
/** So that one that is found lying about is known for what it is. */
const BEGINS = 'tanager_';

/** Words by which programs ask for what a person may do, or part of it. */
export interface Tokens {
  /** @returns the word, which is told this once */
  make(accountId: string, wanted: NewToken): Promise<string>;
  list(accountId: string): Promise<TokenRow[]>;
  remove(accountId: string, id: string): Promise<boolean>;
  /** Whose word it is; null when it is none, or no longer. */
  of(word: string): Promise<Person | null>;
}

export function createTokens({ db, write }: OpenDatabase, now: () => number = Date.now): Tokens {
  return {
    async make(accountId, { name, scopes, days }) {
      const word = BEGINS + newWord();
      const row = {
        id: nanoid(12),
        hash: hashOfWord(word),
        accountId,
        name: name.trim(),
        scopes: [...new Set(scopes)],
      };
      const until = days === undefined ? null : now() + days * DAY_MS;
      await write((one) => one.insert(tokens).values({ ...row, until, createdAt: now() }));
      return word;
    },
    async list(accountId) {
      const rows = await db
        .select()
        .from(tokens)
        .where(eq(tokens.accountId, accountId))
        .orderBy(desc(tokens.createdAt));
      return rows.map(({ id, name, scopes, createdAt, usedAt, until }) => ({
        id,
        name,
        scopes,
        createdAt,
        usedAt,
        until,
      }));
    },
    async remove(accountId, id) {
      const own = and(eq(tokens.id, id), eq(tokens.accountId, accountId));
      return (await write((one) => one.delete(tokens).where(own))).rowsAffected > 0;
    },
    async of(word) {
      if (!word.startsWith(BEGINS)) return null;
      const [found] = await db
        .select({ token: tokens, account: accounts })
        .from(tokens)
        .innerJoin(accounts, eq(accounts.id, tokens.accountId))
        .where(eq(tokens.hash, hashOfWord(word)));
      if (!found || (found.token.until !== null && found.token.until <= now())) return null;
      const { token, account } = found;
      if (token.usedAt === null || now() - token.usedAt > DAY_MS)
        await write((one) => one.update(tokens).set({ usedAt: now() }).where(eq(tokens.id, token.id))).catch(
          (error: unknown) => logger().warn({ err: error }, 'it could not be written when a token was used'),
        );
      const { id: accountId, name, studioId, role } = account;
      return { kind: 'person', accountId, sessionId: token.id, name, studioId, role, scopes: token.scopes };
    },
  };
}
