import { showId, type ShowId } from '../../core/show/ids';
import { runningServer } from '../running-server';
import { THE_STUDIO, mayDo } from '../studio/may-do';
import type { OpenedShow } from './show-service';

/** A show for a page that shows it; null when it is not there or not for who asks. */
export async function openedShow(id: ShowId): Promise<OpenedShow | null> {
  const { db, shows } = await runningServer();
  if (!(await mayDo(db, { kind: 'member', studioId: THE_STUDIO }, 'see-show', { show: id }))) return null;
  return shows.load(id);
}

/** The title of a station's page: “Lantern Regatta · Arrange”. */
export function stationTitle(station: string) {
  return async ({ params }: { params: Promise<{ show: string }> }): Promise<{ title: string }> => {
    const opened = await openedShow(showId((await params).show));
    return { title: opened ? `${opened.show.title} · ${station}` : 'Not here' };
  };
}
