import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** What is stored of a show as it lies there, whatever is wrong with it: so that nothing is lost that cannot be opened. */
export const GET = route('GET /api/v1/shows/[show]/stored', async ({ params, server }) => {
  const stored = await server.shows.stored(showId(params.show!));
  if (!stored) throw new Refusal(404, 'There is no such show.');
  return Response.json(stored, { headers: { 'content-disposition': 'attachment; filename="show.json"' } });
});
