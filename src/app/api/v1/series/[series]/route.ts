import type { SeriesChange } from '@/core/series/series';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import { askedOf, NO_SERIES } from '@/server/series/asked';
import { mayDo } from '@/server/studio/may-do';

export const GET = route('GET /api/v1/series/[series]', async ({ params, person, server }) => {
  const found = await server.series.find(person.studioId, params.series!);
  if (!found) throw new Refusal(404, NO_SERIES);
  return found;
});

export const PATCH = route<SeriesChange>('PATCH /api/v1/series/[series]', async ({ params, person, body, server }) => {
  // Folders of the server's disk are not for every studio.
  if (body.folder && !(await mayDo(server.db, person, 'see-folders', {})))
    throw new Refusal(422, 'There is no such folder on the server’s disk.');
  return askedOf(server.series.change(person.studioId, params.series!, body));
});

/** Its shows are taken off the shelf; they can be brought back there. */
export const DELETE = route('DELETE /api/v1/series/[series]', async ({ params, person, server }) =>
  askedOf(server.series.remove(person.studioId, params.series!)),
);
