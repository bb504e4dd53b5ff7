import { askedOf } from '@/server/disc/asked';
import { route } from '@/server/http/route';

export const POST = route<{ copies: number }>(
  'POST /api/v1/discs/[disc]/burns',
  async ({ params, person, body, server }) => askedOf(server.discs.burn(person.studioId, params.disc!, body.copies)),
);
