import { askedOf } from '@/server/disc/asked';
import { route } from '@/server/http/route';

export const DELETE = route('DELETE /api/v1/discs/[disc]/burns/[burn]', async ({ params, person, server }) =>
  askedOf(server.discs.stopBurn(person.studioId, params.disc!, params.burn!)),
);
