import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const DELETE = route('DELETE /api/v1/tokens/[id]', async ({ params, person, server }) => {
  if (!(await server.tokens.remove(person.accountId, params.id!))) throw new Refusal(404, 'There is no such token.');
  return {};
});
