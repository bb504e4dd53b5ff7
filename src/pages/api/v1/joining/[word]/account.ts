import type { NewAccount } from '@/core/studio/account';
import { countOne, uncountOne } from '@/server/http/limits';
import { pagesRoute } from '@/server/http/pages-route';
import { Refusal } from '@/server/http/refusal';
import { signIn } from '@/server/studio/signed-in';

export const config = { api: { bodyParser: { sizeLimit: '4kb' } } };

export default pagesRoute<NewAccount>('POST /api/v1/joining/[word]/account', async (asking) => {
  const { params, body, server, address } = asking;
  await countOne('sign-in-from', address);
  const invitation = await server.invitations.find(params.word!);
  if (!invitation) throw new Refusal(404, 'This invitation was used already, taken back, or is too old.');
  const { id, studioId, role, show } = invitation;
  const accountId = await server.accounts.create({ studioId, role }, body);
  if (!(await server.invitations.use(id))) {
    await server.accounts.remove(studioId, accountId);
    throw new Refusal(404, 'This invitation was used already.');
  }
  if (show) await server.accounts.letInto(accountId, show.id);
  await uncountOne('sign-in-from', address);
  await signIn(asking, accountId, 'joined');
  return {};
});
