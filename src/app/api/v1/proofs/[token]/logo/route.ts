import { logoOf } from '@/server/http/logo';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/proofs/[token]/logo', async ({ params, server }) =>
  logoOf((await server.proofs.find(params.token!))?.studioId, server),
);
