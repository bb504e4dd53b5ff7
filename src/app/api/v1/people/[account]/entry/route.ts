import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const POST = route('POST /api/v1/people/[account]/entry', async ({ params, person, server }) => {
  const own = await server.accounts.isOf(person.studioId, params.account!);
  if (!own) throw new Refusal(404, 'Nobody of that name is here.');
  return { word: await server.accounts.entryFor(params.account!) };
});
