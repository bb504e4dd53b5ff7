import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** Undoes taking the show off the shelf. */
export const DELETE = route('DELETE /api/v1/shows/[show]/removal', async ({ params, server }) => {
  if (!(await server.shows.setRemoved(showId(params.show!), false))) throw new Refusal(404, 'There is no such show.');
  return {};
});
