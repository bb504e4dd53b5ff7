import { answer } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { showId } from '@/core/show/ids';

export function GET(request: Request, { params }: { params: Promise<{ show: string }> }): Promise<Response> {
  return answer(request, async () => {
    const { sheet, folders } = await runningServer();
    const show = showId((await params).show);
    return { entries: await sheet.entries(show), folder: folders.progress(show) };
  });
}
