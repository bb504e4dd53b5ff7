import { answer, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { showId } from '@/core/show/ids';

interface Context { params: Promise<{ show: string }> }

export function GET(request: Request, { params }: Context): Promise<Response> {
  return answer(request, async () => {
    const { shows } = await runningServer();
    const loaded = await shows.load(showId((await params).show));
    if (!loaded) throw new Refusal(404, 'There is no such show.');
    return loaded;
  });
}

/** Takes the show off the shelf; DELETE of `removal` brings it back. */
export function DELETE(request: Request, { params }: Context): Promise<Response> {
  return answer(request, async () => {
    const { shows } = await runningServer();
    if (!await shows.setRemoved(showId((await params).show), true)) throw new Refusal(404, 'There is no such show.');
    return {};
  });
}
