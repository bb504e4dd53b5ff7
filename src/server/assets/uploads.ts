import { rm } from 'node:fs/promises';
import path from 'node:path';
import { FileStore } from '@tus/file-store';
import { Server } from '@tus/server';
import { showId } from '../../core/show/ids';
import { assertOwnPage, Refusal } from '../answer';
import { runningServer } from '../running-server';

/** 20 GB: a long clip at full quality; the disk is the real limit. */
const LARGEST_UPLOAD_BYTES = 20 * 1024 ** 3;

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
  return new Server({
    path: '/api/uploads',
    datastore: new FileStore({ directory: uploadFolder }),
    relativeLocation: true,
    maxSize: LARGEST_UPLOAD_BYTES,
    async onUploadCreate(_request, upload) {
      if (!upload.metadata?.filename) throw { status_code: 422, body: 'The upload does not say the file’s name.' };
      const id = upload.metadata.show ?? '';
      if (!await shows.load(showId(id))) throw { status_code: 404, body: 'There is no such show.' };
      return {};
    },
    async onUploadFinish(_request, upload) {
      // The store's own ids are random names of its own making; the person's file name is only ever shown.
      const file = path.join(uploadFolder, path.basename(upload.id));
      const outcome = await sheet.takeIn(showId(upload.metadata!.show!), file, upload.metadata!.filename!, 'move');
      await rm(`${file}.json`, { force: true });
      return { headers: { 'X-Outcome': outcome } };
    },
  });
}
