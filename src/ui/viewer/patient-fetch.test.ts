import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { patientFetch } from './patient-fetch';

const realFetch = globalThis.fetch;
beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  jest.useRealTimers();
  globalThis.fetch = realFetch;
});

/** Answers in turn; a `TypeError` is what a browser throws when nobody answers. */
const answering = (answers: readonly (Response | Error)[]) => {
  let asked = 0;
  globalThis.fetch = (async () => {
    const answer = answers[Math.min(asked++, answers.length - 1)]!;
    if (answer instanceof Error) throw answer;
    return answer;
  }) as typeof fetch;
  return () => asked;
};

describe('patientFetch', () => {
  it('asks again until the server answers', async () => {
    const asked = answering([
      new TypeError('Failed to fetch'),
      new TypeError('Failed to fetch'),
      new Response('here', { headers: { 'x-part': '1' } }),
    ]);
    const answer = patientFetch('/picture');
    await jest.advanceTimersByTimeAsync(5000);
    const response = await answer;
    expect([await response.text(), response.headers.get('x-part'), asked()]).toEqual(['here', '1', 3]);
  });
  it('asks again when the answer breaks off', async () => {
    const broken = {
      arrayBuffer: () => Promise.reject(new TypeError('network error')),
      status: 200,
      headers: new Headers(),
    } as unknown as Response;
    answering([broken, new Response('whole')]);
    const answer = patientFetch('/picture');
    await jest.advanceTimersByTimeAsync(2000);
    expect(await (await answer).text()).toBe('whole');
  });
  it('takes a refusal for an answer', async () => {
    const asked = answering([new Response('no such picture', { status: 404 })]);
    expect([(await patientFetch('/picture')).status, asked()]).toEqual([404, 1]);
  });
});
