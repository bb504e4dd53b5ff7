import type { ChildProcess } from 'node:child_process';
import { getPriority, setPriority } from 'node:os';
import { logger } from './logger';

/**
 * How far work gives way to what answers people: to the server itself, and to the browser where both are on one machine. On an idle machine it is as quick as
 * ever. `reading`: somebody may wait for it; `making`: nobody does with a hand at the mouse. A server that gives way
 * itself takes its work along, and no further.
 */
const BY = { reading: 5, making: 10 } as const;

/** To be called right after the process began, so that all its threads and children go along. */
export function giveWay({ pid }: ChildProcess, work: keyof typeof BY): void {
  if (pid === undefined) return;
  try {
    setPriority(pid, Math.max(getPriority(), BY[work]));
  } catch (error) {
    // It is gone already, or the system does not let it: it works all the same.
    logger().debug({ err: error, pid }, 'a process keeps its priority');
  }
}
