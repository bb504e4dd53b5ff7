/** The server refused; `message` is its sentence for the person. */
export class ServerRefusal extends Error {
  override readonly name = 'ServerRefusal';
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** Told to the window when the server does not know any more who asks, and when it does again. */
export const SIGNED_OUT = 'tanager-signed-out';
export const SIGNED_IN = 'tanager-signed-in';
/** Told when what only somebody known is told has come: also after signing in in another window. */
export const KNOWN = 'tanager-known';

/** Calls one of our own routes with JSON. @throws {ServerRefusal} for an answer that is a refusal; a TypeError when the server cannot be reached */
export async function callServer<Answer>(
  method: 'GET' | 'POST' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
  options?: { keepalive?: boolean; signal?: AbortSignal },
): Promise<Answer> {
  const response = await fetch(path, {
    method,
    headers: body === undefined ? {} : { 'content-type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
    keepalive: options?.keepalive,
    signal: options?.signal,
  });
  return answerOf<Answer>(response);
}

/**
 * What a route answered.
 * @throws {ServerRefusal} for a refusal; a TypeError for an answer that broke off: whether the server did what was asked is not known then
 */
export async function answerOf<Answer>(response: Response): Promise<Answer> {
  const answer = (await response.json().catch(() => null)) as (Answer & { problem?: string }) | null;
  if (response.status === 401 && typeof window !== 'undefined') window.dispatchEvent(new Event(SIGNED_OUT));
  if (!response.ok)
    throw new ServerRefusal(response.status, answer?.problem ?? `The server answered ${response.status}.`);
  if (answer === null) throw new TypeError('The answer of the server broke off.');
  return answer;
}
