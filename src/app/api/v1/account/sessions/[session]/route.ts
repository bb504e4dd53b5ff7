import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const DELETE = route('DELETE /api/v1/account/sessions/[session]', async ({ params, person, server }) => {
  if (!(await server.sessions.end(person.accountId, params.session!)))
    throw new Refusal(404, 'That browser is signed out already.');
  return {};
});
