import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const POST = route('POST /api/v1/hooks/[hook]/trial', async ({ params, person, server }) => {
  if (!(await server.hooks.try(person.studioId, params.hook!))) throw new Refusal(404, 'There is no such address.');
  return {};
});
