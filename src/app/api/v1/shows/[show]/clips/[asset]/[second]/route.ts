import { assetId } from '@/core/show/ids';
import { clipSecond } from '@/server/assets/derive';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** One second of a clip: its JPEG frames one after the other; `x-frame-lengths` says how many bytes each has. */
export const GET = route('GET /api/v1/shows/[show]/clips/[asset]/[second]', async ({ params, server }) => {
  const id = assetId(params.asset!);
  const isClip = (await server.sheet.factsOf([id])).get(id)?.kind === 'clip';
  const found = isClip ? await clipSecond(id, Number(params.second), server.blobs) : null;
  if (!found) throw new Refusal(404, 'There is no such part of a clip.');
  return new Response(found.bytes.slice(), {
    headers: {
      'content-type': 'video/x-motion-jpeg',
      'x-frame-lengths': found.lengths.join(','),
      'cache-control': 'private, max-age=31536000, immutable',
    },
  });
});
