import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

const NO_SHOW = 'There is no such show.';

export const GET = route('GET /api/v1/shows/[show]', async ({ params, server }) => {
  const loaded = await server.shows.load(showId(params.show!));
  if (!loaded) throw new Refusal(404, NO_SHOW);
  return loaded;
});

/** Renames the show, or puts it into the archive or back on the shelf. */
export const PATCH = route<{ title?: string; archived?: boolean }>(
  'PATCH /api/v1/shows/[show]',
  async ({ params, body: { title, archived }, server }) => {
    const id = showId(params.show!);
    if (title !== undefined) {
      const outcome = await server.shows.rename(id, title);
      if (outcome !== 'done')
        throw new Refusal(outcome === 'not-there' ? 404 : 422, outcome === 'not-there' ? NO_SHOW : outcome.refused);
    }
    if (archived !== undefined && !(await server.shows.setArchived(id, archived))) throw new Refusal(404, NO_SHOW);
    return {};
  },
);

/** Takes the show off the shelf; DELETE of `removal` brings it back. */
export const DELETE = route('DELETE /api/v1/shows/[show]', async ({ params, server }) => {
  if (!(await server.shows.setRemoved(showId(params.show!), true))) throw new Refusal(404, NO_SHOW);
  return {};
});
