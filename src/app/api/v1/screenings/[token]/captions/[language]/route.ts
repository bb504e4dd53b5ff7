import { route } from '@/server/http/route';
import { Refusal } from '@/server/http/refusal';

/** The captions of a screening’s film in one language, as WebVTT. */
export const GET = route('GET /api/v1/screenings/[token]/captions/[language]', async ({ params, server }) => {
  const captions = await server.screenings.captions(params.token!, params.language!);
  if (captions === null) throw new Refusal(404, 'There are no captions in this language.');
  return new Response(captions, {
    headers: { 'content-type': 'text/vtt; charset=utf-8', 'cache-control': 'private, max-age=300' },
  });
});
