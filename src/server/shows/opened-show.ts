import type { Metadata } from 'next';
import { showId } from '../../core/show/ids';
import { pageFor } from '../http/page';
import type { PageName } from '../http/routes';
import type { RunningServer } from '../running-server';
import type { OpenedShow } from './show-service';

/** A show for a page that shows it; null when it is not there or not for who asks. */
export async function openedShow(
  page: PageName,
  id: string,
): Promise<{ readonly opened: OpenedShow; readonly server: RunningServer } | null> {
  const asked = await pageFor(page, { show: showId(id) });
  const opened = asked && (await asked.server.shows.load(showId(id)));
  return opened && { opened, server: asked.server };
}

/** The title of a station's page: “Lantern Regatta · Arrange”. */
export function stationTitle(page: PageName, station: string) {
  return async ({ params }: { params: Promise<{ show: string }> }): Promise<Metadata> => {
    const found = await openedShow(page, (await params).show);
    return { title: found ? `${found.opened.show.title} · ${station}` : 'Not here' };
  };
}
