import { describe, expect, it } from '@jest/globals';
import { answerOf } from './call-server';

const said = (text: string, status = 200) => new Response(text, { status });
/** Its head came, its body never did. */
const brokenOff = (status = 200) =>
  new Response(new ReadableStream({ start: (stream) => stream.error(new TypeError('terminated')) }), { status });

describe('the answer of a route', () => {
  it('is what it says', async () => {
    await expect(answerOf(said('{"sampleCount":3}'))).resolves.toEqual({ sampleCount: 3 });
  });
  it('that broke off after its head is never taken for one', async () => {
    await expect(answerOf(brokenOff())).rejects.toThrow(/broke off/);
    await expect(answerOf(said('{"sampleCo'))).rejects.toThrow(TypeError);
  });
  it('is a refusal with its sentence, or with its number where the sentence is missing', async () => {
    await expect(answerOf(said('{"problem":"Full."}', 413))).rejects.toMatchObject({ status: 413, message: 'Full.' });
    await expect(answerOf(brokenOff(502))).rejects.toMatchObject({ status: 502, message: 'The server answered 502.' });
  });
});
