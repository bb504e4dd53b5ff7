import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import { NO_SCREENING } from '@/server/screenings/screening-service';

/** Another link: the one given before leads nowhere any more. */
export const POST = route('POST /api/v1/shows/[show]/screenings/[screening]/link', async ({ params, server }) => {
  if (!(await server.screenings.renew(showId(params.show!), params.screening!))) throw new Refusal(404, NO_SCREENING);
  return {};
});
