import { readFile } from 'node:fs/promises';
import { assetId } from '../../core/show/ids';
import { answer, Refusal } from '../answer';
import { runningServer } from '../running-server';
import { isHash } from '../schema/hash';

/** A route that hands out something made from a sound (or a clip's sound) at intake. */
export function soundPart(name: 'listening.opus' | 'peaks', mime: string) {
  return (request: Request, { params }: { params: Promise<{ asset: string }> }): Promise<Response> =>
    answer(request, async () => {
      const { asset } = await params;
      const { sheet, blobs } = await runningServer();
      const facts = isHash(asset) ? (await sheet.factsOf([assetId(asset)])).get(assetId(asset)) : undefined;
      const sounds = facts?.kind === 'sound' || (facts?.kind === 'clip' && facts.hasSound);
      if (!sounds) throw new Refusal(404, 'There is no such sound.');
      const bytes = await readFile(blobs.derivedFile(assetId(asset), name));
      return new Response(new Uint8Array(bytes), {
        headers: { 'content-type': mime, 'cache-control': 'private, max-age=31536000, immutable' },
      });
    });
}
