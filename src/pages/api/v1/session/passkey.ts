import type { AuthenticationResponseJSON } from '@simplewebauthn/server';
import { countOne, uncountOne } from '@/server/http/limits';
import { originOf } from '@/server/http/own-address';
import { pagesRoute } from '@/server/http/pages-route';
import { Refusal } from '@/server/http/refusal';
import { signIn } from '@/server/studio/signed-in';

export const config = { api: { bodyParser: { sizeLimit: '16kb' } } };

export default pagesRoute<AuthenticationResponseJSON>('POST /api/v1/session/passkey', async (asking) => {
  const { body, asked, server, address } = asking;
  await countOne('sign-in-from', address);
  if (typeof body?.id !== 'string') throw new Refusal(422, 'That is not what a passkey answers.');
  const found = await server.passkeys.signIn(originOf(asked), body);
  if (!found) throw new Refusal(403, 'This passkey does not belong to anybody here.');
  await uncountOne('sign-in-from', address);
  await signIn(asking, found.accountId, 'signed-in');
  return {};
});
