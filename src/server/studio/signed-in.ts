import type { NextApiRequest, NextApiResponse } from 'next';
import { cookieFor, cookieOf, type Asked } from '../http/own-address';
import type { RunningServer } from '../running-server';
import { SESSION_COOKIE, SESSION_MS } from './sessions';

/** Signs the browser that asks in. A session it held before ends: what somebody may have slipped it is worth nothing then. */
export async function signIn(
  {
    request,
    response,
    asked,
    server,
  }: { request: NextApiRequest; response: NextApiResponse; asked: Asked; server: RunningServer },
  accountId: string,
  did: 'signed-in' | 'joined',
): Promise<void> {
  const held = cookieOf(asked, SESSION_COOKIE);
  const before = held === null ? null : await server.sessions.of(held);
  if (before) await server.sessions.end(before.accountId, before.sessionId);
  const word = await server.sessions.open(accountId, String(request.headers['user-agent'] ?? ''));
  const person = await server.sessions.of(word);
  if (person) await server.audit.note({ studioId: person.studioId, accountId, name: person.name, did });
  response.setHeader('set-cookie', cookieFor(asked, SESSION_COOKIE, word, SESSION_MS));
}
