import { assetId, showId } from '@/core/show/ids';
import type { EvenedWish } from '@/core/timing/evened-clip';
import { evenClip } from '@/server/assets/even-clip';
import { madeAsLines } from '@/server/http/made-as-lines';
import { route } from '@/server/http/route';

/** A copy of a clip whose frames come evenly, on the contact sheet; who hangs up does not want it any more. */
export const POST = route<EvenedWish>(
  'POST /api/v1/shows/[show]/clips/[asset]/evened',
  ({ request, params, body, server }) =>
    Promise.resolve(
      madeAsLines(request.signal, (onProgress, signal) =>
        evenClip(server, showId(params.show!), assetId(params.asset!), body, onProgress, signal),
      ),
    ),
);
