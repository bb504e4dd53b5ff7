import { showId } from '@/core/show/ids';
import type { Show } from '@/core/show/show';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import type { RunningServer } from '@/server/running-server';
import { timelineFor, timelineRead } from '@/server/shows/timelines';

/** The show as a timeline in OpenTimelineIO. */
export const GET = route('GET /api/v1/shows/[show]/timeline', async ({ params, server }) =>
  timelineFor(await showOf(server, params.show!), server.sheet),
);

/** What the show would be like after a timeline; nothing changes yet. */
export const POST = route<{ timeline: unknown }>(
  'POST /api/v1/shows/[show]/timeline',
  async ({ params, body, server }) => timelineRead(body.timeline, await showOf(server, params.show!), server.sheet),
);

async function showOf(server: RunningServer, id: string): Promise<Show> {
  const opened = await server.shows.load(showId(id));
  if (!opened) throw new Refusal(404, 'There is no such show.');
  if (opened.damage !== null) throw new Refusal(409, opened.damage);
  return opened.show;
}
