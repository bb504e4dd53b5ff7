import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** Signs the studio out there. */
export const DELETE = route('DELETE /api/v1/channels/[channel]', async ({ params, person, server }) => {
  if (!(await server.channels.remove(person.studioId, params.channel!)))
    throw new Refusal(404, 'The studio is not signed in there.');
  return {};
});
