import { readApart } from './read-apart';
import { readBody } from './read-body';
import { Refusal } from './refusal';
import type { RouteName } from './routes';

/** Largest request a JSON route reads; a paste of a thousand slides takes about 1 MB. */
const LARGEST_JSON_BYTES = 8 * 1024 * 1024;

/** Larger ones are read in a thread of their own: a person's edits take hundreds of bytes. */
const APART_CHARACTERS = 100_000;

/** The body as a checked value, as the route takes it. @throws {Refusal} */
export async function bodyOf<Value>(request: Request, name: RouteName): Promise<Value> {
  const text = await limitedText(request, LARGEST_JSON_BYTES);
  const read = text.length > APART_CHARACTERS ? await readApart(name, text) : readBody(name, text);
  if (!read.ok) throw new Refusal(read.status, read.problem);
  return read.value as Value;
}

/** Reads no further than the limit, whatever length was promised or not. */
async function limitedText(request: Request, mostBytes: number): Promise<string> {
  const tooLarge = () => new Refusal(413, 'That is more than can be sent at once.');
  if (Number(request.headers.get('content-length') ?? 0) > mostBytes) throw tooLarge();
  if (!request.body) return '';
  const decoder = new TextDecoder();
  let text = '';
  let bytes = 0;
  const reader = request.body.getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return text + decoder.decode();
    bytes += value.length;
    if (bytes > mostBytes) {
      void reader.cancel().catch(() => {});
      throw tooLarge();
    }
    text += decoder.decode(value, { stream: true });
  }
}
