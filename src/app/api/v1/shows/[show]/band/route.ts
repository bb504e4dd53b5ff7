import { showId } from '@/core/show/ids';
import type { BandWishes } from '@/core/sound/band/band-wishes';
import { madeAsLines } from '@/server/http/made-as-lines';
import { route } from '@/server/http/route';

/** A piece of the house band, played onto the sheet. */
export const POST = route<BandWishes>('POST /api/v1/shows/[show]/band', ({ request, params, body, server }) =>
  Promise.resolve(
    madeAsLines(request.signal, (onProgress, signal) =>
      server.band.play(showId(params.show!), body, onProgress, signal),
    ),
  ),
);
