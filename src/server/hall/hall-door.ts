import { EventEmitter } from 'node:events';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { hostname, networkInterfaces } from 'node:os';
import { randomBytes } from 'node:crypto';
import type { ShowId } from '../../core/show/ids';
import type { ShowingCommand } from '../../core/showing/showing';
import { SHOWING_COMMAND, type RemoteNews } from '../../core/showing/showing-schema';
import { logger } from '../logger';
import { parse } from '../schema/parse';
import { createPairing, type Pairing } from './pairing';
import { codePage, remotePage } from './remote-pages';

export const USUAL_HALL_PORT = 3218;
const MOST_BODY_BYTES = 2000;
const COOKIE = 'tanager-remote';
const KEEP_ALIVE_MS = 10_000;

/**
 * The one door that may be open to others in the hall: a small server of its own, beside the one that has the shows, that knows codes, remotes and nothing
 * else. It is there only when the server was told so.
 */
export interface HallDoor {
  /** Where phones reach it. */
  readonly addresses: readonly string[];
  /** A code that lets one phone in. */
  invite(show: ShowId): string;
  /** What the remotes of a show ask for. @returns stops listening */
  listen(show: ShowId, hear: (command: ShowingCommand) => void): () => void;
  /** What the remotes of a show see. */
  tell(show: ShowId, news: RemoteNews): void;
  /** Lets every remote of a show go. */
  end(show: ShowId): void;
  close(): Promise<void>;
}

/** @param port taken by something else, any free one stands in for it; the addresses say which */
export async function openHallDoor(port: number, host = '0.0.0.0'): Promise<HallDoor> {
  const pairing = createPairing();
  const commands = new EventEmitter().setMaxListeners(0);
  const news = new EventEmitter().setMaxListeners(0);
  const latest = new Map<ShowId, RemoteNews>();
  const server = createServer((request, response) => {
    void answer({ pairing, commands, news, latest, own: ownNames }, request, response).catch((error: unknown) => {
      logger().error({ err: error }, 'the hall’s door could not answer');
      if (!response.headersSent) response.writeHead(500);
      response.end();
    });
  });
  await listening(server, port, host);
  return {
    get addresses() {
      return addressesOf(server);
    },
    invite: (show) => pairing.invite(show),
    listen(show, hear) {
      commands.on(show, hear);
      return () => void commands.off(show, hear);
    },
    tell(show, now) {
      latest.set(show, now);
      news.emit(show, now);
    },
    end(show) {
      pairing.end(show);
      latest.delete(show);
      news.emit(show, null);
    },
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      }),
  };
}

/** @param port where another port is taken if this one is somebody else's: the presenter reads the address from the screen either way */
async function listening(server: Server, port: number, host: string): Promise<void> {
  const taken = await new Promise<boolean>((resolve, reject) => {
    const refuse = (error: NodeJS.ErrnoException) => (error.code === 'EADDRINUSE' ? resolve(true) : reject(error));
    server.once('error', refuse);
    server.listen(port, host, () => {
      server.off('error', refuse);
      resolve(false);
    });
  });
  if (!taken) return;
  await listening(server, 0, host);
  logger().warn({ port, instead: portOf(server) }, 'the hall’s door has another port: this one is taken');
}

interface Door {
  readonly pairing: Pairing;
  readonly commands: EventEmitter;
  readonly news: EventEmitter;
  readonly latest: ReadonlyMap<ShowId, RemoteNews>;
  own(): ReadonlySet<string>;
}

async function answer(door: Door, request: IncomingMessage, response: ServerResponse): Promise<void> {
  // Names that were made to point here are not answered.
  if (!door.own().has((request.headers.host ?? '').replace(/:\d+$/, '').toLowerCase()))
    return plain(response, 403, 'Not this way.');
  const { pathname } = new URL(request.url ?? '/', 'http://hall');
  const show = door.pairing.showOf(cookieOf(request));
  const asked = `${request.method} ${pathname}`;
  if (asked === 'GET /') return show ? seeOther(response, '/remote') : page(response, (nonce) => codePage(nonce, null));
  if (asked === 'POST /pair') {
    const code = new URLSearchParams((await bodyOf(request)) ?? '').get('code')?.replace(/\D/g, '') ?? '';
    const token = door.pairing.pair(code, request.socket.remoteAddress ?? '');
    if (token === 'later')
      return page(
        response,
        (nonce) => codePage(nonce, 'Too many wrong codes. Wait a minute, and ask for a new one.'),
        429,
      );
    if (!token)
      return page(
        response,
        (nonce) => codePage(nonce, 'That is not the code. It stands on the presenter’s screen.'),
        403,
      );
    response.setHeader('set-cookie', `${COOKIE}=${token}; HttpOnly; SameSite=Strict; Path=/; Max-Age=43200`);
    return seeOther(response, '/remote');
  }
  if (!show) return pathname === '/remote' ? seeOther(response, '/') : plain(response, 404, 'Nothing here.');
  if (asked === 'GET /remote') return page(response, remotePage);
  if (asked === 'GET /events') return events(door, show, request, response);
  if (asked === 'POST /do') {
    const text = await bodyOf(request);
    const command = text === null ? null : commandIn(text);
    if (!command) return plain(response, 400, 'That is no command.');
    door.commands.emit(show, command);
    response.writeHead(204).end();
    return;
  }
  plain(response, 404, 'Nothing here.');
}

function commandIn(text: string): ShowingCommand | null {
  try {
    const parsed = parse<ShowingCommand>(SHOWING_COMMAND, JSON.parse(text));
    return parsed.ok ? parsed.value : null;
  } catch {
    return null;
  }
}

function events(door: Door, show: ShowId, request: IncomingMessage, response: ServerResponse): void {
  response.writeHead(200, {
    'content-type': 'text/event-stream',
    'cache-control': 'no-store',
    'x-accel-buffering': 'no',
  });
  const send = (news: RemoteNews | null) => {
    if (news === null) response.end('data: null\n\n');
    else response.write(`data: ${JSON.stringify(news)}\n\n`);
  };
  response.write('retry: 1500\n\n');
  const known = door.latest.get(show);
  if (known) send(known);
  const timer = setInterval(() => response.write(': still here\n\n'), KEEP_ALIVE_MS);
  door.news.on(show, send);
  request.on('close', () => {
    clearInterval(timer);
    door.news.off(show, send);
  });
}

/** Null for one that is larger than any command. */
async function bodyOf(request: IncomingMessage): Promise<string | null> {
  let text = '';
  for await (const chunk of request) {
    text += String(chunk);
    if (text.length > MOST_BODY_BYTES) return null;
  }
  return text;
}

function cookieOf(request: IncomingMessage): string {
  const found = (request.headers.cookie ?? '').split(/;\s*/).find((part) => part.startsWith(`${COOKIE}=`));
  return found?.slice(COOKIE.length + 1) ?? '';
}

function seeOther(response: ServerResponse, to: string): void {
  response.writeHead(303, { location: to, 'cache-control': 'no-store' }).end();
}

function plain(response: ServerResponse, status: number, text: string): void {
  response
    .writeHead(status, { 'content-type': 'text/plain; charset=utf-8', 'x-content-type-options': 'nosniff' })
    .end(text);
}

function page(response: ServerResponse, make: (nonce: string) => string, status = 200): void {
  const nonce = randomBytes(18).toString('base64');
  response
    .writeHead(status, {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'no-store',
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'no-referrer',
      'content-security-policy': `default-src 'none'; style-src 'nonce-${nonce}'; script-src 'nonce-${nonce}'; connect-src 'self'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'`,
    })
    .end(make(nonce));
}

function localAddresses(): string[] {
  return Object.values(networkInterfaces())
    .flatMap((addresses) => addresses ?? [])
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => address);
}

function portOf(server: Server): number {
  const address = server.address();
  return typeof address === 'object' && address ? address.port : 0;
}

function addressesOf(server: Server): string[] {
  const found = localAddresses();
  return (found.length > 0 ? found : ['127.0.0.1']).map((address) => `http://${address}:${portOf(server)}`);
}

function ownNames(): ReadonlySet<string> {
  const name = hostname().toLowerCase();
  return new Set(['localhost', '127.0.0.1', name, `${name}.local`, ...localAddresses()]);
}
