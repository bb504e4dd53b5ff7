import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Client } from '@libsql/client';
import { expect, it } from '@jest/globals';
import { emptyShow } from '../../core/show/show';
import { showId } from '../../core/show/ids';
import { createEvents } from '../events';
import { createShowService } from '../shows/show-service';
import { openDatabase } from './open-database';

/** Another process that begins to write and takes its time. */
const HOLDS = `
  import { createClient } from '@libsql/client';
  const client = createClient({ url: process.argv[1] });
  const writing = await client.transaction('write');
  await writing.execute("create table if not exists held (at integer)");
  console.log('holds');
  setTimeout(async () => { await writing.commit(); process.exit(0); }, 900);
`;

it('waits while another process writes to the same file, on each of its connections', async () => {
  const folder = await mkdtemp(path.join(tmpdir(), 'tanager-busy-'));
  const url = `file:${path.join(folder, 'tanager.db')}`;
  const database = await openDatabase(url);
  try {
    const shows = createShowService(database, createEvents());
    await shows.put(emptyShow(showId('before'), 'Before'));
    const client = (database.db as unknown as { readonly $client: Client }).$client;
    for (const round of [1, 2]) {
      // While somebody reads through the first connection, what is written goes through another.
      const reading = await client.transaction('read');
      const other = spawn(process.execPath, ['--input-type=module', '-e', HOLDS, url], {
        stdio: ['ignore', 'pipe', 'inherit'],
      });
      const ended = once(other, 'exit');
      await once(other.stdout, 'data');
      await shows.put(emptyShow(showId(`while-${round}`), 'While it is held'));
      reading.close();
      expect(await ended).toEqual([0, null]);
    }
    expect((await shows.load(showId('while-2')))?.show.title).toBe('While it is held');
  } finally {
    database.close();
    await rm(folder, { recursive: true });
  }
}, 60_000);
