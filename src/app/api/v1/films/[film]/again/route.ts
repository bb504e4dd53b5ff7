import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const POST = route('POST /api/v1/films/[film]/again', async ({ params, server }) => {
  if (!(await server.films.again(params.film!)))
    throw new Refusal(409, 'Only a film that was not made, or was cancelled, can be made again.');
  return {};
});
