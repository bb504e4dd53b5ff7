import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const POST = route('POST /api/v1/shows/[show]/publications/[publication]/cancel', async ({ params, server }) => {
  if (!(await server.publishing.cancel(showId(params.show!), params.publication!)))
    throw new Refusal(409, 'This is not on its way any more.');
  return {};
});
