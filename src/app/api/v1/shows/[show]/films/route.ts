import type { FILM_HEIGHTS } from '@/core/film/plan-film';
import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/shows/[show]/films', async ({ params, server }) => ({
  films: await server.films.list(showId(params.show!)),
}));

export const POST = route<{ heightPx: (typeof FILM_HEIGHTS)[number] }>(
  'POST /api/v1/shows/[show]/films',
  async ({ params, body: { heightPx }, server }) => {
    const loaded = await server.shows.load(showId(params.show!));
    if (!loaded) throw new Refusal(404, 'There is no such show.');
    if (loaded.show.slides.length === 0)
      throw new Refusal(409, 'The show has no slides yet. Lay some pictures into the order first.');
    return { id: await server.films.order(loaded.show, heightPx) };
  },
);
