import { readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { Server } from '@tus/server';
import { showId } from '../../core/show/ids';
import { assertOwnPage, Refusal } from '../answer';
import { runningServer } from '../running-server';
import { HashingStore } from './hashing-store';

/** 20 GB: a long clip at full quality; the disk is the real limit. */
const LARGEST_UPLOAD_BYTES = 20 * 1024 ** 3;

/** What came in part and was not gone on with is kept for so long. */
const KEPT_MS = 7 * 24 * 3600 * 1000;

/** What the store keeps of an upload lies beside it under this ending. */
const NOTES = '.json';

const held = globalThis as typeof globalThis & { tanagerUploads?: Promise<Server> };

/** Resumable uploads by the tus protocol. Metadata: `filename`, `show`. What has arrived stays when the page is closed. */
export async function handleUpload(request: Request): Promise<Response> {
  try {
    assertOwnPage(request);
  } catch (error) {
    if (error instanceof Refusal) return new Response(error.message, { status: error.status });
    throw error;
  }
  held.tanagerUploads ??= openUploads();
  return (await held.tanagerUploads).handleWeb(request);
}

async function openUploads(): Promise<Server> {
  const { uploadFolder, shows, sheet } = await runningServer();
  const datastore = new HashingStore(uploadFolder);
  // A leftover that cannot be cleared away is no reason to take nothing more in.
  await clearLeftOver(uploadFolder).catch(console.error);
  return new Server({
    path: '/api/uploads',
    datastore,
    relativeLocation: true,
    maxSize: LARGEST_UPLOAD_BYTES,
    async onUploadCreate(_request, upload) {
      if (!upload.metadata?.filename) throw { status_code: 422, body: 'The upload does not say the file’s name.' };
      const id = upload.metadata.show ?? '';
      if (!(await shows.load(showId(id)))) throw { status_code: 404, body: 'There is no such show.' };
      return {};
    },
    async onUploadFinish(_request, upload) {
      // The store's own ids are random names of its own making; the person's file name is only ever shown.
      const file = path.join(uploadFolder, path.basename(upload.id));
      const outcome = await sheet.takeIn(
        showId(upload.metadata!.show!),
        file,
        upload.metadata!.filename!,
        'move',
        datastore.hashOf(upload.id),
      );
      await rm(file + NOTES, { force: true });
      return { headers: { 'X-Outcome': outcome } };
    },
  });
}

/** Removes uploads that came in part and were not gone on with for a week, with the notes the store keeps beside them. Given again, such a file begins anew. */
export async function clearLeftOver(folder: string, now = Date.now()): Promise<void> {
  for (const name of await readdir(folder)) {
    if (name.endsWith(NOTES)) continue;
    const file = path.join(folder, name);
    const { mtimeMs } = await stat(file);
    if (now - mtimeMs <= KEPT_MS) continue;
    await rm(file, { force: true });
    await rm(file + NOTES, { force: true });
  }
}
