import { cookieOf, type Asked } from '../http/own-address';
import { SESSION_COOKIE, type Person, type Sessions } from './sessions';

/** Whoever asks. */
export type Actor = Person | { readonly kind: 'stranger' };

export const STRANGER: Actor = { kind: 'stranger' };

/** Who asks, by the session their browser holds. */
export async function actorOf(sessions: Sessions, asked: Asked): Promise<Actor> {
  const word = cookieOf(asked, SESSION_COOKIE);
  return (word === null ? null : await sessions.of(word)) ?? STRANGER;
}
