import { answer, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { showId } from '@/core/show/ids';

/** The same show once more, with the same contact sheet. */
export function POST(request: Request, { params }: { params: Promise<{ show: string }> }): Promise<Response> {
  return answer(request, async () => {
    const { shows } = await runningServer();
    const copy = await shows.duplicate(showId((await params).show));
    if (!copy) throw new Refusal(404, 'There is no such show.');
    return { id: copy.id, title: copy.title };
  });
}
