import { createHmac } from 'node:crypto';
import { createServer, type IncomingHttpHeaders, type Server } from 'node:http';
import { mkdtemp, rm } from 'node:fs/promises';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { eq } from 'drizzle-orm';
import { jobs as jobTable } from '../database/schema';
import { showId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import { openServer, type RunningServer } from '../running-server';
import { signatureOf } from './hooks';

interface Got {
  readonly headers: IncomingHttpHeaders;
  readonly body: string;
}
let folder: string;
let server: RunningServer;
let other: Server;
let got: Got[];
/** What it answers, one after the other; then 204. */
let answers: number[];
let url: string;
beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-hooks-'));
  process.env.TANAGER_DATA = folder;
  server = await openServer();
  server.runner.start(['hook']);
  got = [];
  answers = [];
  other = createServer((request, response) => {
    let body = '';
    request.on('data', (chunk: Buffer) => (body += chunk.toString()));
    request.on('end', () => {
      got.push({ headers: request.headers, body });
      response.writeHead(answers.shift() ?? 204).end();
    });
  });
  await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve));
  url = `http://127.0.0.1:${(other.address() as AddressInfo).port}/told`;
});
afterEach(async () => {
  await server.close();
  await new Promise((resolve) => other.close(resolve));
  delete process.env.TANAGER_DATA;
  await rm(folder, { recursive: true, force: true });
});
async function until(right: () => boolean | Promise<boolean>): Promise<void> {
  for (let tries = 0; tries < 400; tries += 1) {
    if (await right()) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`it never came to that: ${JSON.stringify(await server.hooks.list('studio'))}`);
}
const last = async () => (await server.hooks.list('studio'))[0]!.last;

describe('another program', () => {
  it('is told what it asked for, signed, and again under the same id until it takes it', async () => {
    const { secret } = await server.hooks.make('studio', { url, events: ['note.left', 'film.ready'] });
    const show = showId('evening');
    await server.shows.put(emptyShow(show, 'An evening'));
    answers = [503];
    server.events.tell(show, { kind: 'proofs' });
    server.events.tell(show, { kind: 'notes' });
    await until(() => got.length === 2);
    await until(async () => (await last()) === 'It was taken.');
    expect(got.map(({ body }) => body)).toEqual([got[0]!.body, got[0]!.body]);
    expect(JSON.parse(got[0]!.body)).toMatchObject({
      type: 'note.left',
      data: { show: { id: 'evening', title: 'An evening' } },
    });
    const { headers, body } = got[1]!;
    expect(headers['webhook-id']).toBe(got[0]!.headers['webhook-id']);
    const signed = `${headers['webhook-id'] as string}.${headers['webhook-timestamp'] as string}.${body}`;
    const key = Buffer.from(secret.replace('whsec_', ''), 'base64');
    expect(headers['webhook-signature']).toBe(`v1,${createHmac('sha256', key).update(signed).digest('base64')}`);
  });
  it('is not told of another studio, and no more once it is removed', async () => {
    const { id } = await server.hooks.make('other', { url, events: ['note.left'] });
    await server.shows.put(emptyShow(showId('evening'), 'An evening'));
    server.events.tell(showId('evening'), { kind: 'notes' });
    expect(await server.hooks.try('studio', id)).toBe(false);
    expect(await server.hooks.try('other', id)).toBe(true);
    await until(() => got.length === 1);
    expect(JSON.parse(got[0]!.body)).toMatchObject({ type: 'trial', data: {} });
    expect(await server.hooks.remove('studio', id)).toBe(false);
    expect(await server.hooks.remove('other', id)).toBe(true);
    expect(await server.hooks.try('other', id)).toBe(false);
  });
  it('that cannot be reached is tried again, and the reason is told', async () => {
    const { id } = await server.hooks.make('studio', { url: 'http://127.0.0.1:9/', events: ['film.ready'] });
    await server.hooks.try('studio', id);
    await until(async () =>
      [...(await server.jobs.waitingOf('hook', await keys())).values()].some(({ problem }) =>
        /127\.0\.0\.1:9 could not be reached/.test(problem ?? ''),
      ),
    );
  });
  it('signs as the standard’s own example does', () => {
    const secret = 'whsec_MfKQ9r8GKYqrTwjUPD8ILPZIo2LaLaSw';
    expect(signatureOf(secret, 'msg_p5jXN8AQM9LWM0D4loKWxJek', 1614265330, '{"test": 2432232314}')).toBe(
      'v1,g0hM9SsE+OTPJTGt/tmIKtSyZlE3uFJELVlNIOLJ1OE=',
    );
  });
});

async function keys(): Promise<string[]> {
  const rows = await server.db.select({ key: jobTable.key }).from(jobTable).where(eq(jobTable.kind, 'hook'));
  return rows.map(({ key }) => key);
}
