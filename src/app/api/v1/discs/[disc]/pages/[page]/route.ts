import { thereOf } from '@/server/disc/asked';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** A page of its menu, from 1, as it will be seen, as PNG. */
export const GET = route('GET /api/v1/discs/[disc]/pages/[page]', async ({ params, person, server }) => {
  const page = Number(params.page);
  if (!Number.isInteger(page) || page < 1) throw new Refusal(404, 'There is no such page.');
  const png = thereOf(await server.discs.still(person.studioId, params.disc!, page - 1));
  return new Response(png.slice(), { headers: { 'content-type': 'image/png', 'cache-control': 'no-store' } });
});
