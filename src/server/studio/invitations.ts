import { and, desc, eq, gt, lt } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import type { NewInvitation, Role } from '../../core/studio/account';
import { showId, type ShowId } from '../../core/show/ids';
import type { OpenDatabase } from '../database/open-database';
import { invitations, shows, studios } from '../database/schema';
import { hashOfWord, newWord } from './secret-word';

/** How long an invitation waits. */
export const INVITATION_MS = 14 * 24 * 3_600_000;

export interface InvitationRow {
  readonly id: string;
  readonly role: Role;
  readonly show: { readonly id: string; readonly title: string } | null;
  readonly label: string;
  readonly createdAt: number;
  readonly until: number;
}

/** What who has an invitation’s link is told. */
export interface OpenInvitation {
  readonly id: string;
  readonly studioId: string;
  /** Empty when the studio has not said. */
  readonly studio: string;
  readonly role: Role;
  readonly show: { readonly id: ShowId; readonly title: string } | null;
}

export interface Invitations {
  /** @returns its link’s word, which is told once */
  invite(studioId: string, wanted: NewInvitation): Promise<{ readonly id: string; readonly word: string }>;
  list(studioId: string): Promise<InvitationRow[]>;
  takeBack(studioId: string, id: string): Promise<boolean>;
  /** What a link leads to; null when to nothing. */
  find(word: string): Promise<OpenInvitation | null>;
  /** An invitation is good for one. @returns false when somebody was faster */
  use(id: string): Promise<boolean>;
}

export function createInvitations({ db, write }: OpenDatabase, now: () => number = Date.now): Invitations {
  return {
    async invite(studioId, { role, show, label }) {
      const [id, word] = [nanoid(12), newWord()];
      const row = { id, hash: hashOfWord(word), studioId, role, showId: show, label: label.trim() };
      await write(async (one) => {
        await one.delete(invitations).where(lt(invitations.until, now()));
        await one.insert(invitations).values({ ...row, createdAt: now(), until: now() + INVITATION_MS });
      });
      return { id, word };
    },
    async list(studioId) {
      const rows = await db
        .select({ row: invitations, title: shows.title })
        .from(invitations)
        .leftJoin(shows, eq(shows.id, invitations.showId))
        .where(and(eq(invitations.studioId, studioId), gt(invitations.until, now())))
        .orderBy(desc(invitations.createdAt));
      return rows.map(({ row: { id, role, label, createdAt, until, showId: show }, title }) => ({
        id,
        role,
        label,
        createdAt,
        until,
        show: show === null ? null : { id: show, title: title ?? '' },
      }));
    },
    async takeBack(studioId, id) {
      const mine = and(eq(invitations.studioId, studioId), eq(invitations.id, id));
      return (await write((one) => one.delete(invitations).where(mine))).rowsAffected > 0;
    },
    async find(word) {
      const [found] = await db
        .select({ row: invitations, title: shows.title, profile: studios.profile })
        .from(invitations)
        .leftJoin(shows, eq(shows.id, invitations.showId))
        .leftJoin(studios, eq(studios.id, invitations.studioId))
        .where(and(eq(invitations.hash, hashOfWord(word)), gt(invitations.until, now())));
      if (!found) return null;
      const { id, studioId, role, showId: show } = found.row;
      return {
        id,
        studioId,
        role,
        studio: (found.profile as { name?: string } | null)?.name ?? '',
        show: show === null ? null : { id: showId(show), title: found.title ?? '' },
      };
    },
    async use(id) {
      return (await write((one) => one.delete(invitations).where(eq(invitations.id, id)))).rowsAffected > 0;
    },
  };
}
