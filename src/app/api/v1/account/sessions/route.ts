import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/account/sessions', async ({ person, server }) => ({
  sessions: await server.sessions.list(person),
}));

/** All but the one that asks. */
export const DELETE = route('DELETE /api/v1/account/sessions', async ({ person, server }) => {
  await server.sessions.endAll(person.accountId, person.sessionId);
  return {};
});
