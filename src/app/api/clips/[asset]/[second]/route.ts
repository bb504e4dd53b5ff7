import { open } from 'node:fs/promises';
import { answer, Refusal } from '@/server/answer';
import { clipSecond } from '@/server/assets/derive';
import { runningServer } from '@/server/running-server';
import { assetId } from '@/core/show/ids';
import { isHash } from '@/server/schema/hash';

/** One second of a clip: its JPEG frames one after the other; `x-frame-lengths` says how many bytes each has. */
export function GET(
  request: Request,
  { params }: { params: Promise<{ asset: string; second: string }> },
): Promise<Response> {
  return answer(request, async () => {
    const { asset, second } = await params;
    const { sheet, blobs } = await runningServer();
    const known = isHash(asset) && (await sheet.factsOf([assetId(asset)])).get(assetId(asset))?.kind === 'clip';
    const found = known ? await clipSecond(assetId(asset), Number(second), blobs) : null;
    if (!found) throw new Refusal(404, 'There is no such part of a clip.');
    const bytes = new Uint8Array(found.to - found.from);
    const file = await open(found.file);
    try {
      await file.read(bytes, 0, bytes.length, found.from);
    } finally {
      await file.close();
    }
    return new Response(bytes, {
      headers: {
        'content-type': 'video/x-motion-jpeg',
        'x-frame-lengths': found.lengths.join(','),
        'cache-control': 'private, max-age=31536000, immutable',
      },
    });
  });
}
