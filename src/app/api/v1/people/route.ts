import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/people', async ({ person, server }) => ({
  people: await server.accounts.people(person.studioId),
}));
