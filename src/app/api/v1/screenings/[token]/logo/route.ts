import { logoOf } from '@/server/http/logo';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/screenings/[token]/logo', async ({ params, server }) =>
  logoOf((await server.screenings.find(params.token!))?.studioId, server),
);
