import type { ProofChange } from '@/core/proof/proof';
import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

const GONE = 'There is no such proof.';

export const PATCH = route<ProofChange>(
  'PATCH /api/v1/shows/[show]/proofs/[proof]',
  async ({ params, body, server }) => {
    if (!(await server.proofs.change(showId(params.show!), params.proof!, body))) throw new Refusal(404, GONE);
    return {};
  },
);

/** With all the client marked in it. */
export const DELETE = route('DELETE /api/v1/shows/[show]/proofs/[proof]', async ({ params, server }) => {
  if (!(await server.proofs.remove(showId(params.show!), params.proof!))) throw new Refusal(404, GONE);
  return {};
});
