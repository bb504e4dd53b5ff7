import { parse } from '../schema/parse';
import { ROUTES, type Route, type RouteName } from './routes';

/** A body as a checked value, or why it is none: a status and a sentence. */
export type ReadBody =
  | { readonly ok: true; readonly value: unknown }
  | { readonly ok: false; readonly status: number; readonly problem: string };

/** Reads a JSON body as a route takes it. Pure: the same here and in the thread that reads large ones. */
export function readBody(name: RouteName, text: string): ReadBody {
  const { takes, reads }: Route = ROUTES[name];
  if (!takes) throw new TypeError(`${name} takes no body`);
  let input: unknown;
  try {
    input = JSON.parse(text);
  } catch {
    return { ok: false, status: 400, problem: 'The request is not JSON.' };
  }
  const parsed = parse(takes, input);
  if (!parsed.ok) return { ok: false, status: 422, problem: parsed.problem };
  return { ok: true, value: reads ? reads(parsed.value as never) : parsed.value };
}
