import { fork, type ChildProcess } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import PQueue from 'p-queue';
import { UnusableFileError } from '../assets/unusable-file-error';
import { giveWay } from '../give-way';
import { logger } from '../logger';
import { decoderFile } from '../paths';
import type { DecoderAnswers, DecoderLimits, DecoderOrder, DecoderReport, DecoderTask } from './decoder-task';

/** Processes that read strangers' files, so that no file can hold the server or take it along. */
export interface Decoders {
  /**
   * Does one task in a process of its own.
   *
   * @param urgent somebody waits for it: it goes before what waits in line
   * @throws {UnusableFileError} when the file cannot be used, takes too long or too much
   * @throws the signal’s reason once it is told to stop
   */
  run<Task extends DecoderTask>(
    task: Task,
    limits: DecoderLimits,
    urgent?: boolean,
  ): Promise<DecoderAnswers[Task['kind']]>;
  close(): void;
}

/** On two cores: while one decodes, the others' reading and writing goes on. */
export const DECODERS = 3;
/** A process that had nothing to do for so long is ended. */
const IDLE_MS = 60_000;
const WATCH_MS = 250;

export class DecoderError extends Error {
  override readonly name = 'DecoderError';
}

interface Decoder {
  readonly process: ChildProcess;
  idle: ReturnType<typeof setTimeout> | null;
}

export function createDecoders(size = DECODERS): Decoders {
  const queue = new PQueue({ concurrency: size });
  const free: Decoder[] = [];
  const all = new Set<Decoder>();
  let counted = 0;
  let closed = false;

  return {
    run: (task, limits, urgent = false) =>
      queue.add(() => perform(task, limits), { priority: urgent ? 1 : 0 }) as Promise<never>,
    close() {
      closed = true;
      queue.clear();
      for (const decoder of all) end(decoder);
    },
  };

  function end(decoder: Decoder): void {
    if (decoder.idle) clearTimeout(decoder.idle);
    all.delete(decoder);
    const at = free.indexOf(decoder);
    if (at >= 0) free.splice(at, 1);
    decoder.process.kill('SIGKILL');
  }

  function begin(): Decoder {
    // Its own stdout would mix with what the server says.
    const child = fork(decoderFile(), {
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      serialization: 'advanced',
      execArgv: [],
    });
    giveWay(child, 'reading');
    const decoder: Decoder = { process: child, idle: null };
    all.add(decoder);
    return decoder;
  }

  async function perform(task: DecoderTask, limits: DecoderLimits): Promise<unknown> {
    if (closed) throw new DecoderError('the server is ending');
    limits.signal?.throwIfAborted();
    const decoder = free.pop() ?? begin();
    if (decoder.idle) clearTimeout(decoder.idle);
    decoder.idle = null;
    try {
      const value = await asked(decoder, { id: (counted += 1), task }, limits);
      rest(decoder);
      return value;
    } catch (error) {
      // A process that said itself what is wrong is whole; any other is not asked again.
      if (error instanceof UnusableFileError && !(error instanceof TookTooMuchError)) rest(decoder);
      else end(decoder);
      throw error;
    }
  }

  function rest(decoder: Decoder): void {
    if (closed) return end(decoder);
    decoder.idle = setTimeout(() => end(decoder), IDLE_MS);
    decoder.idle.unref();
    free.push(decoder);
  }
}

/** The process was ended because of the file. */
class TookTooMuchError extends UnusableFileError {}

function asked(decoder: Decoder, order: DecoderOrder, limits: DecoderLimits): Promise<unknown> {
  const { process: child } = decoder;
  return new Promise((resolve, reject) => {
    let deadline = performance.now() + limits.timeMs;
    const watch = setInterval(() => {
      if (performance.now() > deadline)
        settle(() =>
          reject(
            new TookTooMuchError(
              'Reading this file takes too long, so it was set aside. Save it anew, in a plainer form, and bring that.',
            ),
          ),
        );
      else
        void memoryOf(child.pid).then((bytes) => {
          if (bytes > limits.memoryBytes)
            settle(() =>
              reject(
                new TookTooMuchError(
                  'Reading this file takes too much memory, so it was set aside. Save a smaller or plainer copy and bring that.',
                ),
              ),
            );
        });
    }, WATCH_MS);
    const hear = (report: DecoderReport) => {
      if (report.id !== order.id) return;
      if (report.kind === 'takes') deadline = performance.now() + report.timeMs;
      else if (report.kind === 'done') settle(() => resolve(report.value));
      else if (report.kind === 'unusable') settle(() => reject(new UnusableFileError(report.sentence)));
      else settle(() => reject(Object.assign(new DecoderError(report.message), report.diskFull && { code: 'ENOSPC' })));
    };
    const ended = (code: number | null, signal: string | null) => {
      logger().warn({ file: order.task.file, code, signal }, 'a decoder ended over a file');
      settle(() =>
        reject(
          new TookTooMuchError('This file ends the program that reads it; it is damaged. Save it anew and bring that.'),
        ),
      );
    };
    const failed = (error: Error) =>
      settle(() => reject(new DecoderError(`A decoder could not be started: ${error.message}`)));
    const stop = () => settle(() => reject(limits.signal!.reason as Error));
    const settle = (how: () => void) => {
      clearInterval(watch);
      limits.signal?.removeEventListener('abort', stop);
      child.off('message', hear);
      child.off('exit', ended);
      child.off('error', failed);
      how();
    };
    child.on('message', hear);
    child.on('exit', ended);
    child.on('error', failed);
    limits.signal?.addEventListener('abort', stop);
    child.send(order);
  });
}

/** What a process takes of the machine's memory; 0 where that cannot be told. */
async function memoryOf(pid: number | undefined): Promise<number> {
  const pages = await readFile(`/proc/${pid}/statm`, 'utf8').then(
    (text) => Number(text.split(' ')[1]),
    () => 0,
  );
  return pages * 4096;
}
