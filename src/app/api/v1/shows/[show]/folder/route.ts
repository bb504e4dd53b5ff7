import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** Takes in a folder of the server's own disk, below the opened one. */
export const POST = route<{ folder: string }>('POST /api/v1/shows/[show]/folder', async ({ params, body, server }) => {
  const outcome = await server.folders.start(showId(params.show!), body.folder);
  if (outcome === 'not-there') throw new Refusal(404, 'There is no such folder on the server.');
  if (outcome === 'another-is-coming')
    throw new Refusal(409, 'Another folder is still being taken in. Wait for it, or stop it.');
  return {};
});

/** Stops taking it in; what has arrived stays. */
export const DELETE = route('DELETE /api/v1/shows/[show]/folder', async ({ params, server }) => {
  await server.folders.stop(showId(params.show!));
  return {};
});
