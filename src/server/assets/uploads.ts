import { readdir, rm, stat, statfs } from 'node:fs/promises';
import path from 'node:path';
import { Server } from '@tus/server';
import { showId } from '../../core/show/ids';
import { answerTo } from '../http/answer';
import { isStoreUnreachable } from '../blobs/object-store';
import { isDiskFull, isRefusal } from '../http/refusal';
import { allowed } from '../http/route';
import { ROUTES } from '../http/routes';
import { logger } from '../logger';
import { runningServer } from '../running-server';
import { actorOf } from '../studio/actor';
import { mayDo } from '../studio/may-do';
import { keptPath } from '../series/series-files';
import { HashingStore, NO_ROOM } from './hashing-store';

/** 20 GB: a long clip at full quality; the disk is the real limit. */
const LARGEST_UPLOAD_BYTES = 20 * 1024 ** 3;

/** Uploads leave this much of the disk to what is made of them and to edits. */
const KEPT_FREE_BYTES = 32 * 1024 * 1024;

/** What came in part and was not gone on with is kept for so long. */
const KEPT_MS = 7 * 24 * 3600 * 1000;

/** Of whole shows: whose they become. Written by this server alone. */
const BUNDLE_OF = 'bundle-of';
/** Of files of a series: the studio whose it is. */
const SERIES_OF = 'series-of';
const OWNED = [BUNDLE_OF, SERIES_OF] as const;
const NO_UPLOAD = { status_code: 404, body: 'There is no such upload.' };

/** What the store keeps of an upload lies beside it under this ending. */
const NOTES = '.json';

const held = globalThis as typeof globalThis & { tanagerUploads?: Promise<Server> };

/** Resumable uploads by the tus protocol. Metadata: `filename`, and `show`, `bundle` for a whole show, or `series` and `path` for a file of one. What has arrived stays when the page is closed. */
export async function handleUpload(request: Request): Promise<Response> {
  try {
    await allowed(ROUTES['POST /api/v1/uploads'], request, {});
    held.tanagerUploads ??= openUploads();
    const answered = await (await held.tanagerUploads).handleWeb(request);
    // The protocol’s library answers every site; this server answers its own pages.
    for (const name of [...answered.headers.keys()])
      if (name.startsWith('access-control-')) answered.headers.delete(name);
    return answered;
  } catch (error) {
    if (isRefusal(error)) return new Response(error.message, { status: error.status });
    return answerTo(error, 'uploads');
  }
}

async function openUploads(): Promise<Server> {
  const { uploadFolder, db, sheet, sessions, tokens, bundles, series, seriesFiles } = await runningServer();
  const asking = (request: Request) =>
    actorOf({ sessions, tokens }, { method: request.method, header: (name) => request.headers.get(name) });
  const datastore = new HashingStore(uploadFolder);
  // A leftover that cannot be cleared away is no reason to take nothing more in.
  await clearLeftOver(uploadFolder).catch((error: unknown) =>
    logger().warn({ err: error }, 'what was left of uploads could not be cleared away'),
  );
  return new Server({
    path: '/api/v1/uploads',
    datastore,
    relativeLocation: true,
    maxSize: LARGEST_UPLOAD_BYTES,
    async onResponseError(_request, error) {
      if (isStoreUnreachable(error)) return { status_code: 503, body: error.message };
      return isDiskFull(error) || datastore.wasFull() ? NO_ROOM : undefined;
    },
    /** What is sent to an upload that has begun comes from somebody who might have begun it. */
    async onIncomingRequest(request, uploadId) {
      if (request.method === 'POST') return;
      const { metadata } = await datastore.getUpload(uploadId);
      const owner = OWNED.map((name) => metadata?.[name]).find(Boolean);
      if (owner) {
        const actor = await asking(request);
        if (actor.kind !== 'person' || actor.studioId !== owner) throw NO_UPLOAD;
        return;
      }
      if (!(await mayDo(db, await asking(request), 'change-show', { show: showId(metadata?.show ?? '') })))
        throw NO_UPLOAD;
    },
    async onUploadCreate(request, upload) {
      if (!upload.metadata?.filename) throw { status_code: 422, body: 'The upload does not say the file’s name.' };
      const id = upload.metadata.show ?? '';
      const { [BUNDLE_OF]: _said, [SERIES_OF]: _told, ...metadata } = upload.metadata;
      const actor = await asking(request);
      const isBundle = upload.metadata.bundle !== undefined;
      const ofSeries = upload.metadata.series;
      if ((isBundle || ofSeries !== undefined) && !(await mayDo(db, actor, 'make-show', {})))
        throw { status_code: 404, body: 'There is nothing here.' };
      if (ofSeries !== undefined) {
        if (actor.kind !== 'person' || !(await series.takes(actor.studioId, ofSeries ?? '')))
          throw { status_code: 404, body: 'There is no such series.' };
        if (keptPath(upload.metadata.path ?? '') === null)
          throw { status_code: 422, body: 'Its name or that of a folder it is in cannot be kept.' };
      } else if (!isBundle && !(await mayDo(db, actor, 'change-show', { show: showId(id) })))
        throw { status_code: 404, body: 'There is no such show.' };
      if ((upload.size ?? 0) > (await freeBytes(uploadFolder)) - KEPT_FREE_BYTES) throw NO_ROOM;
      // Whose it is is said by who they are, whatever the metadata say.
      if (actor.kind === 'person' && (isBundle || ofSeries !== undefined))
        return { metadata: { ...metadata, [isBundle ? BUNDLE_OF : SERIES_OF]: actor.studioId } };
      return { metadata };
    },
    async onUploadFinish(_request, upload) {
      // The store's own ids are random names of its own making; the person's file name is only ever shown.
      const file = path.join(uploadFolder, path.basename(upload.id));
      const studioId = upload.metadata![BUNDLE_OF];
      if (studioId) {
        await bundles.order(studioId, file, upload.metadata!.filename!);
        await rm(file + NOTES, { force: true });
        return {};
      }
      if (upload.metadata![SERIES_OF]) {
        await seriesFiles.take(upload.metadata!.series!, file, keptPath(upload.metadata!.path!)!);
        await rm(file + NOTES, { force: true });
        return {};
      }
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

async function freeBytes(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize;
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
