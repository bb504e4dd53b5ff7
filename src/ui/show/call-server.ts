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

/** Calls one of our own routes with JSON. @throws {ServerRefusal} for an answer that is a refusal; a TypeError when the server cannot be reached */
export async function callServer<Answer>(
  method: 'GET' | 'POST' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
  options?: { keepalive?: boolean },
): Promise<Answer> {
  const response = await fetch(path, {
    method,
    headers: body === undefined ? {} : { 'content-type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
    keepalive: options?.keepalive,
  });
  const answer = (await response.json().catch(() => ({}))) as Answer & { problem?: string };
  if (!response.ok)
    throw new ServerRefusal(response.status, answer.problem ?? `The server answered ${response.status}.`);
  return answer;
}
