import { answer, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';

export function DELETE(request: Request, { params }: { params: Promise<{ film: string }> }): Promise<Response> {
  return answer(request, async () => {
    const { films } = await runningServer();
    if (!(await films.remove((await params).film))) throw new Refusal(409, 'Only a finished film can be removed.');
    return {};
  });
}
