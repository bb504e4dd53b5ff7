import type { NewProof } from '@/core/proof/proof';
import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/shows/[show]/proofs', async ({ params, server }) => ({
  proofs: await server.proofs.list(showId(params.show!)),
}));

export const POST = route<NewProof>('POST /api/v1/shows/[show]/proofs', async ({ params, body, person, server }) => {
  const id = await server.proofs.open(person.studioId, showId(params.show!), body);
  if (id === null) throw new Refusal(422, 'A picture that is to be shown is not on the contact sheet.');
  return { id };
});
