import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** Brings a mount back that was taken off the shelf. */
export const DELETE = route('DELETE /api/v1/mounts/[mount]/removal', async ({ params, actor, server }) => {
  if (!(await server.studio.setRemoved(actor.studioId, params.mount!, false)))
    throw new Refusal(404, 'There is no such mount.');
  return {};
});
