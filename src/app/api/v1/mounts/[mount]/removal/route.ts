import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** Brings a mount back that was taken off the shelf. */
export const DELETE = route('DELETE /api/v1/mounts/[mount]/removal', async ({ params, person, server }) => {
  if (!(await server.studio.setRemoved(person.studioId, params.mount!, false)))
    throw new Refusal(404, 'There is no such mount.');
  return {};
});
