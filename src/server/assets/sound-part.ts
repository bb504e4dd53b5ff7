import { PIECE_MS } from '../../core/sound/sound-pieces';
import type { AssetFacts } from '../../core/show/asset-facts';
import { assetId, type AssetId } from '../../core/show/ids';
import type { BlobStore } from '../blobs/blob-store';
import { OWN_INPUT, startFfmpeg } from '../ffmpeg/run-ffmpeg';
import { Refusal } from '../http/refusal';
import type { Asking } from '../http/route';

/** Hands out something made from a sound (or a clip's sound) at intake; of what is played, a piece when that is asked for. */
export function soundPart(name: 'listening.opus' | 'peaks', mime: string) {
  return async ({ request, params, server: { sheet, blobs } }: Asking<undefined>): Promise<Response> => {
    const id = assetId(params.asset!);
    const facts = (await sheet.factsOf([id])).get(id);
    if (!facts || !sounds(facts)) throw new Refusal(404, 'There is no such sound.');
    const said = name === 'peaks' ? null : new URL(request.url).searchParams.get('piece');
    if (said === null) return answer((await blobs.readDerived(id, name)).slice(), mime);
    const piece = Number(said);
    if (!/^\d{1,5}$/.test(said) || piece * PIECE_MS >= facts.lengthMs)
      throw new Refusal(404, 'The sound has no such piece.');
    return answer(await pieceOf(blobs, id, piece), 'audio/flac');
  };
}

const sounds = (facts: AssetFacts): facts is Exclude<AssetFacts, { kind: 'picture' }> =>
  facts.kind === 'sound' || (facts.kind === 'clip' && facts.hasSound);

const answer = (bytes: Uint8Array<ArrayBuffer>, mime: string): Response =>
  new Response(bytes, {
    headers: { 'content-type': mime, 'cache-control': 'private, max-age=31536000, immutable' },
  });

/** Decoders of Opus need a while before they are exact (RFC 7845, 4.2: 80 ms). */
const BEFORE_S = 1;

/** A minute of a long sound as FLAC, to the sample: played one after the other the pieces are the whole. */
async function pieceOf(blobs: BlobStore, id: AssetId, piece: number): Promise<Uint8Array<ArrayBuffer>> {
  const fromS = (piece * PIECE_MS) / 1000;
  const beforeS = Math.min(BEFORE_S, fromS);
  const running = startFfmpeg([
    ...OWN_INPUT,
    ...['-ss', String(fromS - beforeS), '-i', await blobs.localDerived(id, 'listening.opus')],
    ...['-ss', String(beforeS), '-t', String(PIECE_MS / 1000)],
    ...['-c:a', 'flac', '-compression_level', '2', '-sample_fmt', 's16', '-f', 'flac', 'pipe:1'],
  ]);
  const parts: Buffer[] = [];
  running.process.stdout.on('data', (part: Buffer) => parts.push(part));
  await running.finished;
  return new Uint8Array(Buffer.concat(parts));
}
