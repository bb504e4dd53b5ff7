import { and, asc, eq, inArray, or } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import { holdsLink, MOST_BEFORE, type GuestNote, type KeptNote, type NoteState } from '../../core/screening/guest-note';
import type { NewNote } from '../../core/screening/screening-settings';
import { showForFilm, type FilmSpec } from '../../core/film/film-spec';
import { prepareShow } from '../../core/frame/plan-frame';
import type { ShowId, SlideId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import { momentSeen } from '../../core/timing/frames';
import type { OpenDatabase } from '../database/open-database';
import { guestNotes } from '../database/schema';
import type { Events } from '../events';
import { Refusal } from '../http/refusal';

export const NO_NOTE = 'There is no such note.';

export interface GuestBook {
  /** What viewers see of it: neither what is hidden nor what is held back. */
  seen(screeningId: string): Promise<GuestNote[]>;
  /** @returns the note, and whether it waits for the studio to let it in */
  leave(screeningId: string, show: ShowId, note: NewNote, at: SlideThen): Promise<{ note: GuestNote; held: boolean }>;
  /** Everything, of all of a show’s screenings. */
  all(show: ShowId): Promise<KeptNote[]>;
  answer(show: ShowId, noteId: string, studioName: string, words: string): Promise<KeptNote | null>;
  setState(show: ShowId, noteId: string, state: NoteState): Promise<boolean>;
  /** For good, with its answers. */
  remove(show: ShowId, noteId: string): Promise<boolean>;
}

/** What a film showed at a moment. */
export type SlideThen = Pick<KeptNote, 'slideId' | 'before'>;

/** So many notes a screening holds; more are a flood. */
const MOST_NOTES = 5000;

export function createGuestBook({ db, write }: OpenDatabase, events: Events, now: () => number): GuestBook {
  const ofShow = async (show: ShowId, noteId: string) => {
    const [row] = await db
      .select()
      .from(guestNotes)
      .where(and(eq(guestNotes.id, noteId), eq(guestNotes.showId, show)));
    return row;
  };
  const tell = (show: ShowId) => events.tell(show, { kind: 'notes' });
  return {
    async seen(screeningId) {
      const rows = await db
        .select()
        .from(guestNotes)
        .where(and(eq(guestNotes.screeningId, screeningId), inArray(guestNotes.state, ['open', 'done'])))
        .orderBy(asc(guestNotes.atMs), asc(guestNotes.createdAt));
      const there = new Set(rows.filter(({ replyTo }) => replyTo === null).map(({ id }) => id));
      return rows.filter(({ replyTo }) => replyTo === null || there.has(replyTo)).map(seenNote);
    },
    async leave(screeningId, show, { atMs, kind, name, words, replyTo }, { slideId, before }) {
      const known = await db
        .select({ id: guestNotes.id, replyTo: guestNotes.replyTo, state: guestNotes.state, atMs: guestNotes.atMs })
        .from(guestNotes)
        .where(eq(guestNotes.screeningId, screeningId));
      if (known.length >= MOST_NOTES) throw new Refusal(409, 'This guest book is full.');
      const to = known.find(({ id }) => id === replyTo);
      if (replyTo !== undefined && (!to || to.replyTo !== null || to.state === 'hidden' || to.state === 'held'))
        throw new Refusal(404, 'The note you answer is not there any more.');
      const row: typeof guestNotes.$inferInsert & { createdAt: number } = {
        id: nanoid(12),
        screeningId,
        showId: show,
        replyTo: replyTo ?? null,
        atMs: Math.round(to?.atMs ?? atMs),
        slideId,
        before,
        kind,
        by: 'guest',
        name: name.trim(),
        words: words.trim(),
        state: holdsLink(`${name} ${words}`) ? 'held' : 'open',
        createdAt: now(),
      };
      await write((one) => one.insert(guestNotes).values(row));
      tell(show);
      return { note: seenNote(row as typeof guestNotes.$inferSelect), held: row.state === 'held' };
    },
    async all(show) {
      const rows = await db
        .select()
        .from(guestNotes)
        .where(eq(guestNotes.showId, show))
        .orderBy(asc(guestNotes.atMs), asc(guestNotes.createdAt));
      return rows.map(keptNote);
    },
    async answer(show, noteId, studioName, words) {
      const to = await ofShow(show, noteId);
      if (!to || to.replyTo !== null) return null;
      const row = { ...to, id: nanoid(12), replyTo: to.id, kind: 'note' as const, by: 'studio' as const };
      const answer = { ...row, name: studioName, words: words.trim(), state: 'open' as const, createdAt: now() };
      await write((one) => one.insert(guestNotes).values(answer));
      tell(show);
      return keptNote(answer);
    },
    async setState(show, noteId, state) {
      const changed = await write((one) =>
        one
          .update(guestNotes)
          .set({ state })
          .where(and(eq(guestNotes.id, noteId), eq(guestNotes.showId, show))),
      );
      tell(show);
      return changed.rowsAffected > 0;
    },
    async remove(show, noteId) {
      const changed = await write((one) =>
        one
          .delete(guestNotes)
          .where(and(or(eq(guestNotes.id, noteId), eq(guestNotes.replyTo, noteId)), eq(guestNotes.showId, show))),
      );
      tell(show);
      return changed.rowsAffected > 0;
    },
  };
}

/** Which slide a film shows at a moment of its own time, and which came before. @param show as it was when the film was made; null when it cannot be read */
export function slideThen(show: Show | null, spec: FilmSpec, atMs: number): SlideThen {
  if (!show || show.slides.length === 0) return { slideId: null, before: [] };
  const { seenFromMs } = prepareShow(showForFilm(show, spec), new Map());
  const moment = (spec.span ? momentSeen(spec.span.fromMs, spec.rate) : 0) + atMs;
  const index = Math.max(
    0,
    seenFromMs.findLastIndex((from) => from <= moment),
  );
  const ids: SlideId[] = show.slides.map(({ id }) => id);
  return { slideId: ids[index]!, before: ids.slice(Math.max(0, index - MOST_BEFORE), index).toReversed() };
}

function seenNote(row: typeof guestNotes.$inferSelect): GuestNote {
  const { id, replyTo, atMs, kind, by, name, words, createdAt } = row;
  return { id, replyTo, atMs, kind, by, name, words, createdAt };
}

function keptNote(row: typeof guestNotes.$inferSelect): KeptNote {
  const { screeningId, state, slideId, before } = row;
  return { ...seenNote(row), screeningId, state, slideId: slideId as SlideId | null, before: before as SlideId[] };
}
