import { hash, verify } from '@node-rs/argon2';
import { and, eq, gt, lt } from 'drizzle-orm';
import { isOpenAt } from '../../core/screening/screening-settings';
import PQueue from 'p-queue';
import type { Database, OpenDatabase } from '../database/open-database';
import { screeningPasses, screenings } from '../database/schema';
import { hashOfWord, newWord } from '../studio/secret-word';

/** How long a browser may come back without saying the password again. */
export const PASS_MS = 12 * 3_600_000;

/** Checking a password is meant to be slow: one at a time, so that guessers wait for each other and nobody else does. */
const checking = new PQueue({ concurrency: 1 });

/** Argon2id, with the library’s own measures (19 MiB, two passes). */
export const hashed = (password: string): Promise<string> => hash(password);

/** The cookie that holds a screening’s pass. */
export function passCookie(token: string): string {
  return `tanager-pass-${token.slice(0, 8)}`;
}

/** @returns a pass for the browser to keep; null when the password is another one or there is nothing behind the link that asks for one */
export async function passFor(
  { db, write }: OpenDatabase,
  token: string,
  password: string,
  now: number,
): Promise<string | null> {
  const [screening] = await db.select().from(screenings).where(eq(screenings.token, token));
  if (!screening?.passwordHash || !isOpenAt(screening, now)) return null;
  const { id, passwordHash } = screening;
  if (!(await checking.add(() => verify(passwordHash, password)))) return null;
  const pass = newWord();
  await write(async (one) => {
    await one.delete(screeningPasses).where(lt(screeningPasses.until, now));
    await one.insert(screeningPasses).values({ hash: hashOfWord(pass), screeningId: id, until: now + PASS_MS });
  });
  return pass;
}

/** What stands behind a link, and whether who has this pass may see it. */
export type Door = 'none' | 'locked' | 'open';

/** @param pass as the browser holds it; null when it holds none */
export async function doorOf(db: Database, token: string, pass: string | null, now: number): Promise<Door> {
  const [screening] = await db.select().from(screenings).where(eq(screenings.token, token));
  if (!screening || !isOpenAt(screening, now)) return 'none';
  if (screening.passwordHash === null) return 'open';
  if (pass === null) return 'locked';
  const [held] = await db
    .select({ until: screeningPasses.until })
    .from(screeningPasses)
    .where(
      and(
        eq(screeningPasses.hash, hashOfWord(pass)),
        eq(screeningPasses.screeningId, screening.id),
        gt(screeningPasses.until, now),
      ),
    );
  return held ? 'open' : 'locked';
}
