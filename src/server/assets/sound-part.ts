import { assetId } from '../../core/show/ids';
import { Refusal } from '../http/refusal';
import type { Asking } from '../http/route';

/** Hands out something made from a sound (or a clip's sound) at intake. */
export function soundPart(name: 'listening.opus' | 'peaks', mime: string) {
  return async ({ params, server: { sheet, blobs } }: Asking<undefined>): Promise<Response> => {
    const id = assetId(params.asset!);
    const facts = (await sheet.factsOf([id])).get(id);
    if (!(facts?.kind === 'sound' || (facts?.kind === 'clip' && facts.hasSound)))
      throw new Refusal(404, 'There is no such sound.');
    return new Response((await blobs.readDerived(id, name)).slice(), {
      headers: { 'content-type': mime, 'cache-control': 'private, max-age=31536000, immutable' },
    });
  };
}
