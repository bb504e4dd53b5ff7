import type { IncomingMessage, ServerResponse } from 'node:http';
import send from 'send';
import { runningServer } from '../running-server';
import type { FilmRow } from './film-service';

/** Sends a finished film with ranges, so that players can jump and downloads can go on. */
export async function sendFilm(
  request: IncomingMessage,
  response: ServerResponse,
  film: FilmRow | null,
  how: 'download' | 'watch',
): Promise<void> {
  if (film?.state !== 'ready') {
    response.statusCode = 404;
    response.end('There is no such film.');
    return;
  }
  const { films } = await runningServer();
  if (how === 'download')
    response.setHeader(
      'content-disposition',
      `attachment; filename="film.mp4"; filename*=UTF-8''${encodeURIComponent(`${film.title || 'film'} ${film.heightPx}p.mp4`)}`,
    );
  response.setHeader('content-type', 'video/mp4');
  await new Promise<void>((resolve) => {
    response.on('close', resolve);
    send(request, films.fileOf(film.id), { cacheControl: false, dotfiles: 'allow' })
      .on('error', () => {
        response.statusCode = 404;
        response.end('The film’s file is missing.');
      })
      .pipe(response);
  });
}
