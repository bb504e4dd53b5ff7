import { headers } from 'next/headers';
import { runningServer, type RunningServer } from '../running-server';
import { actorOf } from '../studio/actor';
import { mayDo, type Subject } from '../studio/may-do';
import { subjectOf, type PathParts } from './route';
import { PAGES, type PageName } from './routes';

/** What a page needs to be made; null when it is not there or not for who asks. That the address is ours was asked before, in `proxy.ts`. */
export async function pageFor(
  name: PageName,
  params: PathParts,
): Promise<{
  readonly actor: ReturnType<typeof actorOf>;
  readonly server: RunningServer;
  readonly subject: Subject;
} | null> {
  const names = await headers();
  const asked = { method: 'GET', header: (header: string) => names.get(header) };
  const actor = actorOf(asked);
  const server = await runningServer();
  const subject = subjectOf(params, asked);
  return (await mayDo(server.db, actor, PAGES[name], subject)) ? { actor, server, subject } : null;
}
