import { cookieFor, cookieOf } from '@/server/http/own-address';
import { route } from '@/server/http/route';
import { SESSION_COOKIE } from '@/server/studio/sessions';

export const DELETE = route('DELETE /api/v1/session', async ({ asked, server }) => {
  const held = cookieOf(asked, SESSION_COOKIE);
  const person = held === null ? null : await server.sessions.of(held);
  if (person) {
    const { accountId, sessionId, studioId, name } = person;
    await server.sessions.end(accountId, sessionId);
    await server.audit.note({ studioId, accountId, name, did: 'signed-out' });
  }
  return Response.json({}, { headers: { 'set-cookie': cookieFor(asked, SESSION_COOKIE, null, 0) } });
});
