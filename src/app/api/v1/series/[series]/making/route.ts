import { route } from '@/server/http/route';
import { askedOf } from '@/server/series/asked';

export const POST = route<{ rows?: readonly number[] }>(
  'POST /api/v1/series/[series]/making',
  async ({ params, person, body, server }) =>
    askedOf(server.series.start(person.studioId, params.series!, body.rows ?? null)),
);

export const DELETE = route('DELETE /api/v1/series/[series]/making', async ({ params, person, server }) =>
  askedOf(server.series.stop(person.studioId, params.series!)),
);
