import type { NextApiRequest, NextApiResponse } from 'next';
import send from 'send';
import { pagesRoute } from '../http/pages-route';
import { personOf } from '../http/route';
import { thereOf } from './asked';
import { Refusal } from '../http/refusal';

type Name = 'GET /api/v1/discs/[disc]/image' | 'GET /api/v1/discs/[disc]/pages/[page]/moving';
type Sending = (request: NextApiRequest, response: NextApiResponse) => Promise<void>;

/** The image of a disc, with ranges, so that taking it home can go on after a break. */
export const sendImage = (name: Name): Sending =>
  pagesRoute(name, async ({ request, response, params, actor, server }) => {
    const { title, file } = thereOf(await server.discs.image(personOf(actor).studioId, params.disc!));
    response.setHeader('content-type', 'application/x-iso9660-image');
    response.setHeader(
      'content-disposition',
      `attachment; filename="disc.iso"; filename*=UTF-8''${encodeURIComponent(`${title}.iso`)}`,
    );
    await sent(request, response, file);
    return null;
  });

/** A page of the menu, moving, as it is drawn for the disc. */
export const sendMoving = (name: Name): Sending =>
  pagesRoute(name, async ({ request, response, params, actor, server }) => {
    const page = Number(params.page);
    if (!Number.isInteger(page) || page < 1) throw new Refusal(404, 'There is no such page.');
    const { file } = thereOf(await server.discs.moving(personOf(actor).studioId, params.disc!, page - 1));
    response.setHeader('content-type', 'video/mp4');
    await sent(request, response, file);
    return null;
  });

function sent(request: NextApiRequest, response: NextApiResponse, file: string): Promise<void> {
  return new Promise((resolve) => {
    response.on('close', resolve);
    send(request, file, { cacheControl: false, dotfiles: 'allow' })
      .on('error', (error: { status?: number }) => {
        response.removeHeader('content-disposition');
        response.statusCode = error.status === 416 ? 416 : 404;
        response.setHeader('content-type', 'application/json');
        response.end(JSON.stringify({ problem: 'The file is not there, or not that long.' }));
      })
      .pipe(response);
  });
}
