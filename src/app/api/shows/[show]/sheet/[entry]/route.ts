import { answer, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { showId } from '@/core/show/ids';

export function DELETE(
  request: Request,
  { params }: { params: Promise<{ show: string; entry: string }> },
): Promise<Response> {
  return answer(request, async () => {
    const { show, entry } = await params;
    const { sheet } = await runningServer();
    if (!(await sheet.takeOff(showId(show), entry)))
      throw new Refusal(404, 'That file is no longer on the contact sheet.');
    return {};
  });
}
