import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import { xmpFiles } from '../../core/interchange/xmp';
import { showId } from '../../core/show/ids';
import { pagesRoute } from '../http/pages-route';
import { Refusal } from '../http/refusal';

/** Sends the marks of a show as XMP files to lie beside its pictures, in a ZIP. */
export const sendMarks = (name: 'GET /api/v1/shows/[show]/marks') =>
  pagesRoute(name, async ({ response, params, server }) => {
    const opened = await server.shows.load(showId(params.show!));
    if (!opened) throw new Refusal(404, 'There is no such show.');
    const { show } = opened;
    const files = xmpFiles(await server.sheet.entries(show.id, show.methods), show.marks ?? {});
    if (files.size === 0) throw new Refusal(409, 'No picture is marked yet.');
    const zip = new ZipFile();
    for (const [called, text] of files) zip.addBuffer(Buffer.from(text), called);
    zip.end();
    response.setHeader('content-type', 'application/zip');
    response.setHeader(
      'content-disposition',
      `attachment; filename="marks.zip"; filename*=UTF-8''${encodeURIComponent(`${show.title || 'show'} marks.zip`)}`,
    );
    // Who goes away in the middle is no fault of ours.
    await pipeline(zip.outputStream, response).catch(() => response.destroy());
    return null;
  });
