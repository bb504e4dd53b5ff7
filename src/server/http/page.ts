import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { runningServer, type RunningServer } from '../running-server';
import { actorOf, type Actor } from '../studio/actor';
import { isForAnybody, mayDo, type Subject } from '../studio/may-do';
import { subjectOf, type PathParts } from './route';
import { PAGES, type PageName } from './routes';

/** Where `proxy.ts` says which page was asked for. */
export const PATH_HEADER = 'x-tanager-path';

/**
 * What a page needs to be made; null when it is not there or not for who asks. Strangers are led to where they sign in, and from there back.
 * That the address is ours was asked before, in `proxy.ts`.
 */
export async function pageFor(
  name: PageName,
  params: PathParts,
): Promise<{
  readonly actor: Actor;
  readonly server: RunningServer;
  readonly subject: Subject;
} | null> {
  const names = await headers();
  const asked = { method: 'GET', header: (header: string) => names.get(header) };
  const server = await runningServer();
  const actor = await actorOf(server, asked);
  const subject = subjectOf(params, asked);
  const deed = PAGES[name];
  if (await mayDo(server.db, actor, deed, subject)) return { actor, server, subject };
  if (actor.kind === 'stranger' && !isForAnybody(deed))
    redirect(`/sign-in?to=${encodeURIComponent(names.get(PATH_HEADER) ?? '/')}`);
  return null;
}
