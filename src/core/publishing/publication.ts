import { ID, kinds, list, object, oneOf, text, written, type Schema } from '../schema/schema';
import { EMAIL } from '../studio/account';

/** Where a film is handed over to: a letter to somebody, a host that shows videos, a page where posts are read. */
export const PLACES = ['mail', 'video', 'post'] as const;
export type Place = (typeof PLACES)[number];

/** Those that are signed in to. */
export type HostedPlace = Exclude<Place, 'mail'>;

/** Who finds a video at its host. */
export const SEEN_BY = ['everybody', 'link', 'nobody'] as const;
export type SeenBy = (typeof SEEN_BY)[number];

/** What is asked for: letters, one to each address; a film at a video host; a post with a screening's link. */
export type NewPublication =
  | {
      readonly kind: 'mail';
      readonly screening: string;
      readonly to: readonly string[];
      readonly subject: string;
      readonly words: string;
    }
  | {
      readonly kind: 'video';
      readonly channel: string;
      readonly film: string;
      readonly title: string;
      readonly about: string;
      readonly seenBy: SeenBy;
    }
  | { readonly kind: 'post'; readonly channel: string; readonly screening: string; readonly words: string };

export const MOST_LETTERS = 100;
const TITLE = written(200, 'The evening at the harbour');
const WORDS = text(5000);

export const NEW_PUBLICATION: Schema = kinds<NewPublication>({
  mail: { screening: ID, to: list(EMAIL, MOST_LETTERS, 1), subject: TITLE, words: WORDS },
  video: { channel: ID, film: ID, title: TITLE, about: WORDS, seenBy: oneOf(SEEN_BY) },
  post: { channel: ID, screening: ID, words: written(1000, 'Our evening, as a film') },
});

/** Where to come back to from signing in elsewhere: a page of a show. */
export const NEW_CHANNEL: Schema = object<{ place: unknown; show: unknown }>({
  place: oneOf(['video', 'post'] satisfies HostedPlace[]),
  show: ID,
});

/** `waiting` covers pauses between tries; `refused`: the place will not have it, now or later. */
export const PUBLICATION_STATES = [
  'waiting',
  'working',
  'there',
  'refused',
  'failed',
  'cancelled',
  'taken-down',
] as const;
export type PublicationState = (typeof PUBLICATION_STATES)[number];

/** What is being done with it. */
export const STEPS = ['handing-over', 'processing'] as const;
export interface PublicationProgress {
  readonly step: (typeof STEPS)[number];
  /** 0…1, when it is known. */
  readonly share: number | null;
}

/** One thing that was handed over, or is to be. */
export interface PublicationRow {
  readonly id: string;
  readonly kind: Place;
  /** Who or where it goes to, as a person calls it. */
  readonly to: string;
  readonly title: string;
  readonly state: PublicationState;
  readonly progress: PublicationProgress | null;
  /** Why it is not there, or not yet; null: nothing is wrong. */
  readonly problem: string | null;
  /** How often it was tried in vain since it was last asked for. */
  readonly tries: number;
  /** When it is tried again (milliseconds since 1970); null: nothing is planned. */
  readonly nextTryAt: number | null;
  /** Where it can be looked at. */
  readonly address: string | null;
  readonly orderedAt: number;
  readonly endedAt: number | null;
}

export const isEnded = ({ state }: Pick<PublicationRow, 'state'>): boolean =>
  state !== 'waiting' && state !== 'working';

/** What a host gives a channel, and what of it is taken. */
export interface ChannelRoom {
  readonly usedBytes: number;
  readonly mostBytes: number;
}

/** Somewhere the studio is signed in. */
export interface ChannelRow {
  readonly id: string;
  readonly place: HostedPlace;
  /** As the host calls it. */
  readonly name: string;
  /** False: it wants to be signed in to anew. */
  readonly signedIn: boolean;
}

/** “ilka@example.org, tom@example.org; mia@example.org” as a list: each once, in the order they were written in. */
export function addressesIn(text: string): string[] {
  const found = text.split(/[\s,;]+/).filter((one) => one !== '');
  const seen = new Set<string>();
  return found.filter((one) => {
    const key = one.toLowerCase();
    return !seen.has(key) && seen.add(key);
  });
}

/** The first that is no mail address. */
export function strangeAddress(addresses: readonly string[]): string | undefined {
  return addresses.find((one) => !EMAIL.like!.pattern.test(one));
}

const STATE_WORDS: Readonly<Record<PublicationState, string>> = {
  waiting: 'waits for its turn',
  working: 'on its way',
  there: 'is there',
  refused: 'was not taken',
  failed: 'did not arrive',
  cancelled: 'stopped',
  'taken-down': 'was taken down there',
};
const THERE_WORDS: Readonly<Record<Place, string>> = {
  mail: 'was delivered',
  video: 'can be watched',
  post: 'stands there',
};

/** “on its way, 42 %”, “was delivered”, “tried again in 8 s” */
export function publicationSentence(row: PublicationRow, now: number): string {
  if (row.state === 'there') return THERE_WORDS[row.kind];
  if (row.state === 'working' && row.progress?.step === 'processing')
    return row.progress.share === null
      ? 'being prepared there'
      : `being prepared there, ${percent(row.progress.share)}`;
  if (row.state === 'working' && typeof row.progress?.share === 'number')
    return `on its way, ${percent(row.progress.share)}`;
  if (row.state === 'waiting' && row.nextTryAt !== null) {
    const inSeconds = `in ${Math.max(1, Math.round((row.nextTryAt - now) / 1000))} s`;
    if (row.tries === 0) return `goes out ${inSeconds}`;
    return `tried ${row.tries === 1 ? 'once' : `${row.tries} times`}; again ${inSeconds}`;
  }
  return STATE_WORDS[row.state];
}

const percent = (share: number): string => `${Math.floor(share * 100)} %`;
