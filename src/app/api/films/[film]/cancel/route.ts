import { answer, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';

export function POST(request: Request, { params }: { params: Promise<{ film: string }> }): Promise<Response> {
  return answer(request, async () => {
    const { films } = await runningServer();
    if (!(await films.cancel((await params).film))) throw new Refusal(409, 'This film is no longer being made.');
    return {};
  });
}
