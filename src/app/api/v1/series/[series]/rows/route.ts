import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import { askedOf, NO_SERIES } from '@/server/series/asked';

export const GET = route('GET /api/v1/series/[series]/rows', async ({ params, person, server }) => {
  const far = await server.series.far(person.studioId, params.series!);
  if (!far) throw new Refusal(404, NO_SERIES);
  return far;
});

/** Has the show of a row built. */
export const POST = route<{ row: number }>(
  'POST /api/v1/series/[series]/rows',
  async ({ params, person, body, server }) => askedOf(server.series.prepare(person.studioId, params.series!, body.row)),
);
