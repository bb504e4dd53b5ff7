import { showId } from '@/core/show/ids';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/shows/[show]/sheet', async ({ params, server }) => {
  const show = showId(params.show!);
  const loaded = await server.shows.load(show);
  return { entries: await server.sheet.entries(show, loaded?.show.methods), folder: server.folders.progress(show) };
});
