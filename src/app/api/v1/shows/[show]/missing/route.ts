import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

/** Files of the show that are not there, and how far the search for them is. */
export const GET = route('GET /api/v1/shows/[show]/missing', async ({ params, server }) => {
  const id = showId(params.show!);
  const opened = await server.shows.load(id);
  if (!opened) throw new Refusal(404, 'There is no such show.');
  return { missing: await server.missing.of(opened.show), search: server.missing.search(id) };
});

/** Looks for all of them in a folder of the server’s disk. */
export const POST = route<{ folder: string }>('POST /api/v1/shows/[show]/missing', async ({ params, body, server }) => {
  const opened = await server.shows.load(showId(params.show!));
  if (!opened) throw new Refusal(404, 'There is no such show.');
  if (!(await server.missing.look(opened.show, body.folder)))
    throw new Refusal(404, 'There is no such folder on the server’s disk.');
  return {};
});
