import { afterEach, describe, expect, it, jest } from '@jest/globals';
import { fetchedSound } from './fetched-sound';

const answers = (status: number) =>
  jest.spyOn(globalThis, 'fetch').mockResolvedValue(new Response(new Uint8Array([1, 2, 3]), { status }));
const asked = async (unpack = (bytes: ArrayBuffer) => Promise.resolve(bytes.byteLength)) => {
  let forgotten = 0;
  const sound = await fetchedSound('/sound', unpack, () => (forgotten += 1));
  return [sound, forgotten];
};
afterEach(() => {
  jest.restoreAllMocks();
});

describe('a sound of the server’s', () => {
  it('is unpacked', async () => {
    answers(200);
    expect(await asked()).toEqual([3, 0]);
  });
  it.each([500, 503, 507])(
    'is silent this time and asked for again where it could not be handed out: %d',
    async (status) => {
      answers(status);
      expect(await asked()).toEqual([null, 1]);
    },
  );
  it.each([403, 404, 422])('stays silent where it is refused for good: %d', async (status) => {
    answers(status);
    expect(await asked()).toEqual([null, 0]);
  });
  it('is asked for again where nobody is reached, and where it cannot be unpacked', async () => {
    jest.spyOn(globalThis, 'fetch').mockRejectedValue(new TypeError('no network'));
    expect(await asked()).toEqual([null, 1]);
    answers(200);
    expect(await asked(() => Promise.reject(new Error('damaged')))).toEqual([null, 1]);
  });
});
