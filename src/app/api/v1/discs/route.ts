import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/discs', async ({ person, server }) => ({
  discs: await server.discs.list(person.studioId),
}));
