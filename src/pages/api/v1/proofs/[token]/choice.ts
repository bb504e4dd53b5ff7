import { countOne } from '@/server/http/limits';
import { pagesRoute } from '@/server/http/pages-route';
import { Refusal } from '@/server/http/refusal';

export const config = { api: { bodyParser: { sizeLimit: '4kb' } } };

export default pagesRoute<{ name: string }>(
  'POST /api/v1/proofs/[token]/choice',
  async ({ params, body, server, address }) => {
    await countOne('mark-from', address);
    const done = await server.proofs.send(params.token!, body.name);
    if (done === 'not-there') throw new Refusal(404, 'There is nothing here.');
    if (done === 'sent') throw new Refusal(409, 'The choice was sent already.');
    return {};
  },
);
