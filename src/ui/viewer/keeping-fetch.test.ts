import { afterEach, describe, expect, it, jest } from '@jest/globals';
import { keepingFetch } from './keeping-fetch';

const real = globalThis.fetch;
afterEach(() => {
  globalThis.fetch = real;
});

/** A server that answers with what it was asked, until it goes away. */
function server(): { asked: string[]; gone: boolean } {
  const state = { asked: [] as string[], gone: false };
  globalThis.fetch = jest.fn((url: unknown) => {
    if (state.gone) return Promise.reject(new TypeError('nobody answers'));
    state.asked.push(String(url));
    return Promise.resolve(new Response(String(url), { headers: { 'x-frame-lengths': '3' } }));
  }) as never;
  return state;
}

describe('fetching and keeping', () => {
  it('asks once for what is as large or smaller, and again for what is larger', async () => {
    const state = server();
    const get = keepingFetch();
    expect(await (await get('/p/a?width=640')).text()).toBe('/p/a?width=640');
    expect(await (await get('/p/a?width=320')).text()).toBe('/p/a?width=640');
    expect(await (await get('/p/a?width=1280')).text()).toBe('/p/a?width=1280');
    expect(state.asked).toEqual(['/p/a?width=640', '/p/a?width=1280']);
  });
  it('answers with what it has once the server is gone, its headers too', async () => {
    const state = server();
    const get = keepingFetch();
    await get('/c/clip/0');
    await get('/p/a?width=640');
    state.gone = true;
    const clip = await get('/c/clip/0');
    expect([await clip.text(), clip.headers.get('x-frame-lengths')]).toEqual(['/c/clip/0', '3']);
    expect(await (await get('/p/a?width=2560')).text()).toBe('/p/a?width=640');
  });
});
