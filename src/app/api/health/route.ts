import { route } from '@/server/http/route';
import { healthOf } from '@/server/health';

export const dynamic = 'force-dynamic';

/** Whether the server can do its work: for whoever watches over it. */
export const GET = route('GET /api/health', async ({ server }) => {
  const health = await healthOf(server);
  return Response.json(health, { status: health.ok ? 200 : 503 });
});
