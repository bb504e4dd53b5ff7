import { assetId } from '@/core/show/ids';
import { proxyOf } from '@/server/assets/derive';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

const LIMITS = { timeMs: 30_000, memoryBytes: 1e9 };

/** A picture of a proof at most `?longest=` pixels long, and never longer than was chosen for it. */
export const GET = route('GET /api/v1/proofs/[token]/pictures/[asset]', async ({ request, params, server }) => {
  const wanted = Number(new URL(request.url).searchParams.get('longest') ?? NaN);
  if (!(wanted >= 16 && wanted <= 16_384)) throw new Refusal(422, '“longest” must be a number of pixels.');
  const proof = await server.proofs.find(params.token!);
  const id = proof?.pictures.find((picture) => picture === params.asset);
  const facts = id && (await server.sheet.factsOf([id])).get(id);
  if (!proof || !id || facts?.kind !== 'picture') throw new Refusal(404, 'There is no such picture.');
  const longest = Math.min(Math.round(wanted), proof.longestPx);
  // Prints are named by their width; an upright picture is narrower than it is long.
  const width = Math.ceil(longest * Math.min(1, facts.widthPx / facts.heightPx));
  const print = await proxyOf(assetId(id), facts, width, server);
  const jpeg = await server.decoders.run(
    {
      kind: 'proof',
      file: await server.blobs.localDerived(id, print.name),
      longestPx: longest,
      words: proof.watermark,
    },
    LIMITS,
    true,
  );
  return new Response(new Uint8Array(jpeg), {
    headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=86400' },
  });
});
