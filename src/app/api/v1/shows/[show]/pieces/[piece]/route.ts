import { showId } from '@/core/show/ids';
import { route } from '@/server/http/route';

/** A piece that ships with Tanager, put onto a show's sheet. */
export const POST = route('POST /api/v1/shows/[show]/pieces/[piece]', ({ params, server }) =>
  server.band.takePiece(showId(params.show!), params.piece!),
);
