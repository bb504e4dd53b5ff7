import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { S3Client } from '@aws-sdk/client-s3';
import { whole } from './whole';

/** Bytes from, up to and not including to. */
export interface ByteRange {
  readonly from: number;
  readonly to: number;
}

export interface StoredObject {
  readonly key: string;
  readonly byteCount: number;
  /** When it came, in milliseconds since 1970. */
  readonly at: number;
}

/** Files by name in a store that several machines reach. */
export interface ObjectStore {
  /** It appears under its name only when it is whole. */
  put(key: string, file: string): Promise<void>;
  /** Copies it into a file, whole or not at all. @returns false when it is not there */
  fetch(key: string, file: string): Promise<boolean>;
  /** @returns null when it is not there */
  read(key: string, range?: ByteRange): Promise<Readable | null>;
  /** @returns null when it is not there */
  find(key: string): Promise<StoredObject | null>;
  /** Everything whose name begins so. */
  list(prefix: string): AsyncIterable<StoredObject>;
  remove(keys: readonly string[]): Promise<void>;
  /** Whether it answers. @throws when it does not */
  ask(): Promise<void>;
}

/** The store of files did not answer, or not as it should. */
export class StoreUnreachableError extends Error {
  override readonly name = 'StoreUnreachableError';
  constructor(options?: ErrorOptions) {
    super(STORE_AWAY, options);
  }
}

export const STORE_AWAY = 'The store that keeps the files does not answer as it should. Try again soon.';

/** Told by its name: what was bundled apart has another class of the same. */
export const isStoreUnreachable = (error: unknown): error is StoreUnreachableError =>
  error instanceof Error && error.name === 'StoreUnreachableError';

export interface ObjectSettings {
  readonly bucket: string;
  /** Of a store that is not Amazon's. */
  readonly endpoint?: string | undefined;
  readonly region: string;
  /** Put before every name. */
  readonly prefix: string;
}

/** `TANAGER_S3_BUCKET`, `_ENDPOINT`, `_REGION`, `_PREFIX`; null when no bucket is named. Keys come from where Amazon's programs look for them (`AWS_ACCESS_KEY_ID` …). */
export function objectSettings(env: NodeJS.ProcessEnv = process.env): ObjectSettings | null {
  const { TANAGER_S3_BUCKET: bucket, TANAGER_S3_ENDPOINT: endpoint } = env;
  if (!bucket) return null;
  const prefix = (env.TANAGER_S3_PREFIX ?? '').replace(/^\/+|\/+$/g, '');
  return {
    bucket,
    ...(endpoint && { endpoint }),
    region: env.TANAGER_S3_REGION ?? 'us-east-1',
    prefix: prefix ? `${prefix}/` : '',
  };
}

/** Larger files go up in parts of this, two at a time: that is all that is ever in memory. */
const PART_BYTES = 8 * 1024 * 1024;
/** So many may be removed at once. */
const MOST_REMOVED = 1000;

/** A store that speaks S3. Its client is only loaded where one is configured. */
export async function openObjectStore(settings: ObjectSettings): Promise<ObjectStore & { close(): void }> {
  const { bucket: Bucket, endpoint, region, prefix } = settings;
  const s3 = await import('@aws-sdk/client-s3');
  const { Upload } = await import('@aws-sdk/lib-storage');
  const client: S3Client = new s3.S3Client({
    region,
    ...(endpoint && { endpoint, forcePathStyle: true }),
    // Older stores refuse checksums at the end of what is sent.
    requestChecksumCalculation: 'WHEN_REQUIRED',
    responseChecksumValidation: 'WHEN_REQUIRED',
    maxAttempts: 4,
  });
  const named = (key: string) => prefix + key;

  async function told<Result>(what: () => Promise<Result>): Promise<Result> {
    try {
      return await what();
    } catch (error) {
      if (isSystemFault(error)) throw error;
      throw new StoreUnreachableError({ cause: error });
    }
  }
  /** Null instead of the fault that says that it is not there. */
  async function orNull<Result>(what: () => Promise<Result>): Promise<Result | null> {
    try {
      return await what();
    } catch (error) {
      if (statusOf(error) === 404) return null;
      throw error;
    }
  }
  const body = (key: string, range?: ByteRange) =>
    told(() =>
      orNull(async () => {
        const Range = range && `bytes=${range.from}-${range.to - 1}`;
        const answer = await client.send(new s3.GetObjectCommand({ Bucket, Key: named(key), Range }));
        return answer.Body as Readable;
      }).catch((error: unknown) => {
        // Behind the end there is nothing.
        if (statusOf(error) === 416) return Readable.from([]);
        throw error;
      }),
    );

  return {
    put: (key, file) =>
      told(async () => {
        const params = { Bucket, Key: named(key), Body: createReadStream(file) };
        await new Upload({ client, params, partSize: PART_BYTES, queueSize: 2 }).done();
      }),
    async fetch(key, file) {
      const stream = await body(key);
      if (!stream) return false;
      await mkdir(path.dirname(file), { recursive: true });
      await whole(file, (part) => told(() => pipeline(stream, createWriteStream(part))), false);
      return true;
    },
    read: body,
    find: (key) =>
      told(() =>
        orNull(async () => {
          const found = await client.send(new s3.HeadObjectCommand({ Bucket, Key: named(key) }));
          return { key, byteCount: found.ContentLength ?? 0, at: found.LastModified?.getTime() ?? 0 };
        }),
      ),
    async *list(from) {
      let ContinuationToken: string | undefined;
      do {
        const page = await told(() =>
          client.send(new s3.ListObjectsV2Command({ Bucket, Prefix: named(from), ContinuationToken })),
        );
        for (const { Key = '', Size = 0, LastModified } of page.Contents ?? [])
          yield { key: Key.slice(prefix.length), byteCount: Size, at: LastModified?.getTime() ?? 0 };
        ContinuationToken = page.NextContinuationToken;
      } while (ContinuationToken);
    },
    async remove(keys) {
      for (let at = 0; at < keys.length; at += MOST_REMOVED) {
        const Objects = keys.slice(at, at + MOST_REMOVED).map((key) => ({ Key: named(key) }));
        await told(() => client.send(new s3.DeleteObjectsCommand({ Bucket, Delete: { Objects, Quiet: true } })));
      }
    },
    ask: () => told(() => client.send(new s3.HeadBucketCommand({ Bucket }))).then(() => {}),
    close: () => client.destroy(),
  };
}

function statusOf(error: unknown): number | undefined {
  return (error as { $metadata?: { httpStatusCode?: number } }).$metadata?.httpStatusCode;
}

/** What this machine's own disk says. */
const isSystemFault = (error: unknown): boolean =>
  error instanceof Error &&
  'syscall' in error &&
  ['open', 'write', 'read', 'rename', 'link'].includes(String(error.syscall));
