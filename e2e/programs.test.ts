import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import {
  type App,
  filmMade,
  openApp,
  openBrowser,
  openPage,
  type OpenPage,
  press,
  sending,
  seriousIn,
  waitForText,
} from './app';

type Json = Record<string, unknown>;
interface Operation {
  readonly security: readonly Record<string, readonly string[]>[];
  readonly requestBody?: { readonly content: { readonly 'application/json': { readonly schema: Json } } };
  readonly responses: Readonly<
    Record<string, { readonly content?: { readonly 'application/json': { readonly schema: Json } } }>
  >;
}
interface Document {
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
  readonly components: { readonly schemas: Readonly<Record<string, Json>> };
}

let app: App;
let browser: Browser;
let page: OpenPage;
let token: string;
let other: Server;
const told: { type: string }[] = [];

beforeAll(async () => {
  app = await openApp({ seed: true });
  browser = await openBrowser();
  page = await openPage(browser);
  other = createServer((request, response) => {
    let body = '';
    request.on('data', (chunk: Buffer) => (body += chunk.toString()));
    request.on('end', () => {
      told.push(JSON.parse(body) as { type: string });
      response.writeHead(204).end();
    });
  });
  await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve));
});
afterAll(async () => {
  expect(page.faults).toEqual([]);
  await browser.close();
  await app.close();
  await new Promise((resolve) => other.close(resolve));
});

/** By a program: nothing but the token. */
const call = (path: string, init: RequestInit = {}) =>
  fetch(app.address + path, {
    redirect: 'manual',
    ...init,
    headers: { ...(init.headers as Json), authorization: `Bearer ${token}` },
  });
async function tokenFor(name: string, ...scopes: readonly string[]): Promise<string> {
  await page.bringToFront();
  await page.goto(`${app.address}/programs`);
  await (await page.waitForSelector('aria/What uses it'))!.type(name);
  for (const scope of scopes) await press(page, scope);
  await page.click('[data-part=make-token]');
  await waitForText(page, '[data-part=told-word]', /tanager_\S+/);
  return page.$eval('[data-part=told-word] code', (element) => element.textContent);
}

describe('for programs', () => {
  it('a token is made, shown once, and stands for who made it within its scopes', async () => {
    token = await tokenFor('Looker');
    expect(await seriousIn(page)).toEqual([]);
    expect((await call('/api/v1/shows')).status).toBe(200);
    expect((await call('/api/v1/shows', sending('POST', { title: 'By a program' }))).status).toBe(404);
    token = await tokenFor(
      'Maker',
      'make shows and change them, bring files',
      'make films, screenings and series, send them on',
      'change the studio: its profile, mounts, pages',
    );
    const made = (await (await call('/api/v1/shows', sending('POST', { title: 'By a program' }))).json()) as {
      id: string;
    };
    expect(await (await call(`/api/v1/shows/${made.id}`)).json()).toMatchObject({ show: { title: 'By a program' } });
    for (const path of ['/api/v1/people', '/api/v1/tokens', '/api/v1/account', '/api/v1/audit'])
      expect([path, (await call(path)).status]).toEqual([path, 404]);
    await page.reload();
    await waitForText(page, '[data-part=programs]', /Maker/);
    expect(await page.$('[data-part=told-word]')).toBeNull();
  });

  it('everything the OpenAPI document names is called from it, with what it says is taken, and answers as it says', async () => {
    const api = (await (await fetch(`${app.address}/api/v1/openapi`)).json()) as Document;
    const refused: string[] = [];
    let called = 0;
    for (const [path, methods] of Object.entries(api.paths))
      for (const [method, operation] of Object.entries(methods)) {
        // One streams for ever, others take bytes; they have tests of their own.
        if (/\/(events|uploads|samples)$/.test(path)) continue;
        const body = operation.requestBody && sampleOf(operation.requestBody.content['application/json'].schema, api);
        const at = path.replace('{show}', 'lantern-regatta').replace(/\{\w+\}/g, 'none');
        const answer = await call(
          at,
          method === 'get'
            ? {}
            : body === undefined
              ? { method: method.toUpperCase() }
              : sending(method.toUpperCase(), body),
        );
        called += 1;
        const text = await answer.text();
        // A body that is as the document says is never called malformed; what it names may not be there.
        if (
          answer.status >= 500 ||
          answer.status === 400 ||
          /must |is not known|unspecified/.test(answer.status === 422 ? text : '')
        )
          refused.push(`${method} ${path}: ${answer.status} ${text.slice(0, 200)}`);
        const asked = operation.security.some((one) => 'token' in one) || operation.security.length === 0;
        if (!asked && answer.status !== 404 && answer.status !== 401)
          refused.push(`${method} ${path} let a token in: ${answer.status}`);
        const schema =
          answer.status === 200 ? operation.responses['200']?.content?.['application/json'].schema : undefined;
        if (schema) {
          const missing = requiredOf(schema, api).filter((name) => !(name in (JSON.parse(text) as Json)));
          if (missing.length > 0) refused.push(`${method} ${path} lacks ${missing.join()}`);
        }
      }
    expect(refused).toEqual([]);
    expect(called).toBeGreaterThan(110);
  });

  it('another program is told when a film is made', async () => {
    await page.bringToFront();
    await page.goto(`${app.address}/programs`);
    const url = `http://127.0.0.1:${(other.address() as AddressInfo).port}/told`;
    await (await page.waitForSelector('aria/Address'))!.type(url);
    await page.click('[data-part=make-hook]');
    await waitForText(page, '[data-part=told-word]', /whsec_/);
    await (await page.waitForSelector('[data-part=try-hook]'))!.click();
    for (let tries = 0; tries < 200 && told.length === 0; tries += 1)
      await new Promise((resolve) => setTimeout(resolve, 50));
    const shows = (await (await call('/api/v1/shows')).json()) as { shows: { id: string; slideCount: number }[] };
    await filmMade(app, shows.shows.find(({ slideCount }) => slideCount > 0)!.id, { span: { fromMs: 0, toMs: 1000 } });
    for (let tries = 0; tries < 200 && told.length < 2; tries += 1)
      await new Promise((resolve) => setTimeout(resolve, 50));
    expect(told.map(({ type }) => type)).toEqual(['trial', 'film.ready']);
    await page.reload();
    await waitForText(page, '[data-part=hook]', /It was taken/);
  });
});

function resolved(schema: Json, api: Document): Json {
  const ref = schema.$ref as string | undefined;
  return ref === undefined ? schema : resolved(api.components.schemas[ref.split('/').at(-1)!]!, api);
}
const requiredOf = (schema: Json, api: Document): string[] =>
  (resolved(schema, api).required as string[] | undefined) ?? [];

/** The smallest value a schema takes. */
function sampleOf(given: Json, api: Document): unknown {
  const schema = resolved(given, api);
  if ('const' in schema) return schema.const;
  if (schema.enum) return (schema.enum as unknown[])[0];
  const several = (schema.oneOf ?? schema.anyOf) as Json[] | undefined;
  if (several) return sampleOf(several.at(-1)!, api);
  switch (schema.type) {
    case 'object': {
      const properties = (schema.properties ?? {}) as Record<string, Json>;
      return Object.fromEntries(
        ((schema.required as string[] | undefined) ?? []).map((name) => [name, sampleOf(properties[name]!, api)]),
      );
    }
    case 'array':
      return Array.from({ length: (schema.minItems as number | undefined) ?? 0 }, () =>
        sampleOf(schema.items as Json, api),
      );
    case 'string':
      return textLike((schema.pattern as string | undefined) ?? '', (schema.minLength as number | undefined) ?? 0);
    case 'integer':
    case 'number':
      return schema.minimum;
    case 'boolean':
      return false;
    case 'null':
      return null;
    default:
      return {};
  }
}

const TEXTS = [
  'a',
  'abcdefgh',
  'a'.repeat(64),
  '#102030',
  'http://127.0.0.1:9/',
  'ilka@example.org',
  '16:9',
  'en',
  '2026-01-01',
  'A fine name',
];
/** A text of those at hand that a pattern takes. */
function textLike(pattern: string, least: number): string {
  const found = TEXTS.find((text) => text.length >= least && new RegExp(pattern, 'i').test(text));
  return found ?? 'a'.repeat(least);
}
