import type { Schema } from '../../core/schema/schema';
import { parse } from '../schema/parse';
import { Refusal } from './refusal';

/** Largest request a JSON route reads; a paste of a thousand slides takes about 1 MB. */
const LARGEST_JSON_BYTES = 8 * 1024 * 1024;

/** The body as a checked value. @throws {Refusal} */
export async function bodyOf<Value>(request: Request, schema: Schema): Promise<Value> {
  const text = await limitedText(request, LARGEST_JSON_BYTES);
  let input: unknown;
  try {
    input = JSON.parse(text);
  } catch {
    throw new Refusal(400, 'The request is not JSON.');
  }
  const parsed = parse<Value>(schema, input);
  if (!parsed.ok) throw new Refusal(422, parsed.problem);
  return parsed.value;
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
