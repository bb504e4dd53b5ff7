import { askedOf } from '@/server/disc/asked';
import { route } from '@/server/http/route';

export const POST = route('POST /api/v1/discs/[disc]/making', async ({ params, person, server }) =>
  askedOf(server.discs.start(person.studioId, params.disc!)),
);

export const DELETE = route('DELETE /api/v1/discs/[disc]/making', async ({ params, person, server }) =>
  askedOf(server.discs.stop(person.studioId, params.disc!)),
);
