import { faultOfFilm, type FilmSpec } from '@/core/film/film-spec';
import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const POST = route<{ spec: FilmSpec }>(
  'POST /api/v1/shows/[show]/trials',
  async ({ params, body: { spec }, server }) => {
    const loaded = await server.shows.load(showId(params.show!));
    if (!loaded) throw new Refusal(404, 'There is no such show.');
    const fault = faultOfFilm(loaded.show, spec);
    if (fault) throw new Refusal(409, fault);
    return server.films.try(loaded.show, spec);
  },
);
