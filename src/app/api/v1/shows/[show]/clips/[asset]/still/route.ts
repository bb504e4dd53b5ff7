import { assetId, showId } from '@/core/show/ids';
import { takeStill } from '@/server/assets/take-still';
import { route } from '@/server/http/route';

/** A frame of a clip as a picture of its own, on the contact sheet. */
export const POST = route<{ atMs: number }>(
  'POST /api/v1/shows/[show]/clips/[asset]/still',
  ({ params, body, server }) => takeStill(server, showId(params.show!), assetId(params.asset!), body.atMs),
);
