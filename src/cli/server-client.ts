import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, stat } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setTimeout as sleep } from 'node:timers/promises';
import { nanoid } from 'nanoid';
import { Upload } from 'tus-js-client';
import type { ShowEdit } from '../core/show/edit';
import type { Show } from '../core/show/show';
import type { SheetEntry } from '../server/assets/contact-sheet';
import { whole } from '../server/blobs/whole';

/** Where a server is and the token to ask it by. */
export interface ServerAddress {
  readonly address: string;
  readonly token: string;
}

/** A Tanager elsewhere, asked over HTTP. @throws Error with the server’s sentence, from every method */
export interface ServerClient {
  call<Answer>(method: 'GET' | 'POST' | 'PATCH' | 'DELETE', path: string, body?: unknown): Promise<Answer>;
  /** By id, or by title where one show alone is called so. */
  showNamed(name: string): Promise<{ readonly show: Show; readonly revision: number }>;
  /** Makes one change, as one step to undo. */
  edit(id: string, revision: number, edit: ShowEdit): Promise<void>;
  sheet(id: string): Promise<readonly SheetEntry[]>;
  /** Brings a file onto a show’s sheet. @returns whether it was there before */
  bring(id: string, file: string): Promise<'added' | 'already-there'>;
  /** Brings a whole show as one file onto the shelf. */
  sendBundle(file: string): Promise<void>;
  /** Waits until all files of a show were looked at, and songs were listened to. */
  lookedAt(id: string, tell: (text: string) => void): Promise<readonly SheetEntry[]>;
  /** Fetches something into a file, whole or not at all. */
  fetchTo(path: string, file: string): Promise<void>;
}

const LOOK_EVERY_MS = 400;
const CHUNK_BYTES = 32 * 1024 * 1024;

export function serverClient({ address, token }: ServerAddress): ServerClient {
  const authorization = `Bearer ${token}`;
  const ask = async (path: string, init: RequestInit = {}): Promise<Response> => {
    const response = await fetch(address + path, {
      ...init,
      headers: { ...(init.headers as Record<string, string> | undefined), authorization },
    }).catch((cause: unknown) => {
      throw new Error(`${address} cannot be reached.`, { cause });
    });
    if (response.ok) return response;
    const refused = (await response.json().catch(() => null)) as { problem?: string } | null;
    if (response.status === 401) throw new Error(`${address} does not know this token.`);
    throw new Error(refused?.problem ?? `${address} answered ${response.status}.`);
  };
  /** Sends a file in pieces. @returns what the server says of it */
  const sent = async (file: string, metadata: Record<string, string>): Promise<string | undefined> => {
    const { size } = await stat(file).catch(() => {
      throw new Error(`${file}: there is no such file.`);
    });
    return new Promise((resolve, reject) => {
      const upload = new Upload(createReadStream(file), {
        endpoint: `${address}/api/v1/uploads`,
        headers: { authorization },
        uploadSize: size,
        chunkSize: CHUNK_BYTES,
        retryDelays: [0, 1000, 3000, 5000],
        metadata: { filename: path.basename(file), ...metadata },
        onSuccess: ({ lastResponse }) => resolve(lastResponse.getHeader('X-Outcome')),
        onError: (error) =>
          reject(new Error(`${path.basename(file)} could not be sent. ${error.message}`, { cause: error })),
      });
      upload.start();
    });
  };
  const client: ServerClient = {
    async call(method, at, body) {
      const response = await ask(at, {
        method,
        ...(body !== undefined && { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
      });
      return (await response.json()) as never;
    },
    async showNamed(name) {
      const { shows } = await client.call<{ shows: { id: string; title: string; place: string }[] }>(
        'GET',
        '/api/v1/shows',
      );
      const there = shows.filter(({ place }) => place !== 'removed');
      const byId = there.find(({ id }) => id === name);
      const byTitle = there.filter(({ title }) => title.toLowerCase() === name.toLowerCase());
      if (!byId && byTitle.length > 1)
        throw new Error(
          `${byTitle.length} shows are called “${name}”: ${byTitle.map(({ id }) => id).join(', ')}. Say which by its id.`,
        );
      const found = byId ?? byTitle[0];
      if (!found) throw new Error(`There is no show “${name}” on the shelf.`);
      return client.call('GET', `/api/v1/shows/${found.id}`);
    },
    async edit(id, revision, edit) {
      const { refused } = await client.call<{ refused: { sentence: string }[] }>('POST', `/api/v1/shows/${id}/edits`, {
        knownRevision: revision,
        edits: [{ editId: nanoid(16), edit }],
      });
      if (refused[0]) throw new Error(refused[0].sentence);
    },
    sheet: async (id) => (await client.call<{ entries: SheetEntry[] }>('GET', `/api/v1/shows/${id}/sheet`)).entries,
    bring: async (id, file) => ((await sent(file, { show: id })) === 'already-there' ? 'already-there' : 'added'),
    sendBundle: async (file) => void (await sent(file, { bundle: '1' })),
    async lookedAt(id, tell) {
      for (let told = -1; ;) {
        const entries = await client.sheet(id);
        const left = entries.filter(
          ({ state, facts }) => state === 'arrived' || (facts?.kind === 'sound' && !facts.listening),
        ).length;
        if (left === 0) return entries;
        if (left !== told) tell(`\rlooking at ${left} more … `);
        told = left;
        await sleep(LOOK_EVERY_MS);
      }
    },
    async fetchTo(at, file) {
      const response = await ask(at);
      await mkdir(path.dirname(file), { recursive: true });
      await whole(file, (part) => pipeline(Readable.fromWeb(response.body as never), createWriteStream(part)));
    },
  };
  return client;
}
