import type { Metadata } from 'next';
import { showId } from '../../core/show/ids';
import { pageFor } from '../http/page';
import { personOf } from '../http/route';
import type { PageName } from '../http/routes';
import type { RunningServer } from '../running-server';
import { mayDo } from '../studio/may-do';
import type { Person } from '../studio/sessions';
import type { OpenedShow } from './show-service';

/** A show for a page that shows it; null when it is not there or not for who asks. */
export async function openedShow(
  page: PageName,
  id: string,
): Promise<{
  readonly opened: OpenedShow;
  readonly server: RunningServer;
  /** Who asks, as pages show it: people of other studios are guests. */
  readonly me: Pick<Person, 'name' | 'role'>;
} | null> {
  const asked = await pageFor(page, { show: showId(id) });
  const opened = asked && (await asked.server.shows.load(showId(id)));
  if (!opened) return null;
  const person = personOf(asked.actor);
  const isTheirs = await mayDo(asked.server.db, person, 'send-show', { show: showId(id) });
  return { opened, server: asked.server, me: { name: person.name, role: isTheirs ? person.role : 'guest' } };
}

/** The title of a station's page: “Lantern Regatta · Arrange”. */
export function stationTitle(page: PageName, station: string) {
  return async ({ params }: { params: Promise<{ show: string }> }): Promise<Metadata> => {
    const found = await openedShow(page, (await params).show);
    return { title: found ? `${found.opened.show.title} · ${station}` : 'Not here' };
  };
}
