import { assetId } from '@/core/show/ids';
import { proxyOf, PROXY_WIDTHS } from '@/server/assets/derive';
import { proxyName, SHEET_PRINT_WIDTH } from '@/server/assets/write-derived';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** A print of a picture at least `?width=` pixels wide, or a clip's first frame. Named by content, so it never changes. */
export const GET = route('GET /api/v1/shows/[show]/pictures/[asset]', async ({ request, params, server }) => {
  const width = Number(new URL(request.url).searchParams.get('width') ?? PROXY_WIDTHS[0]);
  if (!(width > 0 && width <= 16_384)) throw new Refusal(422, 'width must be a number of pixels.');
  const id = assetId(params.asset!);
  const facts = (await server.sheet.factsOf([id])).get(id);
  if (!facts || facts.kind === 'sound') throw new Refusal(404, 'There is no such picture.');
  const print =
    facts.kind === 'picture'
      ? await proxyOf(id, facts, width, server).catch(async (error: unknown) => {
          if ((await server.blobs.cameAt(id)) === null) throw new Refusal(404, 'This file is not there any more.');
          throw error;
        })
      : { name: proxyName(SHEET_PRINT_WIDTH, false), mime: 'image/jpeg' };
  return new Response((await server.blobs.readDerived(id, print.name)).slice(), {
    headers: { 'content-type': print.mime, 'cache-control': 'private, max-age=31536000, immutable' },
  });
});
