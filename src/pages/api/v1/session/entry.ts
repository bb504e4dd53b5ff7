import { countOne, uncountOne } from '@/server/http/limits';
import { pagesRoute } from '@/server/http/pages-route';
import { Refusal } from '@/server/http/refusal';
import { signIn } from '@/server/studio/signed-in';

export const config = { api: { bodyParser: { sizeLimit: '4kb' } } };

export default pagesRoute<{ word: string }>('POST /api/v1/session/entry', async (asking) => {
  const { body, server, address } = asking;
  await countOne('sign-in-from', address);
  const found = await server.accounts.enter(body.word);
  if (!found) throw new Refusal(403, 'This link was used already, or its day is over.');
  await uncountOne('sign-in-from', address);
  await signIn(asking, found.accountId, 'signed-in');
  return {};
});
