import type { RegistrationResponseJSON } from '@simplewebauthn/server';
import type { NewPasskey } from '@/core/studio/account';
import { originOf } from '@/server/http/own-address';
import { route } from '@/server/http/route';

export const POST = route<NewPasskey>('POST /api/v1/account/passkeys', async ({ request, body, person, server }) => {
  const origin = originOf({ method: 'POST', header: (name) => request.headers.get(name) });
  await server.passkeys.add(person.accountId, origin, body.name, body.answer as RegistrationResponseJSON);
  return server.accounts.own(person.accountId);
});
