import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const POST = route('POST /api/v1/shows/[show]/publications/[publication]/again', async ({ params, server }) => {
  if (!(await server.publishing.again(showId(params.show!), params.publication!)))
    throw new Refusal(409, 'This is there, or on its way already.');
  return {};
});
