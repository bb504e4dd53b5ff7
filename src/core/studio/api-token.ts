import { list, maybe, object, oneOf, text, whole, written, type Schema } from '../schema/schema';

/** What a token may be used for. Looking goes with each of them. */
export const SCOPES = ['look', 'shows', 'films', 'studio'] as const;
export type Scope = (typeof SCOPES)[number];

export const SCOPE_WORDS: Readonly<Record<Scope, string>> = {
  look: 'look at shows, files and films',
  shows: 'make shows and change them, bring files',
  films: 'make films, screenings and series, send them on',
  studio: 'change the studio: its profile, mounts, pages',
};

/** A token as the studio sees it; its word is told once, when it is made. */
export interface TokenRow {
  readonly id: string;
  readonly name: string;
  readonly scopes: readonly Scope[];
  readonly createdAt: number;
  /** To the day; null: never used. */
  readonly usedAt: number | null;
  /** Null: it does not end. */
  readonly until: number | null;
}

export interface NewToken {
  readonly name: string;
  readonly scopes: readonly Scope[];
  readonly days?: number;
}

export const NEW_TOKEN: Schema = object<NewToken>({
  name: written(100, 'The script in the office'),
  scopes: list(oneOf(SCOPES), SCOPES.length, 1),
  days: maybe(whole(1, 3650)),
});

/** What is told to another program when it happens. */
export const HOOK_EVENTS = ['film.ready', 'film.failed', 'note.left', 'choice.sent'] as const;
export type HookEvent = (typeof HOOK_EVENTS)[number];

export const HOOK_WORDS: Readonly<Record<HookEvent, string>> = {
  'film.ready': 'a film is made',
  'film.failed': 'a film could not be made',
  'note.left': 'something was written into a guest book',
  'choice.sent': 'a client marked a proof',
};

/** An address that is told. */
export interface HookRow {
  readonly id: string;
  readonly url: string;
  readonly events: readonly HookEvent[];
  readonly createdAt: number;
  /** What came of the last telling, as a sentence; null before the first. */
  readonly last: string | null;
}

export interface NewHook {
  readonly url: string;
  readonly events: readonly HookEvent[];
}

export const NEW_HOOK: Schema = object<NewHook>({
  url: {
    ...text(2000, 1),
    like: {
      pattern: /^https?:\/\/[^\s<>"]+$/,
      says: 'must be an address that begins with http:// or https://',
      samples: ['http://127.0.0.1:9/hook'],
    },
  },
  events: list(oneOf(HOOK_EVENTS), HOOK_EVENTS.length, 1),
});
