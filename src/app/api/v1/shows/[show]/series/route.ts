import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** A series that has this show for its pattern. */
export const POST = route('POST /api/v1/shows/[show]/series', async ({ params, person, server }) => {
  const id = await server.series.create(person.studioId, showId(params.show!));
  if (id === null) throw new Refusal(404, 'There is no such show.');
  return { id };
});
