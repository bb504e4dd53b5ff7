import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** A frame of the film, for players to show before it starts. */
export const GET = route('GET /api/v1/screenings/[token]/picture', async ({ params, server }) => {
  const screening = await server.screenings.find(params.token!);
  const jpeg = screening && (await server.films.pictureOf(screening.films[0]!.id));
  if (!jpeg) throw new Refusal(404, 'There is no picture of this film.');
  return new Response(jpeg.slice(), {
    headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=3600' },
  });
});
