import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import type { ReadEdits } from '@/server/http/routes';

export const POST = route<ReadEdits>('POST /api/v1/shows/[show]/edits', async ({ params, body, server }) => {
  const applied = await server.shows.applyEdits(showId(params.show!), body.edits, body.knownRevision, body.basedOn);
  if (applied === null) throw new Refusal(404, 'There is no such show.');
  if ('problem' in applied) throw new Refusal(422, applied.problem);
  return applied;
});
