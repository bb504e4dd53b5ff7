import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const POST = route('POST /api/v1/films/[film]/next', async ({ params, server }) => {
  if (!(await server.films.next(params.film!))) throw new Refusal(409, 'This film does not wait any more.');
  return {};
});
