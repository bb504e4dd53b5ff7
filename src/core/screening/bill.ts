import { ID, list, maybe, object, text, truth, written, type Schema } from '../schema/schema';
import { LONGEST_SHOW_TITLE } from '../show/limits';

/** A page of several screenings for one client. */
export interface BillSettings {
  readonly title: string;
  /** Above the films; may be empty. */
  readonly words: string;
  /** In the order they are shown in. */
  readonly screenings: readonly string[];
  /** Its link leads nowhere. */
  readonly shut: boolean;
}

/** A bill as the studio sees it. */
export interface BillRow extends BillSettings {
  readonly id: string;
  /** The unguessable part of its link. */
  readonly token: string;
  readonly createdAt: number;
}

/** A screening of the studio’s that can be put on a bill. */
export interface BillChoice {
  readonly id: string;
  readonly title: string;
  /** What its show is called. */
  readonly show: string;
  /** Whether anybody could watch it now. */
  readonly open: boolean;
}

/** A film on a bill as whoever has the link sees it. */
export interface BilledFilm {
  /** Of its screening’s link. */
  readonly token: string;
  /** Null: it asks for a password, and says nothing before. */
  readonly title: string | null;
  readonly lengthMs: number | null;
  /** When it ends (milliseconds since 1970); null: it stays open. */
  readonly endsAt: number | null;
}

export type NewBill = Omit<BillSettings, 'shut'>;
export type BillChange = Partial<BillSettings>;

export const MOST_ON_A_BILL = 2000;
const TITLE = written(LONGEST_SHOW_TITLE, 'The wedding in three films');
const WORDS = text(2000);
const SCREENINGS = list(ID, MOST_ON_A_BILL, 1);

export const NEW_BILL: Schema = object<NewBill>({ title: TITLE, words: WORDS, screenings: SCREENINGS });
export const BILL_CHANGE: Schema = object<BillChange>({
  title: maybe(TITLE),
  words: maybe(WORDS),
  screenings: maybe(SCREENINGS),
  shut: maybe(truth),
});
