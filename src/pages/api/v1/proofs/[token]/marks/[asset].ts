import type { ClientMark } from '@/core/proof/proof';
import { assetId } from '@/core/show/ids';
import { countOne } from '@/server/http/limits';
import { pagesRoute } from '@/server/http/pages-route';
import { Refusal } from '@/server/http/refusal';
import { isHash } from '@/server/schema/hash';

export const config = { api: { bodyParser: { sizeLimit: '8kb' } } };

export default pagesRoute<Omit<ClientMark, 'assetId'>>(
  'PATCH /api/v1/proofs/[token]/marks/[asset]',
  async ({ params, body, server, address }) => {
    await countOne('mark-from', address);
    const { token, asset } = params;
    const note = body.note.trim();
    const done = isHash(asset)
      ? await server.proofs.mark(token!, { assetId: assetId(asset), mark: body.mark, note })
      : 'not-there';
    if (done === 'not-there') throw new Refusal(404, 'There is no such picture.');
    if (done === 'sent') throw new Refusal(409, 'The choice was sent already. Ask the studio to open it again.');
    return {};
  },
);
