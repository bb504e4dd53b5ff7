import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const DELETE = route('DELETE /api/v1/films/[film]', async ({ params, server }) => {
  if (!(await server.films.remove(params.film!))) throw new Refusal(409, 'Only a finished film can be removed.');
  return {};
});
