import { pipeline } from 'node:stream/promises';
import type { NextApiRequest, NextApiResponse } from 'next';
import parseRange from 'range-parser';
import send from 'send';
import { formatOf } from '../../core/film/film-formats';
import { purposeTitle } from '../../core/film/purposes/purposes';
import { assertOwnAddress } from '../http/own-address';
import { isRefusal } from '../http/refusal';
import { headerOf } from '../http/pages-route';
import { subjectOf, type PathParts } from '../http/route';
import { ROUTES, type RouteName } from '../http/routes';
import { logger } from '../logger';
import { runningServer } from '../running-server';
import { actorOf } from '../studio/actor';
import { isForAnybody, mayDo } from '../studio/may-do';
import type { FilmRow } from './film-row';
import type { FilmService } from './film-service';

/** Sends a finished film with ranges, so that players can jump and downloads can go on. A screening's guests watch it; the studio's own people take it home. */
export async function sendFilm(request: NextApiRequest, response: NextApiResponse, name: RouteName): Promise<void> {
  const refuse = (status: number, sentence: string) => {
    if (response.headersSent) {
      response.destroy();
      return;
    }
    response.statusCode = status;
    response.setHeader('content-type', 'text/plain; charset=utf-8');
    response.end(sentence);
  };
  try {
    if (request.method !== 'GET' && request.method !== 'HEAD') {
      response.setHeader('allow', 'GET, HEAD');
      return refuse(405, 'A film can only be fetched.');
    }
    const asked = { method: request.method, header: headerOf(request) };
    assertOwnAddress(asked);
    const params = request.query as PathParts;
    const { db, films, screenings, sessions, tokens } = await runningServer();
    const { deed } = ROUTES[name];
    const actor = await actorOf({ sessions, tokens }, asked);
    const allowed = await mayDo(db, actor, deed, subjectOf(params, asked));
    if (!allowed && actor.kind === 'stranger' && !isForAnybody(deed)) return refuse(401, 'Sign in first.');
    const screening = allowed && deed === 'watch-screening' ? await screenings.find(params.token!) : null;
    const taken = allowed && deed !== 'watch-screening' ? await films.find(params.film!) : null;
    const takes = params.take !== undefined;
    const shown = screening && (screening.films.find(({ id }) => id === params.film) ?? screening.films[0]!);
    const film = (takes && !screening?.settings.mayTake ? null : shown) ?? (taken?.state === 'ready' ? taken : null);
    if (film === null) return refuse(404, 'There is no such film.');
    const format = formatOf(film.spec.format);
    if (taken || takes)
      response.setHeader(
        'content-disposition',
        `attachment; filename="film.${format.extension}"; filename*=UTF-8''${encodeURIComponent(fileNameOf(film))}`,
      );
    response.setHeader('content-type', format.mime);
    const elsewhere = await films.elsewhere(film);
    if (elsewhere) return await sendFromElsewhere(request, response, elsewhere, refuse);
    const file = await films.localFile(film);
    await new Promise<void>((resolve) => {
      response.on('close', resolve);
      send(request, file, { cacheControl: false, dotfiles: 'allow' })
        .on('error', (error: { status?: number; headers?: Record<string, string> }) => {
          response.removeHeader('content-disposition');
          if (error.status !== 416) return refuse(404, 'The film’s file is missing.');
          if (error.headers?.['Content-Range']) response.setHeader('content-range', error.headers['Content-Range']);
          return refuse(416, 'The film is not that long.');
        })
        .pipe(response);
    });
  } catch (error) {
    if (isRefusal(error)) return refuse(error.status, error.message);
    logger().error({ err: error, what: name }, 'a film could not be sent');
    refuse(500, 'Something went wrong on the server. Try again.');
  }
}

/** A film that is not on this machine goes through it, the stretch that was asked for and no more. */
async function sendFromElsewhere(
  request: NextApiRequest,
  response: NextApiResponse,
  { byteCount, read }: NonNullable<Awaited<ReturnType<FilmService['elsewhere']>>>,
  refuse: (status: number, message: string) => void,
): Promise<void> {
  response.setHeader('accept-ranges', 'bytes');
  const wanted = request.headers.range ? parseRange(byteCount, request.headers.range, { combine: true }) : -2;
  if (wanted === -1) {
    response.removeHeader('content-disposition');
    response.setHeader('content-range', `bytes */${byteCount}`);
    return refuse(416, 'The film is not that long.');
  }
  // What is no range of bytes, or several that do not meet, is answered with all of it.
  const only = wanted !== -2 && wanted.type === 'bytes' && wanted.length === 1 ? wanted[0]! : null;
  const range = only ? { from: only.start, to: only.end + 1 } : { from: 0, to: byteCount };
  response.statusCode = only ? 206 : 200;
  if (only) response.setHeader('content-range', `bytes ${range.from}-${range.to - 1}/${byteCount}`);
  response.setHeader('content-length', range.to - range.from);
  if (request.method === 'HEAD') return void response.end();
  const stream = await read(range);
  if (!stream) return void response.destroy();
  // A viewer who goes away ends it.
  await pipeline(stream, response).catch(() => response.destroy());
}

/** “Lantern Regatta – Upright phone.mp4” */
function fileNameOf({ title, spec }: Pick<FilmRow, 'title' | 'spec'>): string {
  return `${title || 'film'} – ${purposeTitle(spec.purpose)}.${formatOf(spec.format).extension}`;
}
