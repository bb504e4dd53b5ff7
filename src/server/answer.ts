import type { Schema } from 'yup';
import { parse } from './schema/parse';

/** An expected refusal on its way out of a route: a status and a sentence. */
export class Refusal extends Error {
  override readonly name = 'Refusal';
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** Largest request a JSON route reads; a paste of a thousand slides takes about 1 MB. */
const LARGEST_JSON_BYTES = 8 * 1024 * 1024;

/**
 * Runs a route: refusals become their status and sentence, anything unexpected a 500 that says so and is logged.
 * Requests that change something must come from this site's own pages.
 */
export async function answer(request: Request, work: () => Promise<Response | object>): Promise<Response> {
  try {
    assertOwnPage(request);
    const result = await work();
    return result instanceof Response ? result : Response.json(result);
  } catch (error) {
    if (error instanceof Refusal) return Response.json({ problem: error.message }, { status: error.status });
    console.error(error);
    return Response.json(
      { problem: 'Something went wrong on the server; nothing you made is lost. Try again.' },
      { status: 500 },
    );
  }
}

/** Guards against other sites' pages and against names that were made to point here: host and origin must agree, and the host must be ours. */
export function assertOwnPage(request: Request): void {
  const host = request.headers.get('host') ?? '';
  const allowed = (process.env.TANAGER_HOSTS ?? 'localhost,127.0.0.1,[::1]').split(',').map((name) => name.trim());
  if (!allowed.includes(host.replace(/:\d+$/, '')))
    throw new Refusal(403, 'This address is not one the server answers to; name it in TANAGER_HOSTS.');
  if (request.method === 'GET' || request.method === 'HEAD') return;
  const origin = request.headers.get('origin');
  if (origin !== null && new URL(origin).host !== host) throw new Refusal(403, 'This request came from another site.');
}

/** The body as a checked value. @throws {Refusal} */
export async function bodyOf<Value>(request: Request, schema: Schema<Value>): Promise<Value> {
  if (Number(request.headers.get('content-length') ?? 0) > LARGEST_JSON_BYTES)
    throw new Refusal(413, 'That is more than can be sent at once.');
  const text = await request.text();
  if (text.length > LARGEST_JSON_BYTES) throw new Refusal(413, 'That is more than can be sent at once.');
  let input: unknown;
  try {
    input = JSON.parse(text);
  } catch {
    throw new Refusal(400, 'The request is not JSON.');
  }
  const parsed = parse(schema, input);
  if (!parsed.ok) throw new Refusal(422, parsed.problem);
  return parsed.value;
}
