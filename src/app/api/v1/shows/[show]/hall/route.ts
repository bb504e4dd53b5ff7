import { showId } from '@/core/show/ids';
import type { RemoteNews } from '@/core/showing/showing-schema';
import type { HallInvitation } from '@/server/http/answers';
import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

export const POST = route<{ end?: boolean }>(
  'POST /api/v1/shows/[show]/hall',
  async ({ params, body, server: { hall } }): Promise<HallInvitation> => {
    const show = showId(params.show!);
    if (!hall) return { addresses: [], code: null };
    if (body.end) {
      hall.end(show);
      return { addresses: hall.addresses, code: null };
    }
    return { addresses: hall.addresses, code: hall.invite(show) };
  },
);

export const PATCH = route<RemoteNews>(
  'PATCH /api/v1/shows/[show]/hall',
  async ({ params, body, server: { hall } }) => {
    hall?.tell(showId(params.show!), body);
    return {};
  },
);
