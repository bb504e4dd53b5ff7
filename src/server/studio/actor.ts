import { cookieOf, type Asked } from '../http/own-address';
import { SESSION_COOKIE, type Person, type Sessions } from './sessions';
import type { Tokens } from './tokens';

/** Whoever asks. */
export type Actor = Person | { readonly kind: 'stranger' };

export const STRANGER: Actor = { kind: 'stranger' };

/** What people and programs are known by. */
export interface Known {
  readonly sessions: Pick<Sessions, 'of'>;
  readonly tokens: Pick<Tokens, 'of'>;
}

/** Who asks: by the token a program sends, else by the session their browser holds. A token that is none is nobody, whatever the browser holds. */
export async function actorOf({ sessions, tokens }: Known, asked: Asked): Promise<Actor> {
  const bearer = /^Bearer (\S+)$/i.exec(asked.header('authorization') ?? '')?.[1];
  if (bearer !== undefined) return (await tokens.of(bearer)) ?? STRANGER;
  const word = cookieOf(asked, SESSION_COOKIE);
  return (word === null ? null : await sessions.of(word)) ?? STRANGER;
}
