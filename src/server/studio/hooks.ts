import { createHmac } from 'node:crypto';
import { and, desc, eq } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import { HOOK_EVENTS, type HookEvent, type HookRow, type NewHook } from '../../core/studio/api-token';
import type { ShowId } from '../../core/show/ids';
import type { OpenDatabase } from '../database/open-database';
import { films, hooks, shows } from '../database/schema';
import type { Events, ShowEvent } from '../events';
import { PassingError, type JobKindOfWork } from '../jobs/job-runner';
import type { JobStore } from '../jobs/job';
import { logger } from '../logger';
import { newWord } from './secret-word';

/** Addresses of other programs that are told what happens in a studio, signed as Standard Webhooks (webhook-id, webhook-timestamp, webhook-signature) say. */
export interface Hooks {
  list(studioId: string): Promise<HookRow[]>;
  /** @returns the word by which what is told is signed, which is told this once */
  make(studioId: string, wanted: NewHook): Promise<{ readonly id: string; readonly secret: string }>;
  remove(studioId: string, id: string): Promise<boolean>;
  /** Tells it something now, to try it. @returns false when it is not there */
  try(studioId: string, id: string): Promise<boolean>;
  /** Begins to hear what happens. @returns stops that */
  hear(events: Events): () => void;
}

interface HookParts {
  readonly database: OpenDatabase;
  readonly jobs: JobStore;
  readonly wake: () => void;
  readonly now?: () => number;
}

/** What is told, by whom, as it is sent again and again until it is taken. */
interface Telling {
  readonly hookId: string;
  readonly id: string;
  readonly body: string;
}

/** Twelve tries with pauses that grow to five minutes: most of an hour. */
const MOST_TRIES = 12;
const PATIENCE_MS = 15_000;
const SECRET_BEGINS = 'whsec_';

export function createHooks({
  database,
  jobs,
  wake,
  now = Date.now,
}: HookParts): Hooks & { readonly telling: JobKindOfWork } {
  const { db, write } = database;
  const own = (studioId: string, id: string) => and(eq(hooks.id, id), eq(hooks.studioId, studioId));

  return {
    async list(studioId) {
      const rows = await db.select().from(hooks).where(eq(hooks.studioId, studioId)).orderBy(desc(hooks.createdAt));
      return rows.map(({ id, url, events, createdAt, last }) => ({ id, url, events, createdAt, last }));
    },
    async make(studioId, { url, events }) {
      const id = nanoid(12);
      const secret = SECRET_BEGINS + Buffer.from(newWord(), 'base64url').toString('base64');
      const row = { id, studioId, url, secret, events: HOOK_EVENTS.filter((event) => events.includes(event)) };
      await write((one) => one.insert(hooks).values({ ...row, createdAt: now() }));
      return { id, secret };
    },
    remove: async (studioId, id) => (await write((one) => one.delete(hooks).where(own(studioId, id)))).rowsAffected > 0,
    async try(studioId, id) {
      const [hook] = await db.select().from(hooks).where(own(studioId, id));
      if (!hook) return false;
      await tell([hook], 'trial', {});
      return true;
    },
    hear: (events) =>
      events.listenToAll((show, event) => {
        const named = eventOf(event);
        if (named)
          void tellOf(show, named, event).catch((error: unknown) =>
            logger().error({ err: error, show }, 'other programs could not be told of something'),
          );
      }),
    telling: {
      kind: 'hook',
      atOnce: 4,
      mostTries: MOST_TRIES,
      async work({ job, signal }) {
        const { hookId, id, body } = job.data as Telling;
        const [hook] = await db.select().from(hooks).where(eq(hooks.id, hookId));
        if (!hook) return async () => {};
        const said = await sent(hook, id, body, signal);
        return async (transaction) =>
          void (await transaction.update(hooks).set({ last: said }).where(eq(hooks.id, hookId)));
      },
      failed(job, error) {
        const { hookId } = job.data as Telling;
        const problem = error instanceof Error ? error.message : 'It ended the server again and again.';
        return {
          problem,
          commit: async (transaction) =>
            void (await transaction
              .update(hooks)
              .set({ last: `Given up after ${MOST_TRIES} tries: ${problem}` })
              .where(eq(hooks.id, hookId))),
        };
      },
    },
  };

  async function tellOf(show: ShowId, type: HookEvent, event: ShowEvent): Promise<void> {
    const [of] = await db
      .select({ studioId: shows.studioId, title: shows.title })
      .from(shows)
      .where(eq(shows.id, show));
    if (!of) return;
    const wanted = (await db.select().from(hooks).where(eq(hooks.studioId, of.studioId))).filter(({ events }) =>
      events.includes(type),
    );
    if (wanted.length === 0) return;
    const filmId = event.kind === 'films' ? event.ended!.id : null;
    const [film] = filmId ? await db.select().from(films).where(eq(films.id, filmId)) : [];
    await tell(wanted, type, {
      show: { id: show, title: of.title },
      ...(film && { film: { id: film.id, title: film.title, problem: film.problem, byteCount: film.byteCount } }),
    });
  }

  async function tell(wanted: readonly (typeof hooks.$inferSelect)[], type: string, data: object): Promise<void> {
    for (const { id: hookId, studioId } of wanted) {
      const id = `msg_${nanoid(20)}`;
      const body = JSON.stringify({ type, timestamp: new Date(now()).toISOString(), data });
      await jobs.add({ kind: 'hook', studioId, key: id, data: { hookId, id, body } satisfies Telling });
    }
    wake();
  }

  /** @throws {PassingError} when it was not taken */
  async function sent(
    { url, secret }: typeof hooks.$inferSelect,
    id: string,
    body: string,
    signal: AbortSignal,
  ): Promise<string> {
    const at = Math.floor(now() / 1000);
    const answer = await fetch(url, {
      method: 'POST',
      redirect: 'manual',
      signal: AbortSignal.any([signal, AbortSignal.timeout(PATIENCE_MS)]),
      headers: {
        'content-type': 'application/json',
        ...{
          'webhook-id': id,
          'webhook-timestamp': String(at),
          'webhook-signature': signatureOf(secret, id, at, body),
        },
      },
      body,
    }).catch((error: unknown) => {
      signal.throwIfAborted();
      throw new PassingError(`${new URL(url).host} could not be reached`, { cause: error });
    });
    await answer.body?.cancel();
    if (!answer.ok) throw new PassingError(`${new URL(url).host} answered ${answer.status}`);
    return 'It was taken.';
  }
}

/** `v1,` and a HMAC-SHA256 of what was sent, in base64 (Standard Webhooks 1.0). @param atS seconds since 1970 */
export function signatureOf(secret: string, id: string, atS: number, body: string): string {
  const key = Buffer.from(secret.slice(SECRET_BEGINS.length), 'base64');
  return `v1,${createHmac('sha256', key).update(`${id}.${atS}.${body}`).digest('base64')}`;
}

function eventOf(event: ShowEvent): HookEvent | null {
  if (event.kind === 'films' && event.ended) return event.ended.ready ? 'film.ready' : 'film.failed';
  if (event.kind === 'notes') return 'note.left';
  return event.kind === 'proofs' ? 'choice.sent' : null;
}
