import { stat } from 'node:fs/promises';
import { setTimeout as sleep } from 'node:timers/promises';
import { and, eq } from 'drizzle-orm';
import { letterHtml, letterText, type LetterParts } from '../../core/publishing/letter';
import type { PublicationProgress } from '../../core/publishing/publication';
import { showId } from '../../core/show/ids';
import { films, publications } from '../database/schema';
import { filmRow } from '../films/film-row';
import { PassingError, type JobAtWork, type JobKindOfWork } from '../jobs/job-runner';
import type { TakenJob } from '../jobs/job';
import { callHost, sendFile, type LetIn } from './host-calls';
import type { PublishingParts, Wanted } from './publishing-service';
import { screenedFilm } from './screened-film';
import { sendLetter } from './send-letter';
import { NotTakenError, SignedOutError } from './troubles';

type Row = typeof publications.$inferSelect;
type Set = Partial<typeof publications.$inferInsert>;

/** Pauses of two seconds to five minutes between them: half an hour until it is given up. */
const MOST_TRIES = 12;
const LOOK_EVERY_MS = 1000;
/** How long a host may take to prepare a film before it is asked for anew. */
const PREPARING_MS = 6 * 3_600_000;

/** Hands things over: letters, films, posts. What was told of is gone on with after a restart, and nothing is handed over twice. */
export function publishing(parts: PublishingParts): JobKindOfWork {
  const { database, events, films: made, studio, channels, places, now = Date.now } = parts;
  const { db, write } = database;
  const idOf = (job: TakenJob) => dataOf(job).id;
  const tell = (job: TakenJob) => events.tell(showId(dataOf(job).show), { kind: 'publications' });
  const keep = (row: Row, set: Set) =>
    write((one) => one.update(publications).set(set).where(eq(publications.id, row.id)));

  return {
    kind: 'publish',
    atOnce: 2,
    mostTries: MOST_TRIES,
    progressed: tell,
    ended: tell,
    async work(at) {
      const [row] = await db
        .select()
        .from(publications)
        .where(eq(publications.id, idOf(at.job)));
      // Removed, or done by a try whose end nobody wrote down.
      if (row?.state !== 'open') return async () => {};
      tell(at.job);
      try {
        const set = await handOver(row, at);
        return async (transaction) =>
          void (await transaction
            .update(publications)
            .set({ ...set, state: 'there', problem: null, endedAt: now(), seenAt: now() })
            .where(eq(publications.id, row.id)));
      } finally {
        tell(at.job);
      }
    },
    failed(job, error) {
      const problem =
        error === null
          ? 'The server ended again and again while this was on its way.'
          : error instanceof NotTakenError || error instanceof SignedOutError || error instanceof PassingError
            ? error.message
            : 'Something went wrong on the server. Try again.';
      const state = error instanceof NotTakenError ? ('refused' as const) : ('failed' as const);
      return {
        problem,
        commit: async (transaction) =>
          void (await transaction
            .update(publications)
            .set({ state, problem, endedAt: now() })
            .where(and(eq(publications.id, idOf(job)), eq(publications.state, 'open')))),
      };
    },
  };

  async function handOver(row: Row, at: JobAtWork): Promise<Set> {
    const wanted = row.wanted as Wanted;
    if (wanted.kind === 'mail') return letter(row, wanted);
    const letIn = await channels.letIn(wanted.channel, row.to);
    return wanted.kind === 'video' ? video(row, wanted, letIn, at) : post(row, wanted, letIn, at);
  }

  /** Post offices do not know a letter again: from the moment it is handed in until one has answered it may have gone, and then a person decides. */
  async function letter(row: Row, wanted: Extract<Wanted, { kind: 'mail' }>): Promise<Set> {
    if (row.handedAt !== null)
      throw new NotTakenError(
        'The server ended while this letter was being handed in. It may have arrived; ask before you send it again.',
      );
    const place = places.mail(row.studioId);
    if (!place) throw new NotTakenError('This server sends no letters: no post office is named in its settings.');
    const { parts: said, poster, from } = await letterOf(row, wanted);
    await keep(row, { handedAt: now() });
    try {
      await sendLetter(place, {
        ...{ id: row.key, to: wanted.to, from, replyTo: wanted.replyTo, subject: wanted.subject },
        text: letterText(said),
        html: letterHtml(said),
        poster,
      });
    } catch (error) {
      await keep(row, { handedAt: null });
      throw error;
    }
    // Written at once, whatever becomes of this try.
    await keep(row, { state: 'there', problem: null, endedAt: now() });
    return {};
  }

  async function letterOf(row: Row, wanted: Extract<Wanted, { kind: 'mail' }>) {
    const { screening, film, title, link } = await screeningOf(row, wanted);
    const { profile } = await studio.open(row.studioId);
    const bytes = screening.passwordHash === null ? await made.pictureOf(film.id) : null;
    const poster = bytes && { name: 'poster', bytes };
    const said: LetterParts = {
      title,
      words: wanted.words,
      link,
      length: lengthWords(film.lengthMs),
      asksPassword: screening.passwordHash !== null,
      until:
        screening.endsAt === null
          ? null
          : new Intl.DateTimeFormat('en-GB', { dateStyle: 'long' }).format(screening.endsAt),
      studio: profile.name,
      contact: profile.contact,
      palette: profile.palette,
      poster: poster && poster.name,
    };
    return { parts: said, poster, from: profile.name || 'Film' };
  }

  /** @throws {NotTakenError} when its link would lead nowhere by now */
  async function screeningOf(row: Row, { screening: id, origin }: { screening: string; origin: string }) {
    const shown = await screenedFilm(db, row.showId, id, now());
    if (typeof shown === 'string') throw new NotTakenError(shown);
    return { ...shown, link: `${origin}/s/${shown.screening.token}` };
  }

  async function post(
    row: Row,
    wanted: Extract<Wanted, { kind: 'post' }>,
    letIn: LetIn,
    { signal }: JobAtWork,
  ): Promise<Set> {
    const { link } = await screeningOf(row, wanted);
    const there = await callHost(letIn, 'POST', 'posts', signal, { key: row.key, body: { words: wanted.words, link } });
    return { outsideId: there?.id ?? null, address: there?.address || null };
  }

  async function video(
    row: Row,
    wanted: Extract<Wanted, { kind: 'video' }>,
    letIn: LetIn,
    { signal, progress }: JobAtWork,
  ): Promise<Set> {
    const [found] = await db.select().from(films).where(eq(films.id, wanted.film));
    const film = found && filmRow(found, null);
    const file = film?.state === 'ready' ? await made.localFile(film) : null;
    const size = file && (await stat(file).catch(() => null))?.size;
    if (!file || !size) throw new NotTakenError('The film was removed before it had arrived there.');
    const say = (value: PublicationProgress, finished = false) => progress(value, finished);
    const { title, about, seenBy } = wanted;
    const there = await callHost(letIn, 'POST', 'videos', signal, {
      key: row.key,
      body: { title, about, seenBy, byteCount: size },
    });
    if (!there?.upload) throw new NotTakenError(`${letIn.name} does not say where films go.`);
    // Another one than before: what was sent to that one counts no more.
    const uploadUrl = row.outsideId === there.id ? row.uploadUrl : null;
    await keep(row, { outsideId: there.id, uploadUrl });
    if (there.state === 'arriving') {
      say({ step: 'handing-over', share: 0 });
      await sendFile(letIn, {
        ...{ file, byteCount: size, endpoint: there.upload, video: there.id, uploadUrl, signal },
        begun: (url) => void keep(row, { uploadUrl: url }).catch(() => {}),
        progress: (share) => say({ step: 'handing-over', share }),
      });
      // Whatever comes now, this much was not in vain.
      say({ step: 'processing', share: null }, true);
    }
    const untilMs = now() + PREPARING_MS;
    for (;;) {
      const seen = await callHost(letIn, 'GET', `videos/${there.id}`, signal);
      if (seen?.state === 'ready') return { address: seen.address || null };
      if (!seen || seen.state === 'taken-down') throw new NotTakenError(`${letIn.name} has taken the film down.`);
      if (seen.state === 'unusable') throw new NotTakenError(`${letIn.name} could not make anything of the file.`);
      if (now() > untilMs) throw new PassingError(`${letIn.name} has been preparing the film for very long.`);
      say({ step: 'processing', share: seen.share });
      // What is stopped aborts this.
      await sleep(LOOK_EVERY_MS, null, { signal });
    }
  }
}

const dataOf = (job: TakenJob) => job.data as { readonly id: string; readonly show: string };

/** “4 min 12 s” */
function lengthWords(lengthMs: number): string {
  const seconds = Math.max(1, Math.round(lengthMs / 1000));
  const minutes = Math.floor(seconds / 60);
  return minutes === 0 ? `${seconds} s` : `${minutes} min ${seconds % 60} s`;
}
