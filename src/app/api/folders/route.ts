import { answer, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';

export const dynamic = 'force-dynamic';

/** What lies in `?folder=` below the opened folder of the server's disk. */
export function GET(request: Request): Promise<Response> {
  return answer(request, async () => {
    const { folders } = await runningServer();
    const listing = await folders.list((new URL(request.url).searchParams.get('folder') ?? '').slice(0, 4000));
    if (!listing)
      throw new Refusal(
        404,
        'There is no such folder on the server, or none was opened for this: name one in TANAGER_FOLDER.',
      );
    return listing;
  });
}
