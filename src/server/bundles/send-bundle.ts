import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { showId } from '../../core/show/ids';
import { pagesRoute } from '../http/pages-route';
import { Refusal } from '../http/refusal';

/** Sends a show as one file while it is put together. A download that broke off goes on where it was, as long as the show is the same. */
export const sendBundle = (name: 'GET /api/v1/shows/[show]/bundle') =>
  pagesRoute(name, async ({ request, response, params, server }) => {
    const written = await server.bundles.write(showId(params.show!));
    if (!written) throw new Refusal(409, 'This show is damaged and cannot be saved as one file. Its stored state can.');
    const { byteCount, tag, bytes, title } = written;
    const from = beginning(request.headers.range, request.headers['if-range'], tag);
    if (from >= byteCount && from > 0) {
      bytes.destroy();
      response.setHeader('content-range', `bytes */${byteCount}`);
      throw new Refusal(416, 'It is not that long.');
    }
    response.statusCode = from > 0 ? 206 : 200;
    if (from > 0) response.setHeader('content-range', `bytes ${from}-${byteCount - 1}/${byteCount}`);
    response.setHeader('content-type', 'application/zip');
    response.setHeader('content-length', byteCount - from);
    response.setHeader('accept-ranges', 'bytes');
    response.setHeader('etag', tag);
    response.setHeader(
      'content-disposition',
      `attachment; filename="show.zip"; filename*=UTF-8''${encodeURIComponent(`${title || 'show'}.show.zip`)}`,
    );
    // Who goes away in the middle is no fault of ours.
    await pipeline(bytes, without(from), response).catch(() => response.destroy());
    return null;
  });

/** Where to begin: `Range: bytes=N-`, when it is of these bytes still. Other ranges are answered whole. */
function beginning(range: string | undefined, ifRange: string | string[] | undefined, tag: string): number {
  const from = /^bytes=(\d+)-$/.exec(range ?? '')?.[1];
  return from === undefined || (ifRange !== undefined && ifRange !== tag) ? 0 : Number(from);
}

/** Leaves the first bytes out. */
function without(count: number): Transform {
  let left = count;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      const skipped = Math.min(left, chunk.length);
      left -= skipped;
      done(null, skipped === chunk.length ? undefined : chunk.subarray(skipped));
    },
  });
}
