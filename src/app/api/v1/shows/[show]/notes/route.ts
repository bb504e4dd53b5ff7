import { showId } from '@/core/show/ids';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/shows/[show]/notes', async ({ params, server }) => ({
  notes: await server.screenings.book.all(showId(params.show!)),
}));
