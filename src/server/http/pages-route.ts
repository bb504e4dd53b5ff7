import type { NextApiRequest, NextApiResponse } from 'next';
import { runningServer, type RunningServer } from '../running-server';
import { logger } from '../logger';
import { actorOf, type Actor } from '../studio/actor';
import { mayDo } from '../studio/may-do';
import { noteWork } from '../studio/note-work';
import { answerTo } from './answer';
import { assertOwnAddress, trustsProxy, type Asked } from './own-address';
import { readBody } from './read-body';
import { Refusal } from './refusal';
import { refusalFor, subjectOf, type PathParts } from './route';
import { ROUTES, type Route, type RouteName } from './routes';

interface Asking<Body> {
  readonly request: NextApiRequest;
  readonly response: NextApiResponse;
  readonly params: PathParts;
  readonly body: Body;
  readonly asked: Asked;
  readonly actor: Actor;
  readonly server: RunningServer;
  /** Of whoever asks, for counting how often they did. */
  readonly address: string;
}

/**
 * A route for which it matters where a request came from: only here Next tells it. Otherwise as `route`. The handler’s file sets
 * `bodyParser: { sizeLimit: … }`; forms of pages without scripts are read as JSON is.
 */
export function pagesRoute<Body = undefined>(
  name: RouteName,
  /** Null: it answered for itself. */
  work: (asking: Asking<Body>) => Promise<object | null>,
): (request: NextApiRequest, response: NextApiResponse) => Promise<void> {
  const declared: Route = ROUTES[name];
  const [method] = name.split(' ');
  return async (request, response) => {
    try {
      if (request.method !== method) throw new Refusal(405, 'This cannot be done here.');
      const asked = { method: request.method!, header: headerOf(request) };
      assertOwnAddress(asked);
      const params = request.query as PathParts;
      const server = await runningServer();
      const actor = await actorOf(server, asked);
      if (!(await mayDo(server.db, actor, declared.deed, subjectOf(params, asked))))
        throw refusalFor(actor, declared.deed, params);
      const body = (declared.takes ? bodyOf(name, request.body) : undefined) as Body;
      const told = noteWork(name, server, actor, params);
      const address = addressOf(request);
      const result = await work({ request, response, params, body, asked, actor, server, address });
      await told.done();
      if (result) response.status(200).json(result);
    } catch (error) {
      if (response.headersSent) {
        logger().error({ err: error, what: name }, 'a request failed halfway');
        return void response.destroy();
      }
      const refused = answerTo(error, name);
      response.status(refused.status).json(await refused.json());
    }
  };
}

function bodyOf(name: RouteName, body: unknown): unknown {
  const read = readBody(name, typeof body === 'string' ? body : JSON.stringify(body));
  if (!read.ok) throw new Refusal(read.status, read.problem);
  return read.value;
}

export function headerOf(request: NextApiRequest): (name: string) => string | null {
  return (name) => String(request.headers[name] ?? '') || null;
}

/** Behind a trusted proxy the last it named; otherwise who is at the other end of the line. */
function addressOf(request: NextApiRequest): string {
  const named = trustsProxy()
    ? String(request.headers['x-forwarded-for'] ?? '')
        .split(',')
        .at(-1)!
        .trim()
    : '';
  return named || (request.socket.remoteAddress ?? 'unknown');
}
