import { PLACES, type HostedPlace } from '@/core/publishing/publication';
import { originOf } from '@/server/http/own-address';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/channels', async ({ person: { studioId }, server: { places, channels } }) => {
  const isThere = (place: (typeof PLACES)[number]) =>
    (place === 'mail' ? places.mail(studioId) : places.host(place, studioId)) !== null;
  return {
    places: PLACES.filter(isThere).map((place) => ({ place, door: places.door(place, studioId) })),
    channels: await channels.list(studioId),
  };
});

export const POST = route<{ place: HostedPlace; show: string }>(
  'POST /api/v1/channels',
  async ({ person, body: { place, show }, asked, server }) => {
    const address = await server.channels.begin(person, place, show, originOf(asked)).catch((error: unknown) => {
      if (error instanceof Error && error.name === 'PassingError') throw new Refusal(503, error.message);
      throw error;
    });
    if (address === null) throw new Refusal(422, 'There is no such place in this server’s settings.');
    return { address };
  },
);
