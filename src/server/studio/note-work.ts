import { eq } from 'drizzle-orm';
import { isAudited } from '../../core/studio/audit-sentences';
import type { PathParts } from '../http/route';
import type { RouteName } from '../http/routes';
import type { RunningServer } from '../running-server';
import { accounts, shows } from '../database/schema';
import { logger } from '../logger';
import type { Actor } from './actor';

/** What a route does is noted once it is done, if it is worth knowing later. What it is done to is looked up before: it may be gone then. */
export function noteWork(
  name: RouteName,
  { db, audit }: Pick<RunningServer, 'db' | 'audit'>,
  actor: Actor,
  { show, account }: PathParts,
): { done(): Promise<void> } {
  if (actor.kind !== 'person' || !isAudited(name)) return { done: async () => {} };
  const lookUp = async () => {
    if (show !== undefined) {
      const [found] = await db
        .select({ called: shows.title, studioId: shows.studioId })
        .from(shows)
        .where(eq(shows.id, show));
      return found;
    }
    if (account === undefined) return null;
    const [found] = await db.select({ called: accounts.name }).from(accounts).where(eq(accounts.id, account));
    return found && { ...found, studioId: actor.studioId };
  };
  const looked = lookUp();
  looked.catch(() => {});
  return {
    async done() {
      try {
        const on = await looked;
        const { accountId, name: who, studioId } = actor;
        await audit.note({
          studioId: on?.studioId ?? studioId,
          accountId,
          name: who,
          did: name,
          what: on?.called ?? '',
        });
      } catch (error) {
        // What was done is done; nobody is to do it again because it was not noted.
        logger().error({ err: error, what: name }, 'what was done could not be noted');
      }
    },
  };
}
