import { gunzipSync, gzipSync } from 'node:zlib';
import { customType } from 'drizzle-orm/sqlite-core';

/** JSON as gzip, for what is large and written often: a show shrinks to a twentieth. Text that was written before there was this is read as well. */
export const zippedJson = customType<{ data: unknown; driverData: ArrayBuffer | Uint8Array | string }>({
  dataType: () => 'blob',
  toDriver: (value) => gzipSync(JSON.stringify(value), { level: 1 }),
  fromDriver: (stored) =>
    JSON.parse(typeof stored === 'string' ? stored : gunzipSync(stored).toString('utf8')) as unknown,
});
