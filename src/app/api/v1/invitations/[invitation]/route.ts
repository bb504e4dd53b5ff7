import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const DELETE = route('DELETE /api/v1/invitations/[invitation]', async ({ params, person, server }) => {
  if (!(await server.invitations.takeBack(person.studioId, params.invitation!)))
    throw new Refusal(404, 'This invitation was used already, or taken back.');
  return {};
});
