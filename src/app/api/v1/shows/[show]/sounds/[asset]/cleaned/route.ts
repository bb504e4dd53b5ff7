import { assetId, showId } from '@/core/show/ids';
import type { Cleaning } from '@/core/sound/voice/cleaning';
import { route } from '@/server/http/route';

/** A voice, cleaned, as a file of its own on the sheet; who hangs up does not want it any more. */
export const POST = route<{ how: Cleaning }>(
  'POST /api/v1/shows/[show]/sounds/[asset]/cleaned',
  ({ params, body, server, request }) =>
    server.recording.clean(showId(params.show!), assetId(params.asset!), body.how, request.signal),
);
