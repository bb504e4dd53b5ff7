import { showId } from '@/core/show/ids';
import { route } from '@/server/http/route';
import type { NewTake } from '@/server/recording/recording-service';

export const GET = route('GET /api/v1/shows/[show]/takes', async ({ params, server }) => ({
  takes: await server.recording.unkept(showId(params.show!)),
}));

export const POST = route<NewTake>('POST /api/v1/shows/[show]/takes', async ({ params, body, server }) => ({
  id: await server.recording.begin(showId(params.show!), body),
}));
