import { RateLimiterMemory } from 'rate-limiter-flexible';
import { Refusal } from './refusal';

/** What strangers may do so often, counted while the server runs and by address only as long as the count lasts. */
const LIMITS = {
  /** Passwords, from one address … */
  'password-from': { points: 10, duration: 600 },
  /** … and for one link, from everywhere: a word of six letters stands for centuries. */
  'password-for': { points: 60, duration: 600 },
  'note-from': { points: 8, duration: 600 },
  'note-for': { points: 200, duration: 3600 },
  /** Pages that begin to play: a family behind one address, not a mill. */
  'viewing-from': { points: 120, duration: 3600 },
  /** Marks on proofs: three hundred pictures, each thought over several times. */
  'mark-from': { points: 6000, duration: 3600 },
  /** Attempts to sign in, by whatever means, from one address … */
  'sign-in-from': { points: 15, duration: 600 },
  /** … and with one person’s address, from everywhere. */
  'sign-in-for': { points: 60, duration: 600 },
} as const satisfies Record<string, { readonly points: number; readonly duration: number }>;

export type Limit = keyof typeof LIMITS;

const SAYS: Readonly<Record<Limit, string>> = {
  'password-from': 'That was tried too often. Wait ten minutes and try again.',
  'password-for': 'That was tried too often. Wait ten minutes and try again.',
  'note-from': 'These are many notes in a short time. Wait a few minutes, then go on.',
  'note-for': 'So many people are writing just now that notes have to wait a little.',
  'mark-from': 'These are very many marks in a short time. Wait a few minutes, then go on.',
  'sign-in-from': 'That was tried too often. Wait ten minutes and try again.',
  'sign-in-for': 'That was tried too often. Wait ten minutes and try again.',
  'viewing-from': 'So many viewings from one address are not counted.',
};

const limiters = Object.fromEntries(
  Object.entries(LIMITS).map(([name, limit]) => [name, new RateLimiterMemory({ keyPrefix: name, ...limit })]),
) as unknown as Readonly<Record<Limit, RateLimiterMemory>>;

/** Counts one more. @throws {Refusal} 429 when it was too often */
export async function countOne(limit: Limit, key: string): Promise<void> {
  await limiters[limit].consume(key).catch((refused: unknown) => {
    if (refused instanceof Error) throw refused;
    throw new Refusal(429, SAYS[limit]);
  });
}

/** Takes one count back, for what turned out to be right. */
export async function uncountOne(limit: Limit, key: string): Promise<void> {
  await limiters[limit].reward(key);
}
