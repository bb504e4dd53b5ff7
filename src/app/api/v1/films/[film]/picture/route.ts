import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** A frame of a finished film, or the frame just made of one in the making. */
export const GET = route('GET /api/v1/films/[film]/picture', async ({ params, server }) => {
  const jpeg = await server.films.pictureOf(params.film!);
  if (!jpeg) throw new Refusal(404, 'There is no picture of this film.');
  return new Response(jpeg.slice(), {
    headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, no-cache' },
  });
});
