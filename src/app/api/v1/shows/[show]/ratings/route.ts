import { showId } from '@/core/show/ids';
import { route } from '@/server/http/route';

/** Ratings of files beside pictures, by the names of those files. */
export const POST = route<{ ratings: Record<string, number> }>(
  'POST /api/v1/shows/[show]/ratings',
  async ({ params, body, server }) => ({
    rated: await server.sheet.rate(showId(params.show!), new Map(Object.entries(body.ratings))),
  }),
);
