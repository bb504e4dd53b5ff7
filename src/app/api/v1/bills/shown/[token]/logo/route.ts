import { logoOf } from '@/server/http/logo';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/bills/shown/[token]/logo', async ({ params, server }) =>
  logoOf((await server.bills.find(params.token!))?.studioId, server),
);
