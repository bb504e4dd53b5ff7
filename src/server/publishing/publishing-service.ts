import { and, desc, eq, inArray, lt, or, isNull } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import { formatOf } from '../../core/film/film-formats';
import type { NewPublication, PublicationProgress, PublicationRow } from '../../core/publishing/publication';
import { showId, type ShowId } from '../../core/show/ids';
import type { OpenDatabase, Writing } from '../database/open-database';
import { channels, films, publications } from '../database/schema';
import type { Events } from '../events';
import type { FilmService } from '../films/film-service';
import { filmRow } from '../films/film-row';
import type { JobKindOfWork } from '../jobs/job-runner';
import type { JobStore } from '../jobs/job';
import type { StudioService } from '../reuse/studio-service';
import type { Channels } from './channels';
import { callHost } from './host-calls';
import type { Places } from './places';
import { publishing } from './publish';
import { screenedFilm } from './screened-film';

/** What one publication was asked for: one address for each letter. */
export type Wanted =
  | {
      readonly kind: 'mail';
      readonly screening: string;
      readonly to: string;
      readonly subject: string;
      readonly words: string;
      readonly replyTo: string | null;
      /** Our own address, for the link in it. */
      readonly origin: string;
    }
  | Extract<NewPublication, { kind: 'video' }>
  | (Extract<NewPublication, { kind: 'post' }> & { readonly origin: string });

/** Who asks, as it matters for what is sent. */
interface Sender {
  readonly studioId: string;
  /** Where answers to letters go; null: nowhere. */
  readonly email: string | null;
  readonly origin: string;
}

export interface PublishingService {
  list(show: ShowId): Promise<PublicationRow[]>;
  /** @returns their ids, or a sentence why not: nothing was ordered then */
  order(show: ShowId, wanted: NewPublication, sender: Sender): Promise<readonly string[] | string>;
  /** What is on its way is stopped, and what is there of it is taken away again. */
  cancel(show: ShowId, id: string): Promise<boolean>;
  /** What did not arrive, or is there no longer, is tried anew. */
  again(show: ShowId, id: string): Promise<boolean>;
  /** Off the list; what is there stays there. */
  remove(show: ShowId, id: string): Promise<boolean>;
}

export interface PublishingParts {
  readonly database: OpenDatabase;
  readonly jobs: JobStore;
  readonly events: Events;
  readonly films: Pick<FilmService, 'localFile' | 'pictureOf'>;
  readonly studio: Pick<StudioService, 'open'>;
  readonly channels: Channels;
  readonly places: Places;
  readonly wake: () => void;
  readonly stop: (id: string) => Promise<void>;
  /** How long letters rest before they go, so that they can be stopped (milliseconds). */
  readonly restMs?: number;
  readonly now?: () => number;
}

const USUAL_REST_MS = 10_000;

/** Something may be taken down at its host at any time; it is looked for no more often than this. */
const LOOK_AGAIN_MS = 60_000;
const LOOK_PATIENCE_MS = 20_000;

export function createPublishingService(
  parts: PublishingParts,
): PublishingService & { readonly publishing: JobKindOfWork } {
  const { database, jobs, events, channels: signedIn, wake, stop, restMs = USUAL_REST_MS, now = Date.now } = parts;
  const { db, write } = database;
  const tell = (show: string) => events.tell(showId(show), { kind: 'publications' });
  const own = (show: ShowId, id: string) => and(eq(publications.id, id), eq(publications.showId, show));
  const find = async (show: ShowId, id: string) => (await db.select().from(publications).where(own(show, id)))[0];

  return {
    publishing: publishing(parts),
    async list(show) {
      const rows = await db
        .select()
        .from(publications)
        .where(eq(publications.showId, show))
        .orderBy(desc(publications.orderedAt), desc(publications.id));
      const open = rows.filter(({ state }) => state === 'open').map(({ id }) => id);
      const waiting = await jobs.waitingOf('publish', open);
      const progress = await jobs.progressOf('publish', open);
      void lookAfter(show).catch(() => {});
      return rows.map((row): PublicationRow => {
        const waits = waiting.get(row.id);
        const { id, kind, to, title, problem, address, orderedAt, endedAt } = row;
        return {
          ...{ id, kind, to, title, address, orderedAt, endedAt },
          state: row.state === 'open' ? (waits ? 'waiting' : 'working') : row.state,
          progress: (progress.get(id) as PublicationProgress | undefined) ?? null,
          problem: problem ?? (waits && waits.tries > 0 ? waits.problem : null),
          tries: waits?.tries ?? 0,
          nextTryAt: waits && waits.notBefore > now() ? waits.notBefore : null,
        };
      });
    },
    async order(show, wanted, { studioId, email, origin }) {
      const made = await whatIsWanted(show, studioId, wanted);
      if (typeof made === 'string') return made;
      const each: readonly Wanted[] =
        wanted.kind === 'mail'
          ? [...new Set(wanted.to.map((one) => one.trim()))].map((to) => ({ ...wanted, to, replyTo: email, origin }))
          : [wanted.kind === 'post' ? { ...wanted, origin } : wanted];
      const rows = each.map((one) => ({
        id: nanoid(12),
        studioId,
        showId: show,
        kind: one.kind,
        to: one.kind === 'mail' ? one.to : made.channelName,
        title: one.kind === 'mail' ? one.subject : one.kind === 'video' ? one.title : made.title,
        wanted: one,
        key: nanoid(24),
        state: 'open' as const,
        orderedAt: now(),
      }));
      await write((one) =>
        one.transaction(async (transaction) => {
          await transaction.insert(publications).values(rows);
          const notBefore = wanted.kind === 'mail' ? now() + restMs : 0;
          for (const { id } of rows)
            await jobs.addWithin(transaction, { kind: 'publish', studioId, key: id, data: { id, show }, notBefore });
        }),
      );
      tell(show);
      wake();
      return rows.map(({ id }) => id);
    },
    async cancel(show, id) {
      const changed = await write((one) =>
        one
          .update(publications)
          .set({ state: 'cancelled', endedAt: now() })
          .where(and(own(show, id), eq(publications.state, 'open'))),
      );
      if (changed.rowsAffected === 0) return false;
      await jobs.cancel('publish', id);
      await stop(id);
      tell(show);
      const row = await find(show, id);
      if (row?.kind === 'video' && row.outsideId) await takeAway(row).catch(() => {});
      return true;
    },
    async again(show, id) {
      const done = await write((one) =>
        one.transaction(async (transaction) => {
          const [row] = await transaction.select().from(publications).where(own(show, id));
          if (!row || row.state === 'open' || row.state === 'there') return false;
          // What failed on the way is gone on with; what was refused, stopped or taken down is begun anew, as another thing.
          const anew = row.state !== 'failed' && { key: nanoid(24), outsideId: null, uploadUrl: null, address: null };
          await transaction
            .update(publications)
            .set({ ...anew, state: 'open', problem: null, handedAt: null, endedAt: null, seenAt: null })
            .where(eq(publications.id, id));
          const { studioId } = row;
          const wanted = await withChannel(transaction, row);
          if (wanted) await transaction.update(publications).set({ wanted }).where(eq(publications.id, id));
          await jobs.addWithin(transaction, { kind: 'publish', studioId, key: id, data: { id, show } });
          return true;
        }),
      );
      if (done) tell(show);
      wake();
      return done;
    },
    async remove(show, id) {
      const done = await write((one) =>
        one.delete(publications).where(and(own(show, id), inArray(publications.state, ENDED))),
      );
      tell(show);
      return done.rowsAffected > 0;
    },
  };

  /** Signed out of and in to again a channel is another one of the same name. @returns null when nothing is to be changed */
  async function withChannel(
    one: Writing,
    { wanted: kept, studioId, kind, to }: typeof publications.$inferSelect,
  ): Promise<Wanted | null> {
    const wanted = kept as Wanted;
    if (wanted.kind === 'mail' || kind === 'mail') return null;
    const own = await one
      .select({ id: channels.id })
      .from(channels)
      .where(and(eq(channels.studioId, studioId), eq(channels.place, kind), eq(channels.name, to)));
    const [other] = own;
    return other && !own.some(({ id }) => id === wanted.channel) ? { ...wanted, channel: other.id } : null;
  }

  /** Whether it can be done at all, and what it is called. @returns a sentence when not */
  async function whatIsWanted(
    show: ShowId,
    studioId: string,
    wanted: NewPublication,
  ): Promise<{ title: string; channelName: string } | string> {
    const [channel] =
      wanted.kind === 'mail'
        ? []
        : await db
            .select()
            .from(channels)
            .where(and(eq(channels.id, wanted.channel), eq(channels.studioId, studioId)));
    if (wanted.kind !== 'mail' && (channel?.place !== wanted.kind || channel.accessToken === null))
      return 'Sign in there first.';
    if (wanted.kind === 'mail' && parts.places.mail(studioId) === null)
      return 'This server sends no letters: no post office is named in its settings.';
    const channelName = channel?.name ?? '';
    if (wanted.kind === 'video') {
      const [row] = await db
        .select()
        .from(films)
        .where(and(eq(films.id, wanted.film), eq(films.showId, show)));
      const film = row && filmRow(row, null);
      if (film?.state !== 'ready' || formatOf(film.spec.format).holds !== 'film' || !formatOf(film.spec.format).plays)
        return 'Only finished films that browsers play are taken there.';
      return { title: film.title, channelName };
    }
    const shown = await screenedFilm(db, show, wanted.screening, now());
    return typeof shown === 'string' ? shown : { title: shown.title, channelName };
  }

  async function takeAway({ wanted, outsideId, to }: typeof publications.$inferSelect): Promise<void> {
    const { channel } = wanted as Extract<Wanted, { kind: 'video' }>;
    const letIn = await signedIn.letIn(channel, to);
    await callHost(letIn, 'DELETE', `videos/${outsideId}`, AbortSignal.timeout(LOOK_PATIENCE_MS));
  }

  /** Looks whether what is there still is. */
  async function lookAfter(show: ShowId): Promise<void> {
    const due = await db
      .select()
      .from(publications)
      .where(
        and(
          eq(publications.showId, show),
          eq(publications.state, 'there'),
          inArray(publications.kind, ['video', 'post']),
          or(isNull(publications.seenAt), lt(publications.seenAt, now() - LOOK_AGAIN_MS)),
        ),
      );
    for (const row of due) {
      const { channel } = row.wanted as Extract<Wanted, { channel: string }>;
      await write((one) => one.update(publications).set({ seenAt: now() }).where(eq(publications.id, row.id)));
      try {
        const letIn = await signedIn.letIn(channel, row.to);
        const path = `${row.kind === 'video' ? 'videos' : 'posts'}/${row.outsideId}`;
        const there = await callHost(letIn, 'GET', path, AbortSignal.timeout(LOOK_PATIENCE_MS));
        if (there && there.state !== 'taken-down') continue;
      } catch {
        // Not to be asked at the moment; it is looked for again.
        continue;
      }
      const set = { state: 'taken-down' as const, problem: null, endedAt: now() };
      await write((one) => one.update(publications).set(set).where(eq(publications.id, row.id)));
      tell(show);
    }
  }
}

const ENDED = ['there', 'refused', 'failed', 'cancelled', 'taken-down'] as const;
