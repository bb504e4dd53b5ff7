import { mkdir } from 'node:fs/promises';
import path from 'node:path';
import { createClient } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import PQueue from 'p-queue';
import { dataFolder, migrationsFolder } from '../paths';
import * as schema from './schema';

export type Database = LibSQLDatabase<typeof schema>;

export interface OpenDatabase {
  readonly db: Database;
  /** All writing goes through here, one after the other: parallel write transactions fail with SQLITE_BUSY. */
  write<Value>(work: (db: Database) => Promise<Value>): Promise<Value>;
  close(): void;
}

/** Opens the database (`DATABASE_URL`, or a file in the data folder) and brings its tables up to date. */
export async function openDatabase(
  url = process.env.DATABASE_URL ?? `file:${path.join(dataFolder(), 'tanager.db')}`,
): Promise<OpenDatabase> {
  if (url.startsWith('file:')) await mkdir(path.dirname(url.slice('file:'.length)), { recursive: true });
  const client = createClient({ url, authToken: process.env.DATABASE_TOKEN });
  if (url.startsWith('file:')) {
    // A write-ahead log survives `kill -9` with every finished transaction.
    await client.execute('PRAGMA journal_mode = WAL');
    await client.execute('PRAGMA busy_timeout = 5000');
  }
  const db = drizzle(client, { schema });
  await migrate(db, { migrationsFolder: migrationsFolder() });
  const writer = new PQueue({ concurrency: 1 });
  return {
    db,
    write: (work) => writer.add(() => work(db)),
    close: () => client.close(),
  };
}
