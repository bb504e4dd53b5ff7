import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import { shownProof } from '@/server/proofs/shown-proof';

export const GET = route('GET /api/v1/proofs/[token]', async ({ params, server }) => {
  const proof = await server.proofs.find(params.token!);
  if (!proof) throw new Refusal(404, 'There is nothing here.');
  return shownProof(params.token!, proof, server);
});
