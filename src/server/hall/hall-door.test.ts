import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { request as ask } from 'node:http';
import { showId } from '../../core/show/ids';
import type { ShowingCommand } from '../../core/showing/showing';
import { openHallDoor, type HallDoor } from './hall-door';
import { createPairing } from './pairing';

const [EVENING, OTHER] = [showId('evening'), showId('other')];
let door: HallDoor;
let port: number;
beforeAll(async () => {
  door = await openHallDoor(0, '127.0.0.1');
  port = Number(new URL(door.addresses[0]!).port);
});
afterAll(() => door.close());

interface Answer {
  readonly status: number;
  readonly headers: Record<string, string | string[] | undefined>;
  readonly text: string;
}

/** A request as a phone makes it, headers and all. */
function phone(
  method: string,
  path: string,
  options: { cookie?: string; body?: string; host?: string } = {},
): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const request = ask(
      {
        host: '127.0.0.1',
        port,
        method,
        path,
        headers: {
          host: options.host ?? `127.0.0.1:${port}`,
          ...(options.cookie && { cookie: options.cookie }),
          ...(options.body !== undefined && { 'content-length': Buffer.byteLength(options.body) }),
        },
      },
      (response) => {
        let text = '';
        response.on('data', (chunk) => {
          text += String(chunk);
          // A stream of events has no end of its own.
          if (path === '/events' && text.includes('data:')) request.destroy();
        });
        response.on('close', () => resolve({ status: response.statusCode!, headers: response.headers, text }));
      },
    );
    request.on('error', reject);
    request.end(options.body);
  });
}

async function paired(show = EVENING): Promise<string> {
  const answer = await phone('POST', '/pair', { body: `code=${door.invite(show)}` });
  expect([answer.status, answer.headers.location]).toEqual([303, '/remote']);
  return String(answer.headers['set-cookie']).split(';')[0]!;
}

it('opens at another port when the wanted one is taken, and gives the address it has', async () => {
  const second = await openHallDoor(port, '127.0.0.1');
  try {
    const other = Number(new URL(second.addresses[0]!).port);
    expect(other).not.toBe(port);
    expect(other).toBeGreaterThan(0);
  } finally {
    await second.close();
  }
});

describe('the hall’s door', () => {
  it('lets in a phone with the code, once, and does what it asks', async () => {
    const asked: ShowingCommand[] = [];
    const stop = door.listen(EVENING, (command) => asked.push(command));
    const code = door.invite(EVENING);
    const first = await phone('POST', '/pair', { body: `code=${code}` });
    expect(String(first.headers['set-cookie'])).toMatch(/HttpOnly; SameSite=Strict/);
    expect((await phone('POST', '/pair', { body: `code=${code}` })).status).toBe(403);
    const cookie = String(first.headers['set-cookie']).split(';')[0]!;
    expect((await phone('GET', '/remote', { cookie })).text).toContain('data-do="next"');
    for (const command of [{ do: 'next' }, { do: 'go', slide: 7 }, { do: 'black' }])
      expect((await phone('POST', '/do', { cookie, body: JSON.stringify(command) })).status).toBe(204);
    expect(asked).toEqual([{ do: 'next' }, { do: 'go', slide: 7 }, { do: 'black' }]);
    stop();
  });
  it('tells it where the showing is', async () => {
    const cookie = await paired();
    door.tell(EVENING, { phase: 'waiting', slide: 4, slideCount: 25, goneMs: 31_000, leftMs: 120_000, black: false });
    expect((await phone('GET', '/events', { cookie })).text).toContain('"phase":"waiting","slide":4');
  });
  it.each([
    ['GET', '/remote', 303],
    ['GET', '/events', 404],
    ['POST', '/do', 404],
    ['GET', '/api/v1/shows', 404],
    ['GET', '/shows/evening/arrange', 404],
    ['GET', '/../../etc/passwd', 404],
    ['PUT', '/pair', 404],
  ])('has nothing behind %s %s for who is not paired', async (method, path, status) => {
    expect((await phone(method, path, { body: method === 'GET' ? undefined : '{"do":"next"}' })).status).toBe(status);
    expect(
      (await phone(method, path, { cookie: 'tanager-remote=AAAA', body: method === 'GET' ? undefined : '{}' })).status,
    ).toBe(status);
  });
  it('does not hear another show’s phones', async () => {
    const asked: ShowingCommand[] = [];
    const stop = door.listen(EVENING, (command) => asked.push(command));
    const cookie = await paired(OTHER);
    expect((await phone('POST', '/do', { cookie, body: '{"do":"next"}' })).status).toBe(204);
    expect(asked).toEqual([]);
    stop();
  });
  it.each([
    '{"do":"explode"}',
    '{"do":"go","slide":-1}',
    '{"do":"go"}',
    'next',
    '',
    `{"do":"next","x":"${'y'.repeat(5000)}"}`,
  ])('refuses %.30j and goes on', async (body) => {
    const cookie = await paired();
    expect((await phone('POST', '/do', { cookie, body })).status).toBe(400);
  });
  it('lets all phones go when the presenter says so', async () => {
    const cookie = await paired();
    door.end(EVENING);
    expect((await phone('POST', '/do', { cookie, body: '{"do":"next"}' })).status).toBe(404);
    expect((await phone('GET', '/remote', { cookie })).status).toBe(303);
  });
  it('does not answer to names that were made to point here', async () => {
    expect((await phone('GET', '/', { host: 'evil.example' })).status).toBe(403);
  });
  it('shows pages that load nothing from elsewhere', async () => {
    const { headers, text } = await phone('GET', '/');
    expect(headers['content-security-policy']).toContain("default-src 'none'");
    expect(text).not.toMatch(/https?:\/\//);
  });
});

describe('pairing', () => {
  it('stops listening to who guesses: ten thousand codes let nobody in', () => {
    let atMs = 0;
    const pairing = createPairing(() => atMs);
    const code = pairing.invite(EVENING);
    let tried = 0;
    for (let guess = 0; guess < 10_000; guess += 1) {
      const text = String(guess).padStart(6, '0');
      if (text === code) continue;
      const answer = pairing.pair(text, `10.0.0.${guess % 200}`);
      if (answer === null) tried += 1;
      else expect(answer).toBe('later');
      atMs += 10;
    }
    // A hundred seconds, twenty tries a minute.
    expect(tried).toBeLessThanOrEqual(40);
  });
  it('does not let one who guesses keep the others out for long', () => {
    let atMs = 0;
    const pairing = createPairing(() => atMs);
    const code = pairing.invite(EVENING);
    const wrong = code === '000000' ? '000001' : '000000';
    for (let n = 0; n < 5; n += 1) pairing.pair(wrong, '10.0.0.9');
    expect(pairing.pair(wrong, '10.0.0.9')).toBe('later');
    expect(pairing.pair(code, '10.0.0.7')).toMatch(/^[\w-]{32}$/);
    atMs += 61_000;
    expect(pairing.pair(wrong, '10.0.0.9')).toBeNull();
  });
  it('a new code makes the old one worthless', () => {
    const pairing = createPairing();
    const old = pairing.invite(EVENING);
    let fresh = pairing.invite(EVENING);
    while (fresh === old) fresh = pairing.invite(EVENING);
    expect(pairing.pair(old, 'a')).toBeNull();
    expect(pairing.showOf(pairing.pair(fresh, 'a')!)).toBe(EVENING);
  });
});
