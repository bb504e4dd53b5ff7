import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import path from 'node:path';
import { Readable } from 'node:stream';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { PAGES, ROUTES } from '../src/server/http/routes';
import { ask, openApp, type App } from './app';

let app: App;
let show: string;
beforeAll(async () => {
  app = await openApp();
  const made = await ask(`${app.address}/api/v1/shows`, json({ title: 'Evening' }));
  show = ((await made.json()) as { id: string }).id;
});
afterAll(() => app.close());

const json = (body: unknown, headers: Record<string, string> = {}) => ({
  method: 'POST',
  headers: { 'content-type': 'application/json', ...headers },
  body: typeof body === 'string' ? body : JSON.stringify(body),
});
const edits = (body: unknown) => ask(`${app.address}/api/v1/shows/${show}/edits`, json(body));
const filled = (path_: string, id: string) =>
  path_
    .replace('[show]', id)
    .replace('[film]', 'none')
    .replace('[asset]', 'a'.repeat(64))
    .replace(/\[\w+\]/g, 'x');

/** Under another name than the address: what fetch would not send. */
function asked(
  path_: string,
  headers: Record<string, string>,
  method = 'GET',
): Promise<{ status: number; headers: Record<string, unknown> }> {
  return new Promise((resolve, reject) => {
    const sent = httpRequest(`${app.address}${path_}`, { method, headers }, (response) => {
      response.resume();
      resolve({ status: response.statusCode!, headers: response.headers });
    });
    sent.on('error', reject);
    sent.end();
  });
}

describe('the server', () => {
  it.each([...Object.keys(PAGES).map((page) => `GET ${page}`), ...Object.keys(ROUTES)])(
    'answers nobody under a foreign name: %s',
    async (name) => {
      const [method, where] = name.split(' ') as [string, string];
      expect((await asked(filled(where, show), { host: 'rebound.example' }, method)).status).toBe(403);
    },
  );
  it.each(Object.keys(ROUTES).filter((name) => name.includes('[show]')))(
    'says of an unknown show that it is not there: %s',
    async (name) => {
      const [method, where] = name.split(' ') as [string, string];
      const body = method === 'POST' || method === 'PATCH' ? '{}' : undefined;
      const answer = await ask(`${app.address}${filled(where, 'no-such-show')}`, { method, body });
      expect(answer.status).toBe(404);
      expect(((await answer.json()) as { problem: string }).problem).toMatch(/^There is no such .+\.$/);
    },
  );
  it.each(['http://elsewhere.example', 'null', 'not an address'])(
    'changes nothing for pages of other sites (%s)',
    async (origin) => {
      const answer = await ask(`${app.address}/api/v1/shows`, json({ title: 'x' }, { origin }));
      expect(answer.status).toBe(403);
      const cross = await asked(`/api/v1/shows/${show}`, { 'sec-fetch-site': 'cross-site' }, 'DELETE');
      expect(cross.status).toBe(403);
    },
  );
  it.each([
    ['/', 'POST'],
    ['/api/v1/shows', 'PUT'],
    ['/api/v1/films/none/file', 'POST'],
    ['/api/v1/screenings/none/film', 'DELETE'],
  ])('takes at %s no %s', async (where, method) => {
    expect((await asked(where, {}, method)).status).toBe(405);
  });
  it('lets pages load scripts by their own nonce alone, another one each time', async () => {
    const policies = await Promise.all(
      [0, 1].map(async () => (await ask(app.address)).headers.get('content-security-policy')!),
    );
    const scripts = policies.map((policy) => /script-src [^;]*/.exec(policy)![0]);
    expect(scripts[0]).toMatch(/'nonce-[\w+/=]{20,}'/);
    expect(scripts[0]).not.toContain('unsafe-inline');
    expect(scripts[0]).not.toBe(scripts[1]);
    const page = await (await ask(app.address)).text();
    for (const [tag] of page.matchAll(/<script\b[^>]*>/g)) expect(tag).toContain('nonce=');
  });
  it('does not open its uploads to other sites', async () => {
    for (const method of ['OPTIONS', 'POST']) {
      const { headers } = await asked('/api/v1/uploads', { 'tus-resumable': '1.0.0', 'upload-length': '1' }, method);
      expect(Object.keys(headers).filter((name) => name.startsWith('access-control'))).toEqual([]);
    }
  });
  it('tells whoever watches over it how it is', async () => {
    const answer = (await (await ask(`${app.address}/api/health`)).json()) as {
      ok: boolean;
      parts: { name: string }[];
    };
    expect([answer.ok, answer.parts.map((part) => part.name)]).toEqual([
      true,
      ['database', 'disk', 'ffmpeg', 'encoder', 'queue'],
    ]);
  });
});

describe('requests that are too much', () => {
  const wrong = (index: number) => ({
    editId: `wrong-edit-${index}`,
    edit: { kind: 'set-lengths', lengths: [{}, { slideId: 7 }] },
  });
  it.each<[string, () => unknown]>([
    [
      'a hundred thousand wrong edits',
      () => ({ knownRevision: 0, edits: Array.from({ length: 100_000 }, (_, index) => wrong(index)) }),
    ],
    [
      'a thousand wrong edits',
      () => ({ knownRevision: 0, edits: Array.from({ length: 1000 }, (_, index) => wrong(index)) }),
    ],
    ['a list in a list in a list', () => `{"knownRevision":0,"edits":${'['.repeat(200_000)}${']'.repeat(200_000)}}`],
    [
      'groups in groups in groups',
      () => {
        const deep = Array.from({ length: 39 }).reduce<object>(
          (inner, _, index) => ({ kind: 'group', id: `g${index}`, layers: [inner] }),
          { kind: 'solid', id: 's', colour: '#000000' },
        );
        return {
          knownRevision: 0,
          edits: [{ editId: 'deep-groups', edit: { kind: 'set-layers', slideId: 'a', layers: [deep] } }],
        };
      },
    ],
    ['a name as long as the request', () => ({ ['x'.repeat(4_000_000)]: 1 })],
  ])('are refused in a few words, and leave the server free: %s', async (_name, make) => {
    const answer = await edits(make());
    const text = await answer.text();
    expect([400, 413, 422, 200]).toContain(answer.status);
    if (answer.status === 200)
      expect(JSON.parse(text)).toMatchObject({ revision: 0, refused: [{ reason: expect.any(String) }] });
    expect(text.length).toBeLessThan(2000);
    expect((await ask(`${app.address}/api/v1/shows/${show}`)).status).toBe(200);
  });
  it('are not read to their end when nobody says how long they are', async () => {
    let given = 0;
    const endless = new Readable({
      read() {
        given += 1;
        this.push(given > 400 ? null : Buffer.alloc(1024 * 1024, ' '));
      },
    });
    const answer = await ask(`${app.address}/api/v1/shows/${show}/edits`, {
      method: 'POST',
      body: Readable.toWeb(endless) as BodyInit,
      duplex: 'half',
    } as RequestInit).catch(() => null);
    expect(answer?.status ?? 413).toBe(413);
    expect(given).toBeLessThan(100);
  });
});

describe('hostile files', () => {
  it('are set aside with a line each while others come in, and are not tried again at the next start', async () => {
    const upload = async (name: string, bytes: Uint8Array) => {
      const metadata = `filename ${Buffer.from(name).toString('base64')},show ${Buffer.from(show).toString('base64')}`;
      const sent = await ask(`${app.address}/api/v1/uploads`, {
        method: 'POST',
        headers: {
          'tus-resumable': '1.0.0',
          'upload-length': String(bytes.length),
          'upload-metadata': metadata,
          'content-type': 'application/offset+octet-stream',
        },
        body: bytes.slice(),
      });
      expect(sent.status).toBe(201);
    };
    const svg = (radius: number) =>
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="4000" height="4000"><filter id="f">${`<feMorphology operator="dilate" radius="${radius}"/>`.repeat(40)}</filter><rect width="4000" height="4000" filter="url(#f)"/></svg>`,
      );
    for (const radius of [800, 850, 900]) await upload(`slow-${radius}.svg`, svg(radius));
    await upload('noise.jpg', Buffer.alloc(5000, 0xab));
    await upload(
      'fine.svg',
      Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40"><rect width="40" height="40" fill="#345"/></svg>',
      ),
    );
    const sheet = async () =>
      (
        (await (await ask(`${app.address}/api/v1/shows/${show}/sheet`)).json()) as {
          entries: { fileName: string; state: string; problem: string | null }[];
        }
      ).entries;
    let entries = await sheet();
    for (let tries = 0; tries < 240 && entries.some((entry) => entry.state === 'arrived'); tries += 1) {
      await new Promise((resolve) => {
        setTimeout(resolve, 500);
      });
      entries = await sheet();
    }
    const states = () => Object.fromEntries(entries.map((entry) => [entry.fileName, entry.state]));
    expect(states()).toEqual({
      'slow-800.svg': 'refused',
      'slow-850.svg': 'refused',
      'slow-900.svg': 'refused',
      'noise.jpg': 'refused',
      'fine.svg': 'ready',
    });
    for (const entry of entries.filter((one) => one.state === 'refused'))
      expect(entry.problem).toMatch(/^[^\n]{20,300}$/);
    await app.killHard();
    await app.start();
    entries = await sheet();
    expect(Object.values(states())).not.toContain('arrived');
  });
});

describe('servers', () => {
  it('share no data folder: the second says who has it and ends', () => {
    const second = spawnSync(
      process.execPath,
      ['node_modules/next/dist/bin/next', 'start', '-p', '0', '-H', '127.0.0.1'],
      {
        env: { ...process.env, NODE_OPTIONS: '', NODE_ENV: 'production', TANAGER_DATA: app.dataFolder },
        encoding: 'utf8',
        timeout: 60_000,
      },
    );
    expect(second.stderr).toMatch(/Another server has this data folder: process \d+ on /);
    expect(second.status).not.toBe(0);
  });
  it('end in good order when told to: nothing is left running and the folder is free', async () => {
    const lock = path.join(app.dataFolder, 'server.lock');
    expect(existsSync(lock)).toBe(true);
    await app.end();
    expect(existsSync(lock)).toBe(false);
    expect(spawnSync('pgrep', ['-f', app.dataFolder], { encoding: 'utf8' }).stdout.trim()).toBe('');
    await app.start();
  });
});
