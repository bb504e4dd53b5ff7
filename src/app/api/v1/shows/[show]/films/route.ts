import { faultOfFilm, type FilmSpec } from '@/core/film/film-spec';
import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/shows/[show]/films', async ({ params, server }) => ({
  films: await server.films.list(showId(params.show!)),
}));

/** Orders films of the show as it is now; none when one of them cannot be made. */
export const POST = route<{ specs: readonly FilmSpec[] }>(
  'POST /api/v1/shows/[show]/films',
  async ({ params, body: { specs }, server }) => {
    const loaded = await server.shows.load(showId(params.show!));
    if (!loaded) throw new Refusal(404, 'There is no such show.');
    for (const spec of specs) {
      const fault = faultOfFilm(loaded.show, spec);
      if (fault) throw new Refusal(409, fault);
    }
    const ids: string[] = [];
    for (const spec of specs) ids.push(await server.films.order(loaded.show, spec));
    return { ids };
  },
);
