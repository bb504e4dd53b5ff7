import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route, type PathParts } from '@/server/http/route';
import type { RunningServer } from '@/server/running-server';
import { NO_SCREENING } from '@/server/screenings/screening-service';

/** Into so many equal parts a film is divided. */
const PARTS = 100;

export const GET = route('GET /api/v1/shows/[show]/screenings/[screening]/watched', async ({ params, server }) => {
  const { token } = await own(server, params);
  const lengthMs = (await server.screenings.find(token))?.films[0]?.lengthMs ?? 1;
  return server.screenings.viewings.watched(params.screening!, lengthMs, PARTS);
});

/** What was counted is forgotten; counting begins anew. */
export const DELETE = route(
  'DELETE /api/v1/shows/[show]/screenings/[screening]/watched',
  async ({ params, server }) => {
    await own(server, params);
    await server.screenings.viewings.forget(params.screening!);
    return {};
  },
);

async function own(server: RunningServer, params: PathParts) {
  const row = await server.screenings.row(showId(params.show!), params.screening!);
  if (!row) throw new Refusal(404, NO_SCREENING);
  return row;
}
