import { assetId } from '@/core/show/ids';
import { clipSecond } from '@/server/assets/derive';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/**
 * One second of a clip: its JPEG frames one after the other; `x-frame-lengths` says how many bytes each has. With `?frame=` only that one of them, or the last
 * there is, as a picture.
 */
export const GET = route('GET /api/v1/shows/[show]/clips/[asset]/[second]', async ({ request, params, server }) => {
  const id = assetId(params.asset!);
  const isClip = (await server.sheet.factsOf([id])).get(id)?.kind === 'clip';
  const found = isClip ? await clipSecond(id, Number(params.second), server.blobs) : null;
  if (!found) throw new Refusal(404, 'There is no such part of a clip.');
  const only = new URL(request.url).searchParams.get('frame');
  if (only !== null) {
    const frame = Math.min(Number(only), found.lengths.length - 1);
    if (!Number.isInteger(frame) || frame < 0) throw new Refusal(422, 'frame must be a whole number from 0.');
    const from = found.lengths.slice(0, frame).reduce((sum, length) => sum + length, 0);
    return new Response(found.bytes.slice(from, from + found.lengths[frame]!), {
      headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=31536000, immutable' },
    });
  }
  return new Response(found.bytes.slice(), {
    headers: {
      'content-type': 'video/x-motion-jpeg',
      'x-frame-lengths': found.lengths.join(','),
      'cache-control': 'private, max-age=31536000, immutable',
    },
  });
});
