import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const POST = route('POST /api/v1/joining/[word]/visit', async ({ params, person, server }) => {
  const invitation = await server.invitations.find(params.word!);
  if (!invitation?.show) throw new Refusal(404, 'This invitation was used already, taken back, or is too old.');
  const { id, studioId, show } = invitation;
  if (!(await server.invitations.use(id))) throw new Refusal(404, 'This invitation was used already.');
  await server.accounts.letInto(person.accountId, show.id);
  await server.audit.note({ studioId, accountId: person.accountId, name: person.name, did: 'joined' });
  return { id: show.id };
});
