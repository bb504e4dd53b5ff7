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

/** The body as it is. @throws {Refusal} when it is larger than it may be */
export async function bytesOf(request: Request, mostBytes: number): Promise<Uint8Array> {
  const chunks: Uint8Array[] = [];
  await eachChunk(request, mostBytes, (chunk) => void chunks.push(chunk));
  return Buffer.concat(chunks);
}

async function limitedText(request: Request, mostBytes: number): Promise<string> {
  const decoder = new TextDecoder();
  let text = '';
  await eachChunk(request, mostBytes, (chunk) => (text += decoder.decode(chunk, { stream: true })));
  return text + decoder.decode();
}

/** Reads no further than the limit, whatever length was promised or not. */
async function eachChunk(request: Request, mostBytes: number, take: (chunk: Uint8Array) => void): Promise<void> {
  const tooLarge = () => new Refusal(413, 'That is more than can be sent at once.');
  if (Number(request.headers.get('content-length') ?? 0) > mostBytes) throw tooLarge();
  if (!request.body) return;
  let bytes = 0;
  const reader = request.body.getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    bytes += value.length;
    if (bytes > mostBytes) {
      void reader.cancel().catch(() => {});
      throw tooLarge();
    }
    take(value);
  }
}
