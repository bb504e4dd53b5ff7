import type { NewHook } from '@/core/studio/api-token';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/hooks', async ({ person, server }) => ({
  hooks: await server.hooks.list(person.studioId),
}));

/** The word by which what is told is signed is told this once. */
export const POST = route<NewHook>('POST /api/v1/hooks', async ({ person, body, server }) =>
  server.hooks.make(person.studioId, body),
);
