import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const DELETE = route('DELETE /api/v1/hooks/[hook]', async ({ params, person, server }) => {
  if (!(await server.hooks.remove(person.studioId, params.hook!))) throw new Refusal(404, 'There is no such address.');
  return {};
});
