import { showId } from '@/core/show/ids';
import type { Cleaning } from '@/core/sound/voice/cleaning';
import { route } from '@/server/http/route';

/** Keeps a recording as a file of the show, cleaned as well when that is wanted. */
export const POST = route<{ how: Cleaning | null }>(
  'POST /api/v1/shows/[show]/takes/[take]',
  ({ params, body, server }) => server.recording.keep(showId(params.show!), params.take!, body.how),
);

/** What came of it is kept, or nobody wants it. */
export const DELETE = route('DELETE /api/v1/shows/[show]/takes/[take]', async ({ params, server }) => {
  await server.recording.letGo(showId(params.show!), params.take!);
  return {};
});
