import * as yup from 'yup';
import { answer, bodyOf, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { closed } from '@/server/schema/parts';
import { titleSchema } from '@/server/schema/show-schema';
import { showId } from '@/core/show/ids';

interface Context {
  params: Promise<{ show: string }>;
}

const change = closed({
  title: titleSchema().min(1).optional().default(undefined),
  archived: yup.boolean().optional(),
}) as unknown as yup.Schema<{ title?: string; archived?: boolean }>;
const NO_SHOW = 'There is no such show.';

export function GET(request: Request, { params }: Context): Promise<Response> {
  return answer(request, async () => {
    const { shows } = await runningServer();
    const loaded = await shows.load(showId((await params).show));
    if (!loaded) throw new Refusal(404, NO_SHOW);
    return loaded;
  });
}

/** Renames the show, or puts it into the archive or back on the shelf. */
export function PATCH(request: Request, { params }: Context): Promise<Response> {
  return answer(request, async () => {
    const { title, archived } = await bodyOf(request, change);
    const { shows } = await runningServer();
    const id = showId((await params).show);
    if (title !== undefined && !(await shows.rename(id, title))) throw new Refusal(404, NO_SHOW);
    if (archived !== undefined && !(await shows.setArchived(id, archived))) throw new Refusal(404, NO_SHOW);
    return {};
  });
}

/** Takes the show off the shelf; DELETE of `removal` brings it back. */
export function DELETE(request: Request, { params }: Context): Promise<Response> {
  return answer(request, async () => {
    const { shows } = await runningServer();
    if (!(await shows.setRemoved(showId((await params).show), true))) throw new Refusal(404, NO_SHOW);
    return {};
  });
}
