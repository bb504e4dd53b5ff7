import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** Stops one that is on its way in, or takes its line off the list. */
export const DELETE = route('DELETE /api/v1/bundles/[bundle]', async ({ params, person, server }) => {
  if (!(await server.bundles.dismiss(person.studioId, params.bundle!)))
    throw new Refusal(404, 'There is no such file.');
  return {};
});
