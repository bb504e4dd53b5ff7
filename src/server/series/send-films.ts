import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import { pagesRoute } from '../http/pages-route';
import { Refusal } from '../http/refusal';
import { personOf } from '../http/route';

/** Sends the films of a series that are made as one ZIP, put together while it is sent. */
export const sendFilms = (name: 'GET /api/v1/series/[series]/films') =>
  pagesRoute(name, async ({ response, params, actor, server }) => {
    const found = await server.series.filmFiles(personOf(actor).studioId, params.series!);
    if (!found || found.files.size === 0) throw new Refusal(404, 'None of its films is made yet.');
    const zip = new ZipFile();
    for (const [called, file] of found.files) zip.addFile(file, called, { compress: false });
    zip.end();
    response.setHeader('content-type', 'application/zip');
    response.setHeader(
      'content-disposition',
      `attachment; filename="films.zip"; filename*=UTF-8''${encodeURIComponent(`${found.title}.zip`)}`,
    );
    // Who goes away in the middle is no fault of ours.
    await pipeline(zip.outputStream, response).catch(() => response.destroy());
    return null;
  });
