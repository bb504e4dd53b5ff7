import { thereOf } from '@/server/disc/asked';
import { route } from '@/server/http/route';

/** How far its image and its copies are, as can be asked often. */
export const GET = route('GET /api/v1/discs/[disc]/far', async ({ params, person, server }) =>
  thereOf(await server.discs.far(person.studioId, params.disc!)),
);
