import { showId } from '@/core/show/ids';
import type { ShowEvent } from '@/server/events';
import { eventStream } from '@/server/http/event-stream';
import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

/** Server-sent events: whether the page is still right, and from then on what changes. */
export const GET = route(
  'GET /api/v1/shows/[show]/events',
  async ({ request, params, stillMay, server: { events, sheet } }) => {
    const show = showId(params.show!);
    return eventStream<ShowEvent>(request, stillMay, (tell) => {
      const stop = events.listen(show, tell);
      // Counted once it is listened, so that nothing falls between; a page that has left meanwhile needs no answer.
      void sheet
        .tally(show)
        .then((tally) => tell({ kind: 'hello', ...tally }))
        .catch(() => {});
      return stop;
    });
  },
);
