import { answer, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { showId } from '@/core/show/ids';

/** Undoes taking the show off the shelf. */
export function DELETE(request: Request, { params }: { params: Promise<{ show: string }> }): Promise<Response> {
  return answer(request, async () => {
    const { shows } = await runningServer();
    if (!(await shows.setRemoved(showId((await params).show), false))) throw new Refusal(404, 'There is no such show.');
    return {};
  });
}
