import { openApi } from '@/server/http/openapi';
import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

export const GET = route('GET /api/v1/openapi', async () => openApi());
