import type { NewToken } from '@/core/studio/api-token';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/tokens', async ({ person, server }) => ({
  tokens: await server.tokens.list(person.accountId),
}));

/** Its word is told this once. */
export const POST = route<NewToken>('POST /api/v1/tokens', async ({ person, body, server }) => ({
  word: await server.tokens.make(person.accountId, body),
}));
