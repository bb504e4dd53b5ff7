import { showId } from '@/core/show/ids';
import { route } from '@/server/http/route';
import type { WantedTake } from '@/server/recording/recording-service';

/** Keeps a recording as a file of the show, cleaned as well when that is wanted. */
export const POST = route<WantedTake>('POST /api/v1/shows/[show]/takes/[take]', ({ params, body, server }) =>
  server.recording.keep(showId(params.show!), params.take!, body),
);

/** What came of it is kept, or nobody wants it. */
export const DELETE = route('DELETE /api/v1/shows/[show]/takes/[take]', async ({ params, server }) => {
  await server.recording.letGo(showId(params.show!), params.take!);
  return {};
});
