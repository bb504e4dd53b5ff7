import { assetId, showId } from '../../core/show/ids';
import { runningServer, type RunningServer } from '../running-server';
import { parse } from '../schema/parse';
import { isHash } from '../schema/hash';
import { actorOf } from '../studio/actor';
import { passCookie } from '../screenings/passes';
import { mayDo, type Subject } from '../studio/may-do';
import { answerTo } from './answer';
import { bodyOf } from './body';
import { assertOwnAddress, type Asked } from './own-address';
import { Refusal } from './refusal';
import { ROUTES, type Route, type RouteName } from './routes';

/** What stands in the path: `[show]`, `[film]` … */
export type PathParts = Readonly<Record<string, string>>;

export interface Asking<Body> {
  readonly request: Request;
  readonly params: PathParts;
  /** Checked against what the route takes; undefined for routes that take nothing. */
  readonly body: Body;
  readonly actor: ReturnType<typeof actorOf>;
  readonly server: RunningServer;
}

type Handler = (request: Request, context: { params?: Promise<PathParts> }) => Promise<Response>;

const NOT_THERE: Readonly<Record<string, string>> = {
  film: 'There is no such film.',
  show: 'There is no such show.',
  asset: 'There is no such file.',
  take: 'There is no such recording.',
};

/**
 * A route as Next wants it. Before it works it is asked whether the address is ours and whether who asks may do this; what comes in is checked, refusals
 * become a status and a sentence, and anything unexpected a 500 that says so and is logged.
 */
export function route<Body = undefined>(
  name: RouteName,
  work: (asking: Asking<Body>) => Promise<Response | object>,
): Handler {
  const declared: Route = ROUTES[name];
  return async (request, context) => {
    try {
      const params = (await context.params) ?? {};
      const { actor, server } = await allowed(declared, request, params);
      const body = (declared.takes ? await bodyOf<Body>(request, name) : undefined) as Body;
      const result = await work({ request, params, body, actor, server });
      if (result instanceof Response) return result;
      if (process.env.TANAGER_CHECK_ANSWERS === '1' && declared.gives) assertAsDeclared(name, declared.gives, result);
      return Response.json(result);
    } catch (error) {
      return answerTo(error, name);
    }
  };
}

/** Whether this may be asked at all. @throws {Refusal} 403 for foreign addresses, 404 for what is not there or not theirs */
export async function allowed(
  { deed }: Route,
  request: Request,
  params: PathParts,
): Promise<{ actor: ReturnType<typeof actorOf>; server: RunningServer }> {
  const asked = { method: request.method, header: (name: string) => request.headers.get(name) };
  assertOwnAddress(asked);
  const actor = actorOf(asked);
  const server = await runningServer();
  if (await mayDo(server.db, actor, deed, subjectOf(params, asked))) return { actor, server };
  throw notThere(params);
}

/** What is not there and what is not theirs is refused alike. */
export function notThere(params: PathParts): Refusal {
  const what = ['asset', 'film', 'show'].find((part) => part in params);
  return new Refusal(404, what ? NOT_THERE[what]! : 'There is nothing here.');
}

export function subjectOf({ show, film, asset, token }: PathParts, asked: Asked): Subject {
  return {
    ...(show !== undefined && { show: showId(show) }),
    ...(film !== undefined && { film }),
    ...(isHash(asset) && { asset: assetId(asset) }),
    ...(token !== undefined && { token, pass: cookieOf(asked, passCookie(token)) }),
  };
}

/** @returns null when the browser holds none */
function cookieOf(asked: Asked, name: string): string | null {
  const cookies = (asked.header('cookie') ?? '').split(/;\s*/);
  return cookies.find((cookie) => cookie.startsWith(`${name}=`))?.slice(name.length + 1) ?? null;
}

/** An answer that is not what was promised is a fault of ours: found where the server is tested, not by those who call it. */
function assertAsDeclared(name: string, gives: NonNullable<Route['gives']>, answer: object): void {
  // As those see it who read it: without what is undefined.
  const parsed = parse(gives, JSON.parse(JSON.stringify(answer)));
  if (!parsed.ok) throw new TypeError(`${name} answered otherwise than it says: ${parsed.problem}`);
}
