import type { RegistrationResponseJSON } from '@simplewebauthn/server';
import type { NewPasskey } from '@/core/studio/account';
import { originOf } from '@/server/http/own-address';
import { route } from '@/server/http/route';

export const POST = route<NewPasskey>('POST /api/v1/account/passkeys', async ({ asked, body, person, server }) => {
  await server.passkeys.add(person.accountId, originOf(asked), body.name, body.answer as RegistrationResponseJSON);
  return server.accounts.own(person.accountId);
});
