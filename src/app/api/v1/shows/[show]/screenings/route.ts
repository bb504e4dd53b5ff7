import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import { NOT_SCREENED } from '@/server/screenings/screening-service';

export const GET = route('GET /api/v1/shows/[show]/screenings', async ({ params, server }) => ({
  screenings: await server.screenings.list(showId(params.show!)),
}));

/** Opens a screening of finished films: the same one in several qualities. */
export const POST = route<{ films: readonly string[] }>(
  'POST /api/v1/shows/[show]/screenings',
  async ({ params, body, person, server }) => {
    const id = await server.screenings.open(person.studioId, showId(params.show!), body.films);
    if (id === null) throw new Refusal(409, NOT_SCREENED);
    return { id };
  },
);
