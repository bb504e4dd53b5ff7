import { spawn } from 'node:child_process';
import { createReadStream, createWriteStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';

/** The programs that make a disc, each with Debian's package. */
const PROGRAMS = {
  dvdauthor: { variable: 'TANAGER_DVDAUTHOR', package: 'dvdauthor', does: 'puts films and menus together for a disc' },
  spumux: { variable: 'TANAGER_SPUMUX', package: 'dvdauthor', does: 'lays what is lit into the pages of a menu' },
  genisoimage: { variable: 'TANAGER_GENISOIMAGE', package: 'genisoimage', does: 'makes the image of a disc' },
} as const;

export type DiscProgram = keyof typeof PROGRAMS;

const commandOf = (program: DiscProgram) => process.env[PROGRAMS[program].variable] ?? program;

/** A program ended with an error; `message` is for the person. */
export class DiscProgramError extends Error {
  override readonly name = 'DiscProgramError';
  constructor(
    message: string,
    readonly details: string,
    options?: ErrorOptions,
  ) {
    super(message, options);
  }
}

/** What is missing on this machine for making discs, a sentence each. */
export async function missingPrograms(): Promise<string[]> {
  const missing: string[] = [];
  for (const program of Object.keys(PROGRAMS) as DiscProgram[])
    if (!(await isThere(program))) missing.push(missingSentence(program));
  return missing;
}

function missingSentence(program: DiscProgram): string {
  const { package: of, does } = PROGRAMS[program];
  return `${program} is not installed on the server: it ${does}. On Debian: apt-get install ${of}`;
}

function isThere(program: DiscProgram): Promise<boolean> {
  return new Promise((resolve) => {
    const child = spawn(commandOf(program), ['--version'], { stdio: 'ignore' });
    child.on('error', () => resolve(false));
    child.on('exit', () => resolve(true));
  });
}

interface RunParts {
  readonly signal?: AbortSignal | undefined;
  /** What it reads, and where what it writes goes. */
  readonly input?: string;
  readonly output?: string;
  /** `PAL` or `NTSC`: what holds where a document does not say it. */
  readonly standard?: string;
  /** Every line it says. */
  readonly onSaid?: (line: string) => void;
}

const KEPT_LETTERS = 4000;

/** Runs one of them to its end. @throws {DiscProgramError} */
export async function runDiscProgram(
  program: DiscProgram,
  args: readonly string[],
  { signal, input, output, standard, onSaid }: RunParts = {},
): Promise<void> {
  signal?.throwIfAborted();
  const child = spawn(commandOf(program), args, {
    stdio: [input ? 'pipe' : 'ignore', output ? 'pipe' : 'ignore', 'pipe'],
    env: { ...process.env, LC_ALL: 'C', ...(standard && { VIDEO_FORMAT: standard }) },
    ...(signal && { signal, killSignal: 'SIGKILL' as const }),
  });
  let said = '';
  child.stderr!.setEncoding('utf8').on('data', (text: string) => {
    said = (said + text).slice(-KEPT_LETTERS);
    if (onSaid) for (const line of text.split(/[\r\n]+/)) onSaid(line);
  });
  const ended = new Promise<number | null>((resolve, reject) => {
    child.on('error', (error: NodeJS.ErrnoException) =>
      reject(error.code === 'ENOENT' ? new DiscProgramError(missingSentence(program), '', { cause: error }) : error),
    );
    child.on('close', (code) => resolve(code));
  });
  ended.catch(() => {});
  const ignoringEnd = (error: NodeJS.ErrnoException) => {
    // Its own end says more.
    if (error.code !== 'EPIPE' && error.code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
  };
  await Promise.all([
    input && pipeline(createReadStream(input), child.stdin!).catch(ignoringEnd),
    output && pipeline(child.stdout!, createWriteStream(output)).catch(ignoringEnd),
  ]);
  const code = await ended;
  signal?.throwIfAborted();
  if (code !== 0)
    throw new DiscProgramError(
      `${program} could not do its part of the disc.`,
      said
        .split('\n')
        .filter((line) => /ERR|error|fatal/i.test(line))
        .join(' ') || said.slice(-500),
    );
}
