import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import type { NewMount } from '@/server/http/routes';
import { mayDo } from '@/server/studio/may-do';

export const dynamic = 'force-dynamic';

export const GET = route('GET /api/v1/mounts', async ({ person, server }) => ({
  mounts: await server.studio.mounts(person.studioId),
}));

/** Keeps a mount whose files lie on a show's sheet. */
export const POST = route<NewMount>('POST /api/v1/mounts', async ({ body, person, server }) => {
  const from = showId(body.from);
  if (!(await mayDo(server.db, person, 'see-show', { show: from }))) throw new Refusal(404, 'There is no such show.');
  return server.studio.keep(person.studioId, body.mount, from);
});
