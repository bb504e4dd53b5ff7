import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/audit', async ({ request, person, server }) => {
  const before = Number(new URL(request.url).searchParams.get('before') ?? NaN);
  return { done: await server.audit.list(person.studioId, Number.isSafeInteger(before) ? before : null) };
});
