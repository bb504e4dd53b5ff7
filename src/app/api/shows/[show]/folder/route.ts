import * as yup from 'yup';
import { answer, bodyOf, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { closed } from '@/server/schema/parts';
import { showId } from '@/core/show/ids';

interface Context {
  params: Promise<{ show: string }>;
}

const wanted = closed({ folder: yup.string().defined().max(4000) }) as unknown as yup.Schema<{ folder: string }>;

/** Takes in a folder of the server's own disk, below the opened one. */
export function POST(request: Request, { params }: Context): Promise<Response> {
  return answer(request, async () => {
    const { folder } = await bodyOf(request, wanted);
    const { folders, shows } = await runningServer();
    const id = showId((await params).show);
    if (!(await shows.load(id))) throw new Refusal(404, 'There is no such show.');
    const outcome = await folders.start(id, folder);
    if (outcome === 'not-there') throw new Refusal(404, 'There is no such folder on the server.');
    if (outcome === 'another-is-coming')
      throw new Refusal(409, 'Another folder is still being taken in. Wait for it, or stop it.');
    return {};
  });
}

/** Stops taking it in; what has arrived stays. */
export function DELETE(request: Request, { params }: Context): Promise<Response> {
  return answer(request, async () => {
    const { folders } = await runningServer();
    await folders.stop(showId((await params).show));
    return {};
  });
}
