import { specFor } from '@/core/film/purposes/purposes';
import { faultOfFilm } from '@/core/film/film-spec';
import { sides } from '@/core/film/purposes/purpose';
import { showId } from '@/core/show/ids';
import { isShapeName, shapeName } from '@/core/show/shape';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** The frame the film shows `?at=` so many milliseconds from its start, as PNG; in another `?shape=` when one is named. */
export const GET = route('GET /api/v1/shows/[show]/still', async ({ request, params, server }) => {
  const asked = new URL(request.url).searchParams;
  const atMs = Number(asked.get('at') ?? 0);
  if (!(atMs >= 0 && atMs < 1e9)) throw new Refusal(422, 'at must be a number of milliseconds.');
  const loaded = await server.shows.load(showId(params.show!));
  if (!loaded) throw new Refusal(404, 'There is no such show.');
  const fault = faultOfFilm(loaded.show);
  if (fault) throw new Refusal(409, fault);
  const shape = asked.get('shape') ?? shapeName(loaded.show.frame);
  if (!isShapeName(shape)) throw new Refusal(422, 'shape must be two numbers such as 9:16.');
  const spec = { ...specFor(loaded.show, 'screen'), shape, ...sides(shape, 1080) };
  const png = await server.films.still(loaded.show, spec, atMs);
  const second = (atMs / 1000).toFixed(1).replace('.', '-');
  return new Response(png.slice(), {
    headers: {
      'content-type': 'image/png',
      'cache-control': 'no-store',
      'content-disposition': `attachment; filename="still.png"; filename*=UTF-8''${encodeURIComponent(`${loaded.show.title || 'still'} ${second}.png`)}`,
    },
  });
});
