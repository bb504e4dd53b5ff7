import { showId } from '@/core/show/ids';
import type { ShowingCommand } from '@/core/showing/showing';
import { eventStream } from '@/server/http/event-stream';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

/** Server-sent events: what remotes in the hall ask for. */
export const GET = route(
  'GET /api/v1/shows/[show]/hall/events',
  async ({ request, params, stillMay, server: { hall } }) => {
    if (!hall) throw new Refusal(404, 'The hall’s door is shut. Start Tanager with --hall to open it.');
    return eventStream<ShowingCommand>(request, stillMay, (tell) => hall.listen(showId(params.show!), tell));
  },
);
