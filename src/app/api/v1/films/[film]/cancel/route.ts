import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const POST = route('POST /api/v1/films/[film]/cancel', async ({ params, server }) => {
  if (!(await server.films.cancel(params.film!))) throw new Refusal(409, 'This film is no longer being made.');
  return {};
});
