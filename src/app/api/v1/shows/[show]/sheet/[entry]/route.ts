import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const DELETE = route('DELETE /api/v1/shows/[show]/sheet/[entry]', async ({ params, server }) => {
  if (!(await server.sheet.takeOff(showId(params.show!), params.entry!)))
    throw new Refusal(404, 'That file is no longer on the contact sheet.');
  return {};
});
