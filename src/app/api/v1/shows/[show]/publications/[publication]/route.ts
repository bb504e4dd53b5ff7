import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** Off the list; what is there stays there. */
export const DELETE = route('DELETE /api/v1/shows/[show]/publications/[publication]', async ({ params, server }) => {
  if (!(await server.publishing.remove(showId(params.show!), params.publication!)))
    throw new Refusal(409, 'This is not on the list, or still on its way: stop it first.');
  return {};
});
