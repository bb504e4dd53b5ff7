import { plainEmail, type SignIn } from '@/core/studio/account';
import { countOne, uncountOne } from '@/server/http/limits';
import { pagesRoute } from '@/server/http/pages-route';
import { Refusal } from '@/server/http/refusal';
import { signIn } from '@/server/studio/signed-in';

export const config = { api: { bodyParser: { sizeLimit: '4kb' } } };

export default pagesRoute<SignIn>('POST /api/v1/session/password', async (asking) => {
  const { body, server, address } = asking;
  const whose = plainEmail(body.email);
  await countOne('sign-in-from', address);
  await countOne('sign-in-for', whose);
  const found = await server.accounts.signIn(body);
  if (!found) {
    const meant = await server.accounts.byEmail(whose);
    if (meant)
      await server.audit.note({
        studioId: meant.studioId,
        accountId: null,
        name: meant.name,
        did: 'wrong-password',
      });
    throw new Refusal(403, 'E-mail address and password do not belong together.');
  }
  await uncountOne('sign-in-from', address);
  await uncountOne('sign-in-for', whose);
  await signIn(asking, found.accountId, 'signed-in');
  return {};
});
