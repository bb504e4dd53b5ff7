import * as tus from 'tus-js-client';

export interface UploadProgress {
  readonly fileCount: number;
  readonly filesDone: number;
  /** Null until there is enough to go by. */
  readonly leftMs: number | null;
  readonly bytes: number;
  readonly bytesDone: number;
  /** Files that were on the sheet before. */
  readonly already: number;
  readonly failed: readonly { readonly fileName: string; readonly problem: string }[];
}

/** Resumable uploads to a show's contact sheet, a few at a time. A large upload that was cut off goes on where it stopped when the same file is given again. */
export interface UploadQueue {
  add(files: readonly File[]): void;
  /** Stops; what has arrived of a file stays on the server, so that it can go on later. */
  stop(): void;
  /** Puts away the tally of what is finished. */
  dismiss(): void;
}

const AT_ONCE = 3;
const RETRY_AFTER_MS = [0, 1000, 3000, 5000, 10_000];
const TELL_EVERY_MS = 250;
const CHUNK_BYTES = 32 * 1024 * 1024;
/** Up to this size a file goes in one request, which costs less; cut off, it begins anew. A larger one has its place told first, so that it can go on there. */
const ONE_REQUEST_BYTES = 16 * 1024 * 1024;
const UNREACHABLE =
  'It could not be sent; the server cannot be reached. Give it again; a large file goes on where it stopped.';

/** Where files go: onto a show’s sheet, to a series with the folders they are in, or, whole shows, onto the shelf. */
export type UploadedTo = { readonly show: string } | { readonly series: string } | { readonly bundle: '1' };

/** @param report told whenever something changed; null when nothing is coming in */
export function createUploadQueue(to: UploadedTo, report: (progress: UploadProgress | null) => void): UploadQueue {
  let batch: Batch | null = null;
  return {
    add(files) {
      if (files.length === 0) return;
      if (!batch || batch.filesDone === batch.fileCount) batch = emptyBatch();
      batch.waiting.push(...files);
      batch.fileCount += files.length;
      batch.bytes += files.reduce((sum, file) => sum + file.size, 0);
      tell(batch);
      startMore(batch);
    },
    stop() {
      for (const upload of batch?.running ?? []) void upload.abort();
      batch = null;
      report(null);
    },
    dismiss() {
      batch = null;
      report(null);
    },
  };

  /** Now and then at most, but at once when all is done: what is shown of it is drawn each time. */
  function tell(mine: Batch): void {
    if (batch !== mine) return;
    const waitMs = mine.filesDone === mine.fileCount ? 0 : mine.toldMs + TELL_EVERY_MS - performance.now();
    if (waitMs <= 0) tellNow(mine);
    else mine.tellsIn ??= setTimeout(tellNow, waitMs, mine);
  }

  function tellNow(mine: Batch): void {
    if (mine.tellsIn) clearTimeout(mine.tellsIn);
    mine.tellsIn = null;
    if (batch !== mine) return;
    mine.toldMs = performance.now();
    const bytesDone = mine.bytesDone + [...mine.sent.values()].reduce((sum, bytes) => sum + bytes, 0);
    const elapsedMs = performance.now() - mine.startedMs;
    const { fileCount, filesDone, bytes, already, failed } = mine;
    report({
      fileCount,
      filesDone,
      bytes,
      bytesDone,
      already,
      failed,
      leftMs: elapsedMs > 800 && bytesDone > 0 ? (elapsedMs / bytesDone) * (bytes - bytesDone) : null,
    });
  }

  function startMore(mine: Batch): void {
    while (batch === mine && mine.running.size < AT_ONCE && mine.waiting.length > 0) start(mine, mine.waiting.shift()!);
  }

  function start(mine: Batch, file: File): void {
    const finish = (problem: string | null) => {
      mine.running.delete(upload);
      mine.sent.delete(file);
      mine.bytesDone += file.size;
      mine.filesDone += 1;
      if (problem) mine.failed = [...mine.failed, { fileName: file.name, problem }];
      tell(mine);
      startMore(mine);
    };
    const upload = new tus.Upload(file, {
      endpoint: '/api/v1/uploads',
      retryDelays: RETRY_AFTER_MS,
      chunkSize: CHUNK_BYTES,
      uploadDataDuringCreation: file.size <= ONE_REQUEST_BYTES,
      removeFingerprintOnSuccess: true,
      metadata: { filename: file.name, ...to, ...('series' in to && { path: pathOf(file) }) },
      // What was begun for one show is not gone on with for another.
      fingerprint: async ({ name, size, lastModified }) =>
        ['tanager', JSON.stringify(to), 'series' in to ? pathOf(file) : name, size, lastModified].join('-'),
      onProgress: (sent) => {
        mine.sent.set(file, sent);
        tell(mine);
      },
      onSuccess: ({ lastResponse }) => {
        if (lastResponse.getHeader('X-Outcome') === 'already-there') mine.already += 1;
        finish(null);
      },
      onError: (error) =>
        finish((error instanceof tus.DetailedError && error.originalResponse?.getBody()) || UNREACHABLE),
    });
    mine.running.add(upload);
    // A browser that keeps nothing begins anew.
    const before = upload.findPreviousUploads().catch(() => []);
    void before.then(([previous]) => {
      if (previous) upload.resumeFromPreviousUpload(previous);
      if (batch === mine) upload.start();
    });
  }
}

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
  toldMs: number;
  tellsIn: ReturnType<typeof setTimeout> | null;
}

function emptyBatch(): Batch {
  return {
    waiting: [],
    running: new Set(),
    sent: new Map(),
    fileCount: 0,
    filesDone: 0,
    bytes: 0,
    bytesDone: 0,
    already: 0,
    failed: [],
    startedMs: performance.now(),
    toldMs: -Infinity,
    tellsIn: null,
  };
}

const paths = new WeakMap<File, string>();

/** Notes where below the folder that was given a file is. */
export function withPath(file: File, path: string): File {
  paths.set(file, path);
  return file;
}

/** Where a file is below the folder that was chosen, without that folder’s own name. */
function pathOf(file: File): string {
  return paths.get(file) ?? (file.webkitRelativePath.split('/').slice(1).join('/') || file.name);
}
