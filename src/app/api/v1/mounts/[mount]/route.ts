import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const DELETE = route('DELETE /api/v1/mounts/[mount]', async ({ params, person, server }) => {
  if (!(await server.studio.setRemoved(person.studioId, params.mount!, true)))
    throw new Refusal(404, 'There is no such mount.');
  return {};
});
