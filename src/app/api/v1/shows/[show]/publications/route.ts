import type { NewPublication } from '@/core/publishing/publication';
import { showId } from '@/core/show/ids';
import { originOf } from '@/server/http/own-address';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/shows/[show]/publications', async ({ params, server }) => ({
  publications: await server.publishing.list(showId(params.show!)),
}));

export const POST = route<NewPublication>(
  'POST /api/v1/shows/[show]/publications',
  async ({ params, body, person, asked, server }) => {
    const sender = {
      studioId: person.studioId,
      email: await server.accounts.emailOf(person.accountId),
      origin: originOf(asked),
    };
    const ids = await server.publishing.order(showId(params.show!), body, sender);
    if (typeof ids === 'string') throw new Refusal(422, ids);
    return { ids };
  },
);
