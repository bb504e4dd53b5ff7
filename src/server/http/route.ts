import { assetId, showId } from '../../core/show/ids';
import { runningServer, type RunningServer } from '../running-server';
import { parse } from '../schema/parse';
import { isHash } from '../schema/hash';
import { actorOf, type Actor } from '../studio/actor';
import type { Person } from '../studio/sessions';
import { passCookie } from '../screenings/passes';
import { isForAnybody, mayDo, type Deed, type Subject } from '../studio/may-do';
import { noteWork } from '../studio/note-work';
import { answerTo } from './answer';
import { bodyOf } from './body';
import { assertOwnAddress, cookieOf, type Asked } from './own-address';
import { isRefusal, Refusal } from './refusal';
import { ROUTES, type Route, type RouteName } from './routes';

/** What stands in the path: `[show]`, `[film]` … */
export type PathParts = Readonly<Record<string, string>>;

export interface Asking<Body> {
  readonly request: Request;
  readonly params: PathParts;
  /** Checked against what the route takes; undefined for routes that take nothing. */
  readonly body: Body;
  /** Who asks. @throws {Refusal} 401 when read where strangers may ask as well and one does */
  readonly person: Person;
  readonly server: RunningServer;
  readonly asked: Asked;
  /** Whether who asks might ask the same again now. */
  stillMay(): Promise<boolean>;
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
      const stillMay = () =>
        allowed(declared, request, params).then(
          () => true,
          (error: unknown) => {
            if (isRefusal(error)) return false;
            throw error;
          },
        );
      const asking = { request, params, body, server, asked: askedBy(request), stillMay };
      const told = noteWork(name, server, actor, params);
      const result = await work(
        Object.defineProperty(asking, 'person', { get: () => personOf(actor) }) as Asking<Body>,
      );
      await told.done();
      if (result instanceof Response) return result;
      if (process.env.TANAGER_CHECK_ANSWERS === '1' && declared.gives) assertAsDeclared(name, declared.gives, result);
      return Response.json(result);
    } catch (error) {
      return answerTo(error, name);
    }
  };
}

/** Whether this may be asked at all. @throws {Refusal} 403 for foreign addresses, 401 for strangers, 404 for what is not there or not theirs */
export async function allowed(
  { deed }: Route,
  request: Request,
  params: PathParts,
): Promise<{ actor: Actor; server: RunningServer }> {
  const asked = askedBy(request);
  assertOwnAddress(asked);
  const server = await runningServer();
  const actor = await actorOf(server, asked);
  if (await mayDo(server.db, actor, deed, subjectOf(params, asked))) return { actor, server };
  throw refusalFor(actor, deed, params);
}

function askedBy(request: Request): Asked {
  return { method: request.method, header: (name) => request.headers.get(name) };
}

/** Strangers are asked to sign in, whatever is there; what is not there and what is not theirs is refused alike. */
export function refusalFor(actor: Actor, deed: Deed, params: PathParts): Refusal {
  if (actor.kind === 'stranger' && !isForAnybody(deed)) return new Refusal(401, 'Sign in first.');
  const what = ['asset', 'film', 'show'].find((part) => part in params);
  return new Refusal(404, what ? NOT_THERE[what]! : 'There is nothing here.');
}

/** @throws {Refusal} 401 */
export function personOf(actor: Actor): Person {
  if (actor.kind === 'person') return actor;
  throw new Refusal(401, 'Sign in first.');
}

export function subjectOf({ show, film, asset, token }: PathParts, asked: Asked): Subject {
  return {
    ...(show !== undefined && { show: showId(show) }),
    ...(film !== undefined && { film }),
    ...(isHash(asset) && { asset: assetId(asset) }),
    ...(token !== undefined && { token, pass: cookieOf(asked, passCookie(token)) }),
  };
}

/** An answer that is not what was promised is a fault of ours: found where the server is tested, not by those who call it. */
function assertAsDeclared(name: string, gives: NonNullable<Route['gives']>, answer: object): void {
  // As those see it who read it: without what is undefined.
  const parsed = parse(gives, JSON.parse(JSON.stringify(answer)));
  if (!parsed.ok) throw new TypeError(`${name} answered otherwise than it says: ${parsed.problem}`);
}
