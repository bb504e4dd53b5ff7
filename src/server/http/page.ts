import { headers } from 'next/headers';
import { runningServer, type RunningServer } from '../running-server';
import { actorOf } from '../studio/actor';
import { mayDo, type Subject } from '../studio/may-do';
import { PAGES, type PageName } from './routes';

/** What a page needs to be made; null when it is not there or not for who asks. That the address is ours was asked before, in `proxy.ts`. */
export async function pageFor(
  name: PageName,
  subject: Subject,
): Promise<{ readonly actor: ReturnType<typeof actorOf>; readonly server: RunningServer } | null> {
  const names = await headers();
  const actor = actorOf({ method: 'GET', header: (header) => names.get(header) });
  const server = await runningServer();
  return (await mayDo(server.db, actor, PAGES[name], subject)) ? { actor, server } : null;
}
