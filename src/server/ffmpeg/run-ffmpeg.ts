import { spawn, type ChildProcessWithoutNullStreams } from 'node:child_process';

const FFMPEG = () => process.env.TANAGER_FFMPEG ?? 'ffmpeg';
const FFPROBE = () => process.env.TANAGER_FFPROBE ?? 'ffprobe';

/**
 * Put before every `-i` that names a file from outside: a playlist or a script posing as a film must not make ffmpeg open other files or addresses.
 */
export const GUARDED_INPUT: readonly string[] = [
  '-protocol_whitelist',
  'file,pipe',
  '-format_whitelist',
  'mov,matroska,avi,mp3,wav,flac,ogg,aac',
];

/** The same for ffmpeg's own intermediate files, where a list of our segments is read too. */
export const OWN_INPUT: readonly string[] = ['-protocol_whitelist', 'file,pipe'];

/** ffmpeg ended with an error, or could not be started; `message` is for a person, `details` is what ffmpeg said last. */
export class FfmpegError extends Error {
  override readonly name = 'FfmpegError';
  constructor(
    message: string,
    readonly details: string,
    options?: ErrorOptions,
  ) {
    super(message, options);
  }
}

export interface RunningFfmpeg {
  readonly process: ChildProcessWithoutNullStreams;
  /** Resolves with what ffmpeg wrote to stderr; rejects with `FfmpegError` when it failed. */
  readonly finished: Promise<string>;
}

/** Starts ffmpeg. Aborting the signal ends it; the promise then rejects with the signal's reason. */
export function startFfmpeg(args: readonly string[], signal?: AbortSignal): RunningFfmpeg {
  return start(FFMPEG(), ['-hide_banner', '-nostdin', '-loglevel', 'error', ...args], signal);
}

/** Runs ffmpeg to its end. */
export async function runFfmpeg(args: readonly string[], signal?: AbortSignal): Promise<string> {
  const running = startFfmpeg(args, signal);
  running.process.stdout.resume();
  running.process.stdin.end();
  return running.finished;
}

export interface ProbedStream {
  readonly codec_type?: string;
  readonly codec_name?: string;
  readonly width?: number;
  readonly height?: number;
  readonly duration?: string;
  readonly side_data_list?: readonly { readonly rotation?: number }[];
  readonly nb_read_frames?: string;
  readonly disposition?: { readonly attached_pic?: number };
}

export interface Probe {
  readonly streams: readonly ProbedStream[];
  readonly format: {
    readonly duration?: string;
    readonly format_name?: string;
    readonly tags?: Readonly<Record<string, string>>;
  };
}

/** What a file holds, by ffprobe. @throws {FfmpegError} when it cannot be read */
export async function probe(file: string): Promise<Probe> {
  const running = start(FFPROBE(), [
    '-v',
    'error',
    ...GUARDED_INPUT,
    '-show_streams',
    '-show_format',
    '-of',
    'json',
    file,
  ]);
  let text = '';
  running.process.stdout.setEncoding('utf8').on('data', (chunk: string) => {
    text += chunk;
  });
  running.process.stdin.end();
  await running.finished;
  const parsed = JSON.parse(text) as Partial<Probe>;
  return { streams: parsed.streams ?? [], format: parsed.format ?? {} };
}

function start(command: string, args: readonly string[], signal?: AbortSignal): RunningFfmpeg {
  signal?.throwIfAborted();
  const child = spawn(command, args, { stdio: ['pipe', 'pipe', 'pipe'] });
  let said = '';
  child.stderr.setEncoding('utf8').on('data', (chunk: string) => {
    said = (said + chunk).slice(-8000);
  });
  // A pipe that breaks is reported by how ffmpeg ends, which says more.
  child.stdin.on('error', () => {});
  const stop = () => child.kill('SIGKILL');
  signal?.addEventListener('abort', stop, { once: true });
  const finished = new Promise<string>((resolve, reject) => {
    child.on('error', (cause: NodeJS.ErrnoException) => {
      const message =
        cause.code === 'ENOENT'
          ? `ffmpeg is needed for sound, clips and films, and “${command}” was not found. Install it (on Debian: apt-get install ffmpeg) or name it in TANAGER_FFMPEG.`
          : `ffmpeg could not be started: ${cause.message}`;
      reject(new FfmpegError(message, '', { cause }));
    });
    child.on('close', (code) => {
      signal?.removeEventListener('abort', stop);
      if (signal?.aborted) reject(signal.reason as Error);
      else if (code === 0) resolve(said);
      else reject(new FfmpegError('ffmpeg could not finish its work.', said.trim()));
    });
  });
  // The caller awaits `finished` when it is done with the pipes; until then a failure must not count as unhandled.
  finished.catch(() => {});
  return { process: child, finished };
}
