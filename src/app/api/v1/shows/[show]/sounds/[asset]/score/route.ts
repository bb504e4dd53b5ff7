import { assetId, showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

const KINDS = { midi: 'audio/midi', musicxml: 'application/vnd.recordare.musicxml+xml' } as const;

/** The notes of a piece of the house band, for other programs. */
export const GET = route('GET /api/v1/shows/[show]/sounds/[asset]/score', async ({ request, params, server }) => {
  const as = new URL(request.url).searchParams.get('as') ?? 'midi';
  if (as !== 'midi' && as !== 'musicxml') throw new Refusal(422, 'A score can be had as midi or as musicxml.');
  const { name, bytes } = await server.band.score(showId(params.show!), assetId(params.asset!), as);
  return new Response(bytes as Uint8Array<ArrayBuffer>, {
    headers: {
      'content-type': KINDS[as],
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
      'cache-control': 'private, no-store',
    },
  });
});
