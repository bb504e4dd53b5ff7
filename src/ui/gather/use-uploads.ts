'use client';

import { useCallback, useRef, useState } from 'react';
import * as tus from 'tus-js-client';

export interface UploadProgress {
  readonly fileCount: number;
  readonly filesDone: number;
  /** Null until there is enough to go by. */
  readonly leftMs: number | null;
  readonly bytes: number;
  readonly bytesDone: number;
  readonly already: number;
  readonly failed: readonly { readonly fileName: string; readonly problem: string }[];
}

export interface Uploads {
  /** Null when nothing is coming in. */
  readonly progress: UploadProgress | null;
  add(files: readonly File[]): void;
  stop(): void;
  /** Puts away the finished tally. */
  dismiss(): void;
}

const AT_ONCE = 3;
const RETRY_AFTER_MS = [0, 1000, 3000, 5000, 10_000];
const CHUNK_BYTES = 32 * 1024 * 1024;

interface Batch {
  waiting: File[];
  running: Set<tus.Upload>;
  sent: Map<File, number>;
  fileCount: number;
  filesDone: number;
  bytes: number;
  bytesDone: number;
  already: number;
  failed: { fileName: string; problem: string }[];
  startedMs: number;
}

/** Resumable uploads to a show's contact sheet, a few at a time. An upload that was cut off goes on where it stopped when the same file is given again. */
export function useUploads(showId: string): Uploads {
  const batch = useRef<Batch | null>(null);
  const [progress, setProgress] = useState<UploadProgress | null>(null);

  const report = useCallback(() => {
    const current = batch.current;
    if (!current) return setProgress(null);
    const underWay = [...current.sent.values()].reduce((sum, bytes) => sum + bytes, 0);
    const done = current.bytesDone + underWay;
    const elapsedMs = performance.now() - current.startedMs;
    setProgress({
      fileCount: current.fileCount, filesDone: current.filesDone, bytes: current.bytes, bytesDone: done, already: current.already, failed: current.failed,
      leftMs: elapsedMs > 800 && done > 0 ? (elapsedMs / done) * (current.bytes - done) : null,
    });
  }, []);

  const next = useCallback(() => {
    const current = batch.current;
    while (current && current.running.size < AT_ONCE && current.waiting.length > 0) start(current.waiting.shift()!, current);

    function start(file: File, mine: Batch): void {
      const finish = (problem: string | null) => {
        mine.running.delete(upload);
        mine.sent.delete(file);
        mine.bytesDone += file.size;
        mine.filesDone += 1;
        if (problem) mine.failed = [...mine.failed, { fileName: file.name, problem }];
        report();
        next();
      };
      const upload = new tus.Upload(file, {
        endpoint: '/api/uploads',
        retryDelays: RETRY_AFTER_MS,
        chunkSize: CHUNK_BYTES,
        removeFingerprintOnSuccess: true,
        metadata: { filename: file.name, show: showId },
        onProgress: (sent) => {
          mine.sent.set(file, sent);
          report();
        },
        onSuccess: ({ lastResponse }) => {
          if (lastResponse.getHeader('X-Outcome') === 'already-there') mine.already += 1;
          finish(null);
        },
        onError: (error) => {
          const body = error instanceof tus.DetailedError ? error.originalResponse?.getBody() : undefined;
          finish(body || 'It could not be sent; the server cannot be reached. Give it again and it goes on where it stopped.');
        },
      });
      mine.running.add(upload);
      void upload.findPreviousUploads().then((previous) => {
        if (previous[0]) upload.resumeFromPreviousUpload(previous[0]);
        if (batch.current === mine) upload.start();
      });
    }
  }, [report, showId]);

  const add = useCallback((files: readonly File[]) => {
    if (files.length === 0) return;
    const finished = batch.current && batch.current.filesDone === batch.current.fileCount;
    if (!batch.current || finished) {
      batch.current = { waiting: [], running: new Set(), sent: new Map(), fileCount: 0, filesDone: 0, bytes: 0, bytesDone: 0, already: 0, failed: [], startedMs: performance.now() };
    }
    const current = batch.current;
    current.waiting.push(...files);
    current.fileCount += files.length;
    current.bytes += files.reduce((sum, file) => sum + file.size, 0);
    report();
    next();
  }, [next, report]);

  const stop = useCallback(() => {
    const current = batch.current;
    if (!current) return;
    batch.current = null;
    // What has arrived of a file stays on the server, so that it can go on later.
    for (const upload of current.running) void upload.abort();
    report();
  }, [report]);

  const dismiss = useCallback(() => {
    batch.current = null;
    report();
  }, [report]);

  return { progress, add, stop, dismiss };
}
