import { copyFile, mkdir, readFile, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { createClient, type Client } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import PQueue from 'p-queue';
import { isDiskFull } from '../http/refusal';
import { logger } from '../logger';
import { dataFolder, migrationsFolder } from '../paths';
import { keepReserve, releaseReserve } from './reserve';
import * as schema from './schema';

export type Database = LibSQLDatabase<typeof schema>;

/** What can be written through: the database, or a transaction on it. */
export type Writing = Pick<Database, 'select' | 'insert' | 'update' | 'delete'>;

export interface OpenDatabase {
  readonly db: Database;
  /** All writing goes through here, one after the other: parallel write transactions fail with SQLITE_BUSY. */
  write<Value>(work: (db: Database) => Promise<Value>): Promise<Value>;
  close(): void;
}

/** Another process may be writing for so long: the command line, a backup, a second server on the same folder. */
const BUSY_MS = 10_000;

/** Opens the database (`DATABASE_URL`, or a file in the data folder) and brings its tables up to date; before that it is copied aside. */
export async function openDatabase(
  url = process.env.DATABASE_URL ?? `file:${path.join(dataFolder(), 'tanager.db')}`,
): Promise<OpenDatabase> {
  const file = url.startsWith('file:') ? url.slice('file:'.length) : null;
  if (file) await mkdir(path.dirname(file), { recursive: true });
  // A file has several connections: each waits while another process writes.
  const client = createClient({ url, authToken: process.env.DATABASE_TOKEN, ...(file && { timeout: BUSY_MS }) });
  if (file) {
    // A write-ahead log survives `kill -9` with every finished transaction.
    await client.execute('PRAGMA journal_mode = WAL');
    await copyAside(client, file);
    await keepReserve(path.dirname(file));
  }
  const db = drizzle(client, { schema });
  await migrate(db, { migrationsFolder: migrationsFolder() });
  const writer = new PQueue({ concurrency: 1 });
  return {
    db,
    write: (work) =>
      writer.add(async () => {
        try {
          return await work(db);
        } catch (error) {
          // On a full disk edits are saved all the same, from the room that was kept for them.
          if (!file || !isDiskFull(error) || !(await releaseReserve(path.dirname(file)))) throw error;
          logger().error('the disk is full; the reserve is used');
          return work(db);
        }
      }),
    close: () => client.close(),
  };
}

/** Before tables are changed they are kept as they were, in a file beside; the latest copy stays. */
async function copyAside(client: Client, file: string): Promise<void> {
  const known = await client.execute("select name from sqlite_master where name = '__drizzle_migrations'");
  if (known.rows.length === 0) return;
  const [done] = (await client.execute('select count(*) as count from __drizzle_migrations')).rows;
  const journal = JSON.parse(await readFile(path.join(migrationsFolder(), 'meta/_journal.json'), 'utf8')) as {
    entries: unknown[];
  };
  const count = Number(done!.count);
  if (count >= journal.entries.length) return;
  const aside = `${file}.before-${count + 1}`;
  if (
    await stat(aside).then(
      () => true,
      () => false,
    )
  )
    return;
  // Everything that is still in the log goes into the file first; nobody else has it open.
  await client.execute('PRAGMA wal_checkpoint(TRUNCATE)');
  await copyFile(file, `${aside}.part`);
  await rm(aside, { force: true });
  await copyFile(`${aside}.part`, aside);
  await rm(`${aside}.part`, { force: true });
}
