import { faultOfFilm, type FilmHeight } from '@/core/film/plan-film';
import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/shows/[show]/films', async ({ params, server }) => ({
  films: await server.films.list(showId(params.show!)),
}));

export const POST = route<{ heightPx: FilmHeight }>(
  'POST /api/v1/shows/[show]/films',
  async ({ params, body: { heightPx }, server }) => {
    const loaded = await server.shows.load(showId(params.show!));
    if (!loaded) throw new Refusal(404, 'There is no such show.');
    const fault = faultOfFilm(loaded.show);
    if (fault) throw new Refusal(409, fault);
    return { id: await server.films.order(loaded.show, heightPx) };
  },
);
