import { answer, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { showId } from '@/core/show/ids';

/** The same show once more, with the same contact sheet. */
export function POST(request: Request, { params }: { params: Promise<{ show: string }> }): Promise<Response> {
  return answer(request, async () => {
    const { shows, sheet } = await runningServer();
    const id = showId((await params).show);
    const copy = await shows.duplicate(id);
    if (!copy) throw new Refusal(404, 'There is no such show.');
    await sheet.borrow(copy.id, id, null);
    return { id: copy.id, title: copy.title };
  });
}
