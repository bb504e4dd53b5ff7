import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/bundles', async ({ person, server }) => ({
  bundles: await server.bundles.list(person.studioId),
}));
