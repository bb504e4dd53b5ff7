import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const DELETE = route('DELETE /api/v1/account/passkeys/[passkey]', async ({ params, person, server }) => {
  if (!(await server.passkeys.remove(person.accountId, params.passkey!)))
    throw new Refusal(404, 'There is no such passkey.');
  return server.accounts.own(person.accountId);
});
