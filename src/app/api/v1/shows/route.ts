import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

/** Every show of the studio, archived and removed ones too, last changed first. */
export const GET = route('GET /api/v1/shows', async ({ actor, server }) => ({
  shows: await server.shows.shelf(actor.studioId),
}));

export const POST = route<{ title: string }>('POST /api/v1/shows', async ({ body, actor, server }) => {
  const { id } = await server.shows.create(body.title, actor.studioId);
  await server.studio.begin(actor.studioId, id);
  return { id };
});
