import { spawn, spawnSync, type ChildProcessWithoutNullStreams } from 'node:child_process';
import { stat } from 'node:fs/promises';

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

/** What a run of ffmpeg may take. */
export interface FfmpegLimits {
  readonly timeMs?: number;
  /** What it writes is looked at while it does; more than this ends it. */
  readonly output?: { readonly file: string; readonly mostBytes: number; tooMuch(): Error };
}

/** Starts ffmpeg. Aborting the signal ends it; the promise then rejects with the signal's reason. */
export function startFfmpeg(args: readonly string[], signal?: AbortSignal): RunningFfmpeg {
  return start(FFMPEG(), ['-hide_banner', '-nostdin', '-loglevel', 'error', ...args], signal);
}

/** Runs ffmpeg to its end. @throws what `tooMuch` gives when it writes more than it may */
export async function runFfmpeg(
  args: readonly string[],
  {
    signal,
    limits,
    onFrame,
  }: {
    readonly signal?: AbortSignal | undefined;
    readonly limits?: FfmpegLimits;
    /** Frames it has written so far; told about twice a second. */
    readonly onFrame?: (count: number) => void;
  } = {},
): Promise<string> {
  const ended = new AbortController();
  const signals = [ended.signal, ...(signal ? [signal] : [])];
  const telling = onFrame ? ['-progress', 'pipe:1', '-nostats'] : [];
  const running = startFfmpeg([...telling, ...args], AbortSignal.any(signals));
  if (onFrame)
    running.process.stdout.setEncoding('utf8').on('data', (said: string) => {
      const counts = [...said.matchAll(/^frame=\s*(\d+)$/gm)];
      if (counts.length > 0) onFrame(Number(counts.at(-1)![1]));
    });
  else running.process.stdout.resume();
  running.process.stdin.end();
  const startedMs = performance.now();
  const watch = limits && setInterval(() => void look(), WATCH_MS);
  try {
    return await running.finished;
  } finally {
    clearInterval(watch);
  }

  async function look(): Promise<void> {
    if (limits!.timeMs !== undefined && performance.now() - startedMs > limits!.timeMs)
      ended.abort(new FfmpegError('ffmpeg took too long over a file.', 'it was ended'));
    const { output } = limits!;
    if (output && (await sizeOf(output.file)) > output.mostBytes) ended.abort(output.tooMuch());
  }
}

const WATCH_MS = 300;
const sizeOf = (file: string) =>
  stat(file).then(
    ({ size }) => size,
    () => 0,
  );

export interface ProbedStream {
  readonly codec_type?: string;
  readonly codec_name?: string;
  readonly width?: number;
  readonly height?: number;
  readonly duration?: string;
  readonly color_transfer?: string;
  /** As a fraction: “30000/1001”. */
  readonly avg_frame_rate?: string;
  /** The steady rate that all of its times fit into. */
  readonly r_frame_rate?: string;
  readonly side_data_list?: readonly { readonly rotation?: number }[];
  readonly nb_read_frames?: string;
  readonly disposition?: { readonly attached_pic?: number };
  readonly tags?: Readonly<Record<string, string>>;
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
  const parsed = (await asked('-show_streams', '-show_format', file)) as Partial<Probe>;
  return { streams: parsed.streams ?? [], format: parsed.format ?? {} };
}

/** How many pictures a clip really holds, counted through without decoding. @throws {FfmpegError} */
export async function countPackets(file: string): Promise<number> {
  const parsed = await asked(
    '-count_packets',
    '-select_streams',
    'v:0',
    '-show_entries',
    'stream=nb_read_packets',
    file,
  );
  return Number((parsed as { streams?: { nb_read_packets?: string }[] }).streams?.[0]?.nb_read_packets ?? 0);
}

/** Which ffmpeg there is. @throws {FfmpegError} when there is none */
export async function ffmpegVersion(): Promise<string> {
  const running = start(FFMPEG(), ['-version']);
  let text = '';
  running.process.stdout.setEncoding('utf8').on('data', (chunk: string) => {
    text += chunk;
  });
  running.process.stdin.end();
  await running.finished;
  return text.split('\n')[0]!.replace(/ Copyright.*/, '');
}

/** A header is read in moments; what takes longer is no header. */
const PROBE_MS = 30_000;
const LONGEST_PROBE = 16 * 1024 * 1024;

async function asked(...args: string[]): Promise<unknown> {
  const ended = new AbortController();
  const running = start(FFPROBE(), ['-v', 'error', ...GUARDED_INPUT, '-of', 'json', ...args], ended.signal);
  const timer = setTimeout(
    () => ended.abort(new FfmpegError('ffprobe took too long over a file.', 'it was ended')),
    PROBE_MS,
  );
  let text = '';
  running.process.stdout.setEncoding('utf8').on('data', (chunk: string) => {
    text += chunk;
    if (text.length > LONGEST_PROBE) ended.abort(new FfmpegError('ffprobe found too much in a file.', 'it was ended'));
  });
  running.process.stdin.end();
  try {
    await running.finished;
  } finally {
    clearTimeout(timer);
  }
  return JSON.parse(text);
}

/** What `setpriv` ends with when there is no such program. */
const NOT_FOUND = 127;

let canFollow: boolean | null = null;

/** A program that ends with whoever started it, where the system can see to that (`setpriv` of util-linux): `kill -9` leaves nothing running. */
function withParent(command: readonly string[]): readonly string[] {
  canFollow ??= spawnSync('setpriv', ['--pdeathsig', 'KILL', 'true']).status === 0;
  return canFollow ? ['setpriv', '--pdeathsig', 'KILL', ...command] : command;
}

function start(command: string, args: readonly string[], signal?: AbortSignal): RunningFfmpeg {
  signal?.throwIfAborted();
  const [program, ...all] = withParent([command, ...args]);
  const child = spawn(program!, all, { stdio: ['pipe', 'pipe', 'pipe'] });
  let said = '';
  child.stderr.setEncoding('utf8').on('data', (chunk: string) => {
    said = (said + chunk).slice(-8000);
  });
  // A pipe that breaks is reported by how ffmpeg ends, which says more.
  child.stdin.on('error', () => {});
  const stop = () => child.kill('SIGKILL');
  signal?.addEventListener('abort', stop, { once: true });
  const finished = new Promise<string>((resolve, reject) => {
    const missing = `ffmpeg is needed for sound, clips and films, and “${command}” was not found. Install it (on Debian: apt-get install ffmpeg) or name it in TANAGER_FFMPEG.`;
    child.on('error', (cause: NodeJS.ErrnoException) => {
      const message = cause.code === 'ENOENT' ? missing : `ffmpeg could not be started: ${cause.message}`;
      reject(new FfmpegError(message, '', { cause }));
    });
    child.on('close', (code) => {
      signal?.removeEventListener('abort', stop);
      if (signal?.aborted) reject(signal.reason as Error);
      else if (code === 0) resolve(said);
      else if (code === NOT_FOUND && said.includes('failed to execute')) reject(new FfmpegError(missing, ''));
      else reject(new FfmpegError('ffmpeg could not finish its work.', said.trim()));
    });
  });
  // The caller awaits `finished` when it is done with the pipes; until then a failure must not count as unhandled.
  finished.catch(() => {});
  return { process: child, finished };
}
