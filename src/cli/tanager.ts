import path from 'node:path';
import { backupCommand } from './backup-command';
import { completionCommand, manCommand } from './completion-command';
import { bundleCommand } from './bundle-command';
import { checkCommand } from './check-command';
import { discCommand } from './disc-command';
import { peopleCommand } from './people-command';
import { mountsCommand } from './mounts-command';
import { captionsCommand } from './captions-command';
import { exportCommand } from './export-command';
import { makeCommand } from './make-command';
import { findCommand } from './find-command';
import { frameCommand } from './frame-command';
import { listenCommand } from './listen-command';
import { seriesCommand } from './series-command';
import { timelineCommand } from './timeline-command';
import { REMOTE, remoteCommand, type RemoteCommand } from './remote-command';
import { isServed, servedCommand } from './served-command';
import { bandCommand } from './band-command';
import { tailorCommand } from './tailor-command';
import { voiceCommand } from './voice-command';
import { USAGE, WATCHED } from './usage';
import { UsageError } from './usage-error';
import { againWhenChanged, watchIn } from './watch';

export interface Surroundings {
  /** Paths are relative to this folder. */
  readonly folder: string;
  out(text: string): void;
  /** For progress and problems. */
  tell(text: string): void;
}

/** @returns the exit code: 0 done, 2 wrong use, 3 from `check` when something grave was found, from `import` when files were not as they were and from `series` when rows became no film, 1 anything else */
export async function main(args: readonly string[], folder: string): Promise<number> {
  const surroundings: Surroundings = {
    folder,
    out: (text) => void process.stdout.write(text),
    tell: (text) => void process.stderr.write(text),
  };
  const [command, ...typed] = args;
  try {
    const { folder: watched, rest } = watchIn(typed);
    if (watched !== null) {
      if (!WATCHED.includes(command ?? '')) throw new UsageError(`--watch goes with ${WATCHED.join(', ')}.`);
      const ending = new AbortController();
      process.once('SIGINT', () => ending.abort());
      const at = rest.indexOf('--out');
      const watching = {
        folder: path.resolve(folder, watched),
        out: at < 0 ? null : path.resolve(folder, rest[at + 1] ?? ''),
        ...{ tell: surroundings.tell, signal: ending.signal },
      };
      return await againWhenChanged(watching, () => main([command!, ...rest], folder));
    }
    if (isServed(command, rest)) return await servedCommand(command, rest, surroundings);
    if (command === 'completion') return completionCommand(rest, surroundings);
    if (command === 'man') return manCommand(rest, surroundings);
    if (command === 'make') return await makeCommand(rest, surroundings);
    if (command === 'export') return await exportCommand(rest, surroundings);
    if (command === 'backup' || command === 'bring-back') return await backupCommand(command, rest, surroundings);
    if (command === 'bundle' || command === 'import') return await bundleCommand(command, rest, surroundings);
    if (command === 'enter' || command === 'studio') return await peopleCommand(command, rest, surroundings);
    if (command === 'mounts') return await mountsCommand(rest, surroundings);
    if ((REMOTE as readonly (string | undefined)[]).includes(command))
      return await remoteCommand(command as RemoteCommand, rest, surroundings);
    if (command === 'disc') return await discCommand(rest, surroundings);
    if (command === 'find') return await findCommand(rest, surroundings);
    if (command === 'timeline') return await timelineCommand(rest, surroundings);
    if (command === 'series') return await seriesCommand(rest, surroundings);
    if (command === 'tailor') return await tailorCommand(rest, surroundings);
    if (command === 'band') return await bandCommand(rest, surroundings);
    if (command === 'voice') return await voiceCommand(rest, surroundings);
    if (command === 'captions') return await captionsCommand(rest, surroundings);
    if (command === 'listen') return await listenCommand(rest, surroundings);
    if (command === 'check') return await checkCommand(rest, surroundings);
    if (command === 'frame') return await frameCommand(rest, surroundings);
    if (command === '--help' || command === 'help') {
      surroundings.out(USAGE);
      return 0;
    }
    throw new UsageError(command === undefined ? 'What shall it do?' : `There is no command “${command}”.`);
  } catch (error) {
    if (error instanceof UsageError) {
      surroundings.tell(`${error.message}\n\n${USAGE}`);
      return 2;
    }
    surroundings.tell(`${error instanceof Error ? error.message : String(error)}\n`);
    const details = (error as { details?: unknown }).details;
    if (typeof details === 'string' && details !== '') surroundings.tell(`${details}\n`);
    return 1;
  }
}
