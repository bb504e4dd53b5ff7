import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** A disc with this show on it. */
export const POST = route('POST /api/v1/shows/[show]/discs', async ({ params, person, server }) => {
  const id = await server.discs.create(person.studioId, showId(params.show!));
  if (id === null) throw new Refusal(404, 'There is no such show.');
  return { id };
});
