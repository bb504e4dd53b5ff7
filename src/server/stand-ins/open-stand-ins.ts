import { randomBytes } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { logger } from '../logger';
import { fontFile } from '../paths';
import { openDiscDrive } from './disc-drive';
import { openKept } from './kept';
import { openPostRoom } from './post-room';
import { openSocialPage } from './social-page';
import { STYLE } from './style';
import { openVideoHost } from './video-host';
import { bodyOf, keyOf, studioOf, type Visit } from './visits';

/** Small doubles of the world outside, on this machine only: a post room, a video host, a social page, a disc drive. */
export interface StandIns {
  /** `http://localhost:4790` */
  readonly address: string;
  /** Where letters are handed in. */
  readonly smtpPort: number;
  /** What a studio shows at their doors. */
  keyOf(studioId: string): string;
  close(): Promise<void>;
}

export const USUAL_STAND_INS_PORT = 4790;
const COOKIE = 'tanager-stand-ins';
const LOCAL = ['localhost', '127.0.0.1', '[::1]'];

/**
 * Opens them. They keep to the port they had before, so that links to them go on leading there; when another program has it, they take a free one.
 *
 * @param folder of their own
 * @param wanted 0: any
 */
export async function openStandIns(folder: string, wanted: number = USUAL_STAND_INS_PORT): Promise<StandIns> {
  const books = await openKept(path.join(folder, 'stand-ins.json'), { secret: '', port: 0 });
  if (books.value().secret === '')
    await books.change((value) => ({ ...value, secret: randomBytes(32).toString('base64url') }));
  const { secret, port: before } = books.value();
  let address = '';
  const origin = () => address;
  const postRoom = await openPostRoom(path.join(folder, 'post-room'), secret);
  const places = [
    postRoom,
    await openVideoHost(path.join(folder, 'video-host'), secret, origin),
    await openSocialPage(path.join(folder, 'social-page'), secret, origin),
    await openDiscDrive(path.join(folder, 'disc-drive')),
  ];
  const server = createServer((request, response) => {
    answer(request, response).catch((error: unknown) => {
      logger().warn({ err: error, what: request.url }, 'a stand-in could not answer');
      if (response.headersSent) response.destroy();
      else response.writeHead(error instanceof SyntaxError || error instanceof RangeError ? 400 : 500).end();
    });
  });
  const port = await listen(server, [before || wanted, wanted, 0]);
  if (port !== before) await books.change((value) => ({ ...value, port }));
  address = `http://localhost:${port}`;
  return {
    address,
    smtpPort: postRoom.port,
    keyOf: (studioId) => keyOf(secret, studioId),
    async close() {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await postRoom.close();
    },
  };

  async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const host = request.headers.host ?? '';
    const url = new URL(request.url ?? '/', `http://${host}`);
    // Names that were made to point here, and other sites’ forms, have no business here.
    if (!LOCAL.includes(url.hostname)) return void response.writeHead(403).end();
    const from = request.headers.origin;
    if (request.method === 'POST' && from !== undefined && from !== 'null' && new URL(from).host !== host)
      return void response.writeHead(403).end();
    const key = url.searchParams.get('key');
    if (key !== null && studioOf(secret, key) !== null) {
      url.searchParams.delete('key');
      response.writeHead(303, {
        location: url.pathname + url.search,
        'set-cookie': `${COOKIE}=${key}; Path=/; HttpOnly; SameSite=Lax; Max-Age=31536000`,
      });
      return void response.end();
    }
    if (url.pathname === '/') return void response.writeHead(303, { location: '/post-room' }).end();
    if (url.pathname === '/style.css')
      return void response.writeHead(200, { 'content-type': 'text/css; charset=utf-8' }).end(STYLE);
    const font = /^\/fonts\/([a-z-]+)\.ttf$/.exec(url.pathname)?.[1];
    if (font) return void response.writeHead(200, { 'content-type': 'font/ttf' }).end(await readFile(fontFile(font)));
    const held = new RegExp(`(?:^|; )${COOKIE}=([^;]+)`).exec(request.headers.cookie ?? '')?.[1];
    const visit: Visit = {
      method: request.method ?? 'GET',
      url,
      visitor: studioOf(secret, held),
      request,
      response,
      body: () => bodyOf(request),
    };
    const place = places.find(
      (one) =>
        url.pathname.split('/')[1] === one.path || url.pathname.endsWith(`/oauth-authorization-server/${one.path}`),
    );
    if (!place || !(await place.visit(visit)))
      response.writeHead(404, { 'content-type': 'text/plain' }).end('There is nothing here.');
  }
}

/** @returns the first of the ports that was free */
async function listen(server: Server, ports: readonly number[]): Promise<number> {
  for (const port of ports) {
    const there = await new Promise<boolean>((resolve, reject) => {
      const failed = (error: NodeJS.ErrnoException) => (error.code === 'EADDRINUSE' ? resolve(false) : reject(error));
      server.once('error', failed);
      server.listen(port, '127.0.0.1', () => {
        server.off('error', failed);
        resolve(true);
      });
    });
    if (there) break;
  }
  return (server.address() as AddressInfo).port;
}
