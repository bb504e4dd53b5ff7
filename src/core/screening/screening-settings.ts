import {
  ID,
  list,
  maybe,
  number,
  object,
  oneOf,
  orNull,
  text,
  truth,
  whole,
  type Schema,
  written,
} from '../schema/schema';
import { LONGEST_NAME, LONGEST_SHOW_TITLE } from '../show/limits';
import { LINK } from '../studio/studio-profile';
import { LONGEST_GUEST_NAME, LONGEST_NOTE } from './guest-note';

/** What a screening asks of who pauses it or has seen it. */
export interface Call {
  readonly words: string;
  /** A web or mail address. */
  readonly to: string;
}

/** How a film is shown to whoever has the link. */
export interface ScreeningSettings {
  /** Over the film's own; null: that one. */
  readonly title: string | null;
  /** Nobody watches from here on (milliseconds since 1970); null: it stays open. */
  readonly endsAt: number | null;
  /** Shut by hand; its link leads nowhere. */
  readonly shut: boolean;
  /** Viewers may take the file home. */
  readonly mayTake: boolean;
  readonly guestBook: boolean;
  /** How often and how far it is watched is counted. */
  readonly counts: boolean;
  readonly call: Call | null;
}

/** Whether what is behind a link may be seen at a moment; the same for screenings and proofs. */
export function isOpenAt({ shut, endsAt }: Pick<ScreeningSettings, 'shut' | 'endsAt'>, at: number): boolean {
  return !shut && (endsAt === null || endsAt > at);
}

/** Shorter passwords are guessed. */
export const SHORTEST_PASSWORD = 6;

export type ScreeningChange = Partial<ScreeningSettings> & {
  /** Null: nobody is asked for one. */
  readonly password?: string | null;
  /** In several qualities, in any order. */
  readonly films?: readonly string[];
};

const TIME = whole(0, 1e15);
const TITLE = text(LONGEST_SHOW_TITLE, 1);
export const CALL: Schema = object<Call>({ words: text(LONGEST_NAME, 1), to: LINK });
const PASSWORD = text(200, SHORTEST_PASSWORD);
const FILMS = list(ID, 20, 1);

export const NEW_SCREENING: Schema = object<{ films: unknown }>({ films: FILMS });

export const SCREENING_CHANGE: Schema = object<ScreeningChange>({
  title: maybe(orNull(TITLE)),
  endsAt: maybe(orNull(TIME)),
  shut: maybe(truth),
  mayTake: maybe(truth),
  guestBook: maybe(truth),
  counts: maybe(truth),
  call: maybe(orNull(CALL)),
  password: maybe(orNull(PASSWORD)),
  films: maybe(FILMS),
});

/** What a viewer sends into the guest book. */
export interface NewNote {
  readonly atMs: number;
  readonly kind: 'note' | 'wish';
  readonly name: string;
  readonly words: string;
  readonly replyTo?: string;
  /** No person sees the field; who fills it in is a program. */
  readonly website?: string;
}

const SAID = written(LONGEST_NOTE, 'How lovely');
const GUEST = written(LONGEST_GUEST_NAME, 'Ilka');

export const NEW_NOTE: Schema = object<NewNote>({
  atMs: number(0, 1e9),
  kind: oneOf(['note', 'wish']),
  name: GUEST,
  words: SAID,
  replyTo: maybe(ID),
  website: maybe(text(200)),
});

export const ANSWER: Schema = object<{ words: unknown }>({ words: SAID });

/** The studio: done, hidden, let in, open again. */
export const NOTE_CHANGE: Schema = object<{ state: unknown }>({ state: oneOf(['open', 'done', 'hidden']) });

/** What a page tells of a viewing while it plays: see `Stretch`. */
export const TOLD_VIEWING: Schema = object<{ id: unknown; stretches: unknown }>({
  id: ID,
  stretches: list(list(number(0, 1e9), 2, 2), 500),
});

export const PASSWORD_SAID: Schema = object<{ password: unknown }>({ password: text(200) });
