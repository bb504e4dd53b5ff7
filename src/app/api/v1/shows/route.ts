import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

/** Every show of the studio, archived and removed ones too, last changed first. */
export const GET = route('GET /api/v1/shows', async ({ person, server }) => ({
  shows: await server.shows.shelf(person),
}));

export const POST = route<{ title: string }>('POST /api/v1/shows', async ({ body, person, server }) => {
  const { id } = await server.shows.create(body.title, person.studioId);
  await server.studio.begin(person.studioId, id);
  return { id };
});
