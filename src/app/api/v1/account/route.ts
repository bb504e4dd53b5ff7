import type { AccountChange } from '@/core/studio/account';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/account', ({ person, server }) => server.accounts.own(person.accountId));

export const PATCH = route<AccountChange>('PATCH /api/v1/account', async ({ body, person, server }) => {
  await server.accounts.change(person.accountId, body);
  // Who knew the password before is signed out with it.
  if (body.password !== undefined) await server.sessions.endAll(person.accountId, person.sessionId);
  return server.accounts.own(person.accountId);
});
