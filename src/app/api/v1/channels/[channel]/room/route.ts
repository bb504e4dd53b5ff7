import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** How much room there is at a host. */
export const GET = route('GET /api/v1/channels/[channel]/room', async ({ params, person, server, request }) => {
  const own = (await server.channels.list(person.studioId)).find(({ id }) => id === params.channel);
  if (!own) throw new Refusal(404, 'The studio is not signed in there.');
  return { room: await server.channels.room(own, request.signal) };
});
