import { afterEach, describe, expect, it } from '@jest/globals';
import { assertOwnAddress } from './own-address';

const asked = (method: string, headers: Record<string, string>) => () =>
  assertOwnAddress({ method, header: (name) => headers[name] ?? null });
const own = { host: 'localhost:3217' };

afterEach(() => {
  for (const name of ['TANAGER_HOSTS', 'TANAGER_ADDRESS', 'TANAGER_TRUST_PROXY']) delete process.env[name];
});

describe('a request', () => {
  it.each<[string, string, Record<string, string>]>([
    ['from a program, without an origin', 'POST', own],
    ['from this site’s own page', 'POST', { ...own, origin: 'http://localhost:3217', 'sec-fetch-site': 'same-origin' }],
    [
      'from this site’s own form, whose page sends no referrer',
      'POST',
      { ...own, origin: 'null', 'sec-fetch-site': 'same-origin' },
    ],
    [
      'that only looks, from anywhere',
      'GET',
      { ...own, origin: 'http://elsewhere.example', 'sec-fetch-site': 'cross-site' },
    ],
    ['under an address in brackets', 'GET', { host: '[::1]:3217' }],
    ['under a name in capitals', 'GET', { host: 'LOCALHOST:3217' }],
  ])('%s is let in', (_name, method, headers) => {
    expect(asked(method, headers)).not.toThrow();
  });
  it.each<[string, string, Record<string, string>]>([
    ['under a name that was made to point here', 'GET', { host: 'rebound.example:3217' }],
    ['without a host', 'GET', {}],
    ['from another site', 'POST', { ...own, origin: 'http://elsewhere.example' }],
    ['from the same machine’s other port', 'POST', { ...own, origin: 'http://localhost:8080' }],
    ['from nowhere that can be named', 'POST', { ...own, origin: 'null' }],
    ['that the browser says is from another site', 'DELETE', { ...own, 'sec-fetch-site': 'cross-site' }],
    ['that pretends to come through a proxy', 'GET', { host: 'rebound.example', 'x-forwarded-host': 'localhost' }],
  ])('%s is refused with a sentence', (_name, method, headers) => {
    expect(asked(method, headers)).toThrow(
      expect.objectContaining({ status: 403, message: expect.stringMatching(/^This .+\.$/) }),
    );
  });
  it('under the public address is let in, through a proxy that is trusted', () => {
    process.env.TANAGER_ADDRESS = 'https://shows.studio.example';
    expect(asked('POST', { host: 'shows.studio.example', origin: 'https://shows.studio.example' })).not.toThrow();
    const proxied = {
      host: '127.0.0.1:3217',
      'x-forwarded-host': 'shows.studio.example',
      origin: 'https://shows.studio.example',
    };
    process.env.TANAGER_TRUST_PROXY = '1';
    expect(asked('POST', proxied)).not.toThrow();
  });
});
