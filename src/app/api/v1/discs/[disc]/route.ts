import type { DiscChange } from '@/core/disc/disc-plan';
import { askedOf, thereOf } from '@/server/disc/asked';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/discs/[disc]', async ({ params, person, server }) =>
  thereOf(await server.discs.find(person.studioId, params.disc!)),
);

export const PATCH = route<DiscChange>('PATCH /api/v1/discs/[disc]', async ({ params, person, body, server }) =>
  askedOf(server.discs.change(person.studioId, params.disc!, body)),
);

export const DELETE = route('DELETE /api/v1/discs/[disc]', async ({ params, person, server }) =>
  askedOf(server.discs.remove(person.studioId, params.disc!)),
);
