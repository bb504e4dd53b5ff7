import type { NewInvitation } from '@/core/studio/account';
import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import { mayDo } from '@/server/studio/may-do';

export const GET = route('GET /api/v1/invitations', async ({ person, server }) => ({
  invitations: await server.invitations.list(person.studioId),
}));

export const POST = route<NewInvitation>('POST /api/v1/invitations', async ({ body, person, server }) => {
  const { role, show } = body;
  if ((role === 'guest') !== (show !== null)) throw new Refusal(422, 'Guests, and they alone, are let into one show.');
  if (show !== null && !(await mayDo(server.db, person, 'send-show', { show: showId(show) })))
    throw new Refusal(404, 'There is no such show.');
  const { word } = await server.invitations.invite(person.studioId, body);
  return { word };
});
