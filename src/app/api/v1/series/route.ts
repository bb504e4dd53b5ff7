import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/series', async ({ person, server }) => ({
  series: await server.series.list(person.studioId),
}));
