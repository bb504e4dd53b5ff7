import type { ScreeningChange } from '@/core/screening/screening-settings';
import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import { NO_SCREENING, NOT_SCREENED } from '@/server/screenings/screening-service';

export const PATCH = route<ScreeningChange>(
  'PATCH /api/v1/shows/[show]/screenings/[screening]',
  async ({ params, body, server }) => {
    const changed = await server.screenings.change(showId(params.show!), params.screening!, body);
    if (!changed) throw new Refusal(404, NO_SCREENING);
    if (changed === 'films') throw new Refusal(409, NOT_SCREENED);
    return {};
  },
);

export const DELETE = route('DELETE /api/v1/shows/[show]/screenings/[screening]', async ({ params, server }) => {
  if (!(await server.screenings.remove(showId(params.show!), params.screening!))) throw new Refusal(404, NO_SCREENING);
  return {};
});
