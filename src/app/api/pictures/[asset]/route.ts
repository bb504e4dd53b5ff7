import { readFile } from 'node:fs/promises';
import { answer, Refusal } from '@/server/answer';
import { printFile, PRINT_WIDTHS } from '@/server/assets/derive';
import { runningServer } from '@/server/running-server';
import { assetId } from '@/core/show/ids';
import { isHash } from '@/server/schema/hash';

/** A print of a picture at least `?width=` pixels wide, or a clip's first frame. Named by content, so it never changes. */
export function GET(request: Request, { params }: { params: Promise<{ asset: string }> }): Promise<Response> {
  return answer(request, async () => {
    const { asset } = await params;
    if (!isHash(asset)) throw new Refusal(404, 'There is no such picture.');
    const width = Number(new URL(request.url).searchParams.get('width') ?? PRINT_WIDTHS[0]);
    if (!(width > 0 && width <= 16_384)) throw new Refusal(422, 'width must be a number of pixels.');
    const { sheet, blobs } = await runningServer();
    const id = assetId(asset);
    const facts = (await sheet.factsOf([id])).get(id);
    if (!facts || facts.kind === 'sound') throw new Refusal(404, 'There is no such picture.');
    const print =
      facts.kind === 'picture'
        ? await printFile(id, facts, width, blobs)
        : { file: blobs.derivedFile(id, '320.jpg'), mime: 'image/jpeg' };
    return new Response(new Uint8Array(await readFile(print.file)), {
      headers: { 'content-type': print.mime, 'cache-control': 'private, max-age=31536000, immutable' },
    });
  });
}
