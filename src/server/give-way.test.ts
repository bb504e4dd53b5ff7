import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { readdirSync, readFileSync } from 'node:fs';
import { getPriority } from 'node:os';
import { describe, expect, it } from '@jest/globals';
import { giveWay } from './give-way';

/** How nice each thread of a process is, as the system says (proc(5), field 19 of stat). */
const threadsOf = ({ pid }: ChildProcess): number[] =>
  readdirSync(`/proc/${pid}/task`).map((thread) =>
    Number(readFileSync(`/proc/${pid}/task/${thread}/stat`, 'utf8').split(') ')[1]!.split(' ')[16]),
  );

describe('work that gives way', () => {
  const own = getPriority();
  it.each([
    ['reading', 5],
    ['making', 10],
  ] as const)('%s does so with all its threads', async (work, by) => {
    const child = spawn(process.execPath, ['-e', 'setInterval(() => {}, 1e6); console.log(1)']);
    giveWay(child, work);
    await once(child.stdout, 'data');
    const threads = threadsOf(child);
    child.kill('SIGKILL');
    expect(threads.length).toBeGreaterThan(2);
    expect(threads).toEqual(threads.map(() => Math.max(own, by)));
  });
  it('is let be when it is over already, or never began', async () => {
    const child = spawn('true');
    await once(child, 'exit');
    expect(() => giveWay(child, 'making')).not.toThrow();
    expect(() => giveWay({ pid: undefined } as ChildProcess, 'making')).not.toThrow();
  });
});
